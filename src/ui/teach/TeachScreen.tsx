import { ActionIcon, Button } from '@mantine/core'
import { IconPlayerPlayFilled, IconPlayerStopFilled } from '@tabler/icons-react'
import { useQuery } from '@tanstack/react-query'
import { useCallback, useEffect, useMemo, useRef, useState } from 'react'
import { Link, useParams } from 'react-router'
import { useStore } from 'zustand'
import { sideWord } from '../../core/body/side'
import type { Combination } from '../../core/combination/combination'
import { aloneFrom, leadOf } from '../../core/combination/dancing'
import { layerWord } from '../../core/moves/vocabulary'
import type { Moment } from '../../core/performance/performance'
import { isClick, isOfLayers } from '../../core/performance/sounds'
import type { Pose } from '../../core/pose/joints'
import { sayPass } from '../../core/teaching/say'
import { type TeachStep, teachSteps } from '../../core/teaching/steps'
import { KeysButton, KeysHelp } from '../parts/KeysHelp'
import { inWords, ProblemPage } from '../parts/Problem'
import { useScreenKeys } from '../parts/useScreenKeys'
import { teachPerformance } from '../play/performances'
import { nowText, useFrames } from '../play/useFrames'
import { DanceStage } from '../stage/DanceStage'
import { FlatFigure } from '../stage/FlatFigure'
import { simulationFrom } from '../stores/checked'
import { useServices } from '../stores/services'
import classes from './teach.module.css'
import { useKeyPoses } from './useKeyPoses'

/** Shown while nothing sounds. */
const READY = '♪'

/** Teaching a combination, step by step. */
export function TeachScreen() {
  const { id = '' } = useParams()
  const { combinations } = useServices()
  const stored = useQuery({
    queryKey: ['combination', id],
    queryFn: async () => (await combinations.get(id)) ?? null,
    gcTime: 0,
    staleTime: 0,
  })
  if (stored.error) return <ProblemPage {...inWords(stored.error)} />
  if (stored.isPending) return <p className="only-read">Opening…</p>
  if (!stored.data)
    return (
      <ProblemPage
        what="This combination is not here."
        toDo="Go back to all combinations; it may be under “Deleted” there."
      />
    )
  return <Teach combination={stored.data.combination} />
}

function Teach({ combination }: { combination: Combination }) {
  const { deck } = useServices()
  const playing = useStore(deck, (is) => is)
  const steps = useMemo(() => teachSteps(combination), [combination])
  const [index, setIndex] = useState(0)
  const [dancing, setDancing] = useState(() => leadOf(combination))
  const [passIndex, setPass] = useState(0)
  const root = useRef<HTMLElement>(null)
  const now = useRef<HTMLParagraphElement>(null)
  const walking = useRef(false)
  const step: TeachStep | undefined = steps[index]
  const layers = useMemo(() => new Set(step?.layers), [step])

  const playStep = useCallback(
    (wanted: TeachStep | undefined) => {
      if (!wanted) return
      walking.current = true
      deck.hear((kind) => isClick(kind) || isOfLayers(kind, wanted.layers))
      void deck.play(teachPerformance(combination, wanted))
    },
    [deck, combination],
  )
  const stop = useCallback(() => {
    walking.current = false
    deck.stop()
  }, [deck])
  const go = (to: number) => {
    const wanted = steps[to]
    if (!wanted) return
    setIndex(to)
    setPass(0)
    setDancing(aloneFrom(wanted.sides[0] ?? combination.lead))
    if (walking.current) playStep(wanted)
  }
  // A step that has been played to its end leads to the next one.
  useEffect(
    () =>
      deck.subscribe(() => {
        if (deck.getState() || !walking.current) return
        const next = steps[index + 1]
        if (!next) {
          walking.current = false
          return
        }
        setIndex(index + 1)
        setPass(0)
        setDancing(aloneFrom(next.sides[0] ?? combination.lead))
        playStep(next)
      }),
    [deck, steps, index, playStep, combination.lead],
  )
  useEffect(() => {
    deck.warm()
    return stop
  }, [deck, stop])

  const draw = useCallback((moment: Moment | undefined) => {
    if (now.current) now.current.textContent = nowText(moment) || READY
    const count = moment && !moment.isCountIn ? moment.count : undefined
    for (const row of root.current?.querySelectorAll('[data-row]') ?? [])
      row.setAttribute('data-lit', String(row.getAttribute('data-row') === String(count)))
    // Renders only when the phrase or the side changes, not on every frame.
    if (moment?.pass) setPass(moment.pass.index)
    if (moment) setDancing(moment.dancing)
  }, [])
  useFrames(deck, draw)
  const keys = useScreenKeys([
    { on: ['PageDown'], does: 'the next step', run: () => go(index + 1) },
    { on: ['PageUp'], does: 'the step before', run: () => go(index - 1) },
  ])

  const { side } = dancing
  const simulation = simulationFrom(combination, dancing)
  const pass = simulation.passes[passIndex] ?? simulation.passes[0]
  const poses = useKeyPoses(simulation, pass, layers)
  const words = pass ? sayPass(simulation, pass, layers, simulation.vocabulary) : []

  if (!step || !pass)
    return (
      <main className={classes.screen}>
        <h1 className="display">{combination.title}</h1>
        <p>
          There is nothing to teach yet.{' '}
          <Link to={`/combination/${combination.id}`}>Put the feet down first.</Link>
        </p>
      </main>
    )
  return (
    <main className={classes.screen} ref={root}>
      <KeysHelp {...keys} />
      <div className={classes.top}>
        <h1 className="display">Teach {combination.title}</h1>
        <Button
          component={Link}
          to={`/plans?from=${encodeURIComponent(combination.id)}`}
          size="compact-md"
          ml="auto"
          mr={8}
        >
          Plan a class of it
        </Button>
        <Button
          component={Link}
          to={`/combination/${combination.id}`}
          variant="default"
          size="compact-md"
          mr={8}
        >
          Back to the studio
        </Button>
        <KeysButton onClick={keys.onOpen} />
      </div>
      <ol className={classes.strip} aria-label="Steps">
        {steps.map((each, i) => (
          <li key={each.id}>
            <button
              type="button"
              aria-current={i === index ? 'step' : undefined}
              onClick={() => go(i)}
            >
              <b className="counts">{i + 1}</b> {each.title}
              <span className="counts">
                {each.sides.join(' then ')} · {each.tempo}
              </span>
            </button>
          </li>
        ))}
      </ol>
      <div className={classes.body}>
        <section className={classes.words} aria-label="What to do on each count">
          <header>
            <h2 className="display">
              {step.title}: phrase {pass.phrase.name}{' '}
              {pass.phrase.title && `· ${pass.phrase.title}`}
            </h2>
            <p>
              {sideWord[side] === 'right' ? 'Right' : 'Left'} side. {step.say}
            </p>
            {simulation.passes.length > 1 && (
              <div className={classes.passes}>
                {simulation.passes.map(({ index: i, phrase }) => (
                  <button
                    key={i}
                    type="button"
                    aria-pressed={i === pass.index}
                    disabled={playing}
                    onClick={() => setPass(i)}
                  >
                    {phrase.name}
                  </button>
                ))}
              </div>
            )}
          </header>
          <ol className={classes.rows}>
            {words.map(({ count, feet, layers: others, weight, cues }) => (
              <li key={count} data-row={count} className={classes.row}>
                <b className={`display counts ${classes.count}`}>{count}</b>
                <div className={classes.pose}>{poseOn(poses.get(count), count)}</div>
                <div>
                  {feet.length > 0 && <p className="layer-feet">{feet.join('. ')}.</p>}
                  {others.map(({ layer, text }) => (
                    <p key={layer + text} className={`layer-${layer}`}>
                      <b>{layerWord[layer]}</b> {text}
                    </p>
                  ))}
                  {feet.length === 0 && others.length === 0 && (
                    <p className={classes.goOn}>
                      {layers.has('feet') ? 'Hold; the count still passes.' : 'Go on.'}
                    </p>
                  )}
                </div>
                <div className={classes.weight}>
                  {cues.map((cue) => (
                    <em key={cue}>“{cue}”</em>
                  ))}
                  {layers.has('feet') && <span>weight: {weight}</span>}
                </div>
              </li>
            ))}
          </ol>
        </section>
        <aside className={classes.stage} aria-label="Now">
          <p ref={now} className={`display counts ${classes.now}`} data-now>
            {READY}
          </p>
          <DanceStage
            combination={combination}
            dancing={dancing}
            at={pass.at}
            layers={layers}
            only={layers.size === 1 && !layers.has('feet') ? step.layers[0] : undefined}
            onOnly={(layer) => go(steps.findIndex(({ id }) => id === (layer ?? 'feet')))}
            deck={deck}
          />
          <p className={classes.caution}>
            Warm first, without pain. Knees soft, never locked. Who is dizzy or hurts stops; where
            pain stays, ask a doctor or physiotherapist, whose word goes before this.
          </p>
        </aside>
      </div>
      <section className={classes.bar} aria-label="Play">
        <ActionIcon
          className={classes.play}
          size={46}
          radius="xl"
          aria-label={playing ? 'Stop' : 'Play'}
          onClick={() => (playing ? stop() : playStep(step))}
        >
          {playing ? <IconPlayerStopFilled size={22} /> : <IconPlayerPlayFilled size={22} />}
        </ActionIcon>
        <Button variant="default" onClick={() => go(index - 1)} disabled={index === 0}>
          Step before
        </Button>
        <Button
          variant="default"
          onClick={() => go(index + 1)}
          disabled={index === steps.length - 1}
        >
          Next step
        </Button>
        <p>
          Step {index + 1} of {steps.length}: {step.title},{' '}
          {step.sides.map((s) => `${sideWord[s]} side`).join(' then ')}, {step.tempo} counts a
          minute.
        </p>
      </section>
    </main>
  )
}

/** The key pose of a count, seen as the class sees its own. */
const poseOn = (pose: Pose | undefined, count: number) =>
  pose && <FlatFigure pose={pose} view="behind" label={`Pose on ${count}, from behind`} />
