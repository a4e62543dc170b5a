import { Button } from '@mantine/core'
import { IconPlayerPlayFilled, IconPlayerStopFilled } from '@tabler/icons-react'
import { useCallback, useEffect, useMemo, useRef, useState } from 'react'
import { Link } from 'react-router'
import { useStore } from 'zustand'
import { sideWord } from '../../core/body/side'
import { drillPerformance } from '../../core/class/drillDance'
import type { Combination } from '../../core/combination/combination'
import { aloneFrom } from '../../core/combination/dancing'
import type { Moment } from '../../core/performance/performance'
import { isClick, isOfLayers } from '../../core/performance/sounds'
import { SILENT } from '../../core/performance/stretches'
import { isCounted } from '../../core/plan/drill'
import { type Material, type Materials, roundOf } from '../../core/plan/material'
import { teachingSteps } from '../../core/plan/teachingSteps'
import { type TeachStep, whoTitle, whoWords } from '../../core/plan/teachTogether'
import { drillTitle } from '../../core/plan/totals'
import type { StepWords } from '../../core/plan/words'
import { sayPass } from '../../core/teaching/say'
import { sayWhoever } from '../../core/teaching/sayTogether'
import { TICKS_PER_COUNT } from '../../core/time/time'
import { KeysButton, KeysHelp } from '../parts/KeysHelp'
import { StoredCombination } from '../parts/StoredCombination'
import { useScreenKeys } from '../parts/useScreenKeys'
import { useMaterials } from '../planning/usePlanning'
import { nowText, useFrames } from '../play/useFrames'
import { PageForm } from '../practice/PageForm'
import { DanceStage } from '../stage/DanceStage'
import { useServices } from '../stores/services'
import { CountRow } from './CountRow'
import classes from './teach.module.css'
import { useKeyPoses } from './useKeyPoses'

/** Shown while nothing sounds. */
const READY = '♪'

/** Teaching a combination, step by step. */
export const TeachScreen = () => (
  <StoredCombination>{(combination) => <Teaching combination={combination} />}</StoredCombination>
)

/** The combination with what a planner makes of it. */
function Teaching({ combination }: { readonly combination: Combination }) {
  const all = useMemo(() => [combination], [combination])
  const materials = useMaterials(all)
  const material = materials?.find(combination.id)
  if (!materials || !material) return null
  return <Teach material={material} materials={materials} />
}

function Teach({
  material,
  materials,
}: {
  readonly material: Material
  readonly materials: Materials
}) {
  const { deck } = useServices()
  const { combination } = material
  const playing = useStore(deck, (is) => is)
  const { steps, words, lookAt } = useMemo(
    () => teachingSteps(material, materials),
    [material, materials],
  )
  const [index, setIndex] = useState(0)
  const [isPage, setPage] = useState(false)
  const [dancing, setDancing] = useState(() =>
    aloneFrom(steps[0]?.drill.sides[0] ?? combination.lead),
  )
  const [passIndex, setPass] = useState<number>()
  /** Counts of a walk that were gone. */
  const [walked, setWalked] = useState(0)
  const root = useRef<HTMLElement>(null)
  const now = useRef<HTMLParagraphElement>(null)
  const strip = useRef<HTMLOListElement>(null)
  const goesOn = useRef(false)
  const taught = steps[index]
  const step = taught?.drill
  const round = useMemo(() => taught && roundOf(taught.drill, lookAt(taught)), [taught, lookAt])
  const layers = useMemo(() => new Set(step?.layers), [step])
  const isWalk = step !== undefined && !isCounted(step)

  const playStep = useCallback(
    (next: TeachStep | undefined) => {
      const wanted = next?.drill
      const round = next && isCounted(next.drill) ? roundOf(next.drill, lookAt(next)) : undefined
      goesOn.current = round !== undefined
      if (!wanted || !round) return
      deck.hear((kind) => isClick(kind) || isOfLayers(kind, wanted.layers))
      // To look at it once a side is enough.
      const once = { ...wanted, repeats: 1, talk: 0 }
      void deck.play(
        drillPerformance(once, round, { call: 'none', rhythm: undefined, speech: SILENT }),
      )
    },
    [deck, lookAt],
  )
  const stop = useCallback(() => {
    goesOn.current = false
    deck.stop()
  }, [deck])
  const show = useCallback(
    (to: number) => {
      const wanted = steps[to]
      if (!wanted) return
      setIndex(to)
      setPass(undefined)
      setWalked(0)
      setDancing(aloneFrom(wanted.drill.sides[0] ?? combination.lead))
    },
    [steps, combination.lead],
  )
  const go = (to: number) => {
    const wasPlaying = goesOn.current
    // Stopped by hand it does not lead on by itself.
    stop()
    show(to)
    if (wasPlaying) playStep(steps[to])
  }
  // A step that has been played to its end leads to the next one; a walk waits for a touch.
  useEffect(
    () =>
      deck.subscribe(() => {
        if (deck.getState() || !goesOn.current) return
        goesOn.current = false
        const next = steps[index + 1]
        if (!next) return
        show(index + 1)
        playStep(next)
      }),
    [deck, steps, index, playStep, show],
  )
  useEffect(() => {
    deck.warm()
    return stop
  }, [deck, stop])
  useEffect(() => {
    strip.current?.children[index]?.scrollIntoView({ block: 'nearest', inline: 'center' })
  }, [index])

  const draw = useCallback((moment: Moment | undefined) => {
    if (now.current) now.current.textContent = nowText(moment) || READY
    const count = moment && !moment.isCountIn ? moment.count : undefined
    for (const row of root.current?.querySelectorAll('[data-row]') ?? []) {
      const isLit = row.getAttribute('data-row') === String(count)
      if (isLit && row.getAttribute('data-lit') !== 'true') inView(row)
      row.setAttribute('data-lit', String(isLit))
    }
    // Renders only when the phrase or the side changes, not on every frame.
    if (moment?.pass) setPass(moment.pass.index)
    if (moment) setDancing(moment.dancing)
  }, [])
  useFrames(deck, draw)
  const keys = useScreenKeys([
    { on: ['PageDown'], does: 'the next step', run: () => go(index + 1) },
    { on: ['PageUp'], does: 'the step before', run: () => go(index - 1) },
  ])

  const simulation = round?.material.from(dancing)
  const shown = round?.passes.find((one) => one.index === passIndex) ?? round?.passes[0]
  const pass = simulation?.passes.find((one) => one.index === shown?.index)
  const company = useMemo(
    () => (taught?.part === undefined ? round?.material.company?.(dancing) : undefined),
    [taught, round, dancing],
  )
  const poses = useKeyPoses(company, simulation ?? material.lead, pass, layers)
  if (!taught || !step || !round || !simulation || !pass)
    return (
      <main className={classes.screen}>
        <h1 className="display">{combination.title}</h1>
        <p>
          There is nothing to teach yet.{' '}
          <Link to={`/combination/${combination.id}`}>Put the feet down first.</Link>
        </p>
      </main>
    )
  const first = (step.half?.from ?? 1) - 1
  const rows = sayWhoever(company, simulation, pass, (own, its) =>
    sayPass(own, its, layers, own.vocabulary),
  ).filter(({ count }) => !step.half || (count >= step.half.from && count <= step.half.to))
  const walkedCount = isWalk && walked > 0 ? rows[walked - 1]?.count : undefined
  const next = () => {
    if (walked === rows.length) {
      go(index + 1)
      return
    }
    setWalked(walked + 1)
    const row = root.current?.querySelector(`[data-row="${rows[walked]?.count}"]`)
    if (row) inView(row)
  }
  const titleFor = (one: TeachStep) =>
    `${whoTitle(combination, one)}${drillTitle(one.drill, lookAt(one))}`
  const title = titleFor(taught)
  return (
    <main className={classes.screen} ref={root}>
      <KeysHelp {...keys} />
      <div className={classes.top}>
        <h1 className="display">Teach {combination.title}</h1>
        <Button
          component={Link}
          to={`/plans?from=${encodeURIComponent(combination.id)}`}
          size="compact-md"
        >
          Plan a class of it
        </Button>
        <Button variant="default" size="compact-md" onClick={() => setPage(true)}>
          Practice page…
        </Button>
        <Button
          component={Link}
          to={`/combination/${combination.id}/lesson`}
          variant="default"
          size="compact-md"
        >
          Lesson on film
        </Button>
        {isPage && <PageForm combination={combination} onClose={() => setPage(false)} />}
        <Button
          component={Link}
          to={`/combination/${combination.id}`}
          variant="default"
          size="compact-md"
        >
          Studio
        </Button>
        <KeysButton onClick={keys.onOpen} />
      </div>
      <div className={classes.body}>
        <ol className={classes.strip} aria-label="Steps" ref={strip}>
          {steps.map((each, i) => (
            <li key={each.drill.id}>
              <button
                type="button"
                aria-current={i === index ? 'step' : undefined}
                onClick={() => go(i)}
              >
                {titleFor(each)}
                <span className="counts">
                  {isCounted(each.drill)
                    ? `${each.drill.sides.join(' then ')} · ${each.drill.tempo}`
                    : 'by touch'}
                </span>
              </button>
            </li>
          ))}
        </ol>
        {/* It scrolls, and a walk has nothing in it to focus. */}
        <section className={classes.words} aria-label="What to do on each count" tabIndex={0}>
          <header>
            <h2 className="display">
              {title}
              {pass.phrase.title && `, ${pass.phrase.title}`}
            </h2>
            {round.passes.length > 1 && (
              <div className={classes.passes}>
                {round.passes.map(({ index: i, phrase }) => (
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
            <Said
              words={words.get(step.id)}
              who={whoWords(combination, taught)}
              side={`${sideWord[dancing.side] === 'right' ? 'Right' : 'Left'} side.`}
            />
          </header>
          <ol className={classes.rows}>
            {rows.map((row) => (
              <CountRow
                key={row.count}
                row={row}
                dancers={company?.dancers ?? []}
                layers={layers}
                poses={poses}
                families={combination.families}
                isLit={row.count === walkedCount}
              />
            ))}
          </ol>
        </section>
        <aside className={classes.stage} aria-label="Now">
          {isWalk ? (
            <p className={`display counts ${classes.now}`} data-now>
              {walkedCount ?? READY}
            </p>
          ) : (
            <p ref={now} className={`display counts ${classes.now}`} data-now>
              {READY}
            </p>
          )}
          <DanceStage
            combination={round.material.combination}
            dancing={dancing}
            at={pass.at + (first + walked) * TICKS_PER_COUNT - (walked > 0 ? 1 : 0)}
            layers={layers}
            only={step.kind === 'alone' && layers.size === 1 ? step.layers[0] : undefined}
            onOnly={(layer) =>
              go(
                steps.findIndex(({ drill: { kind, layers: own } }) =>
                  layer ? kind === 'alone' && own.includes(layer) : kind === 'all',
                ),
              )
            }
            deck={deck}
          />
        </aside>
      </div>
      <p className={classes.caution}>
        Warm first, without pain. Knees soft, never locked. Who is dizzy or hurts stops; where pain
        stays, ask a doctor or physiotherapist, whose word goes before this.
      </p>
      <section className={classes.bar} aria-label="Play">
        <button
          type="button"
          className={classes.aside}
          onClick={() => go(index - 1)}
          disabled={index === 0}
        >
          Step before
        </button>
        {isWalk ? (
          <button type="button" className={classes.play} onClick={next}>
            {walked < rows.length ? 'Next count' : 'On'}
          </button>
        ) : (
          <button
            type="button"
            className={classes.play}
            onClick={() => (playing ? stop() : playStep(taught))}
          >
            {playing ? <IconPlayerStopFilled size={20} /> : <IconPlayerPlayFilled size={20} />}
            {playing ? 'Stop' : 'Play'}
          </button>
        )}
        <button
          type="button"
          className={classes.aside}
          onClick={() => go(index + 1)}
          disabled={index === steps.length - 1}
        >
          Next step
        </button>
        <p className="counts">
          {index + 1} of {steps.length}
        </p>
      </section>
    </main>
  )
}

/** Under the figure that stays, where the screen is small. */
const inView = (row: Element) => row.scrollIntoView({ block: 'nearest' })

/** What is said before a step, and what may be danced instead. */
function Said({
  words,
  who,
  side,
}: {
  readonly words: StepWords | undefined
  /** Who dances it, where they are several. */
  readonly who: readonly string[]
  readonly side: string
}) {
  return (
    <>
      <p>{[side, ...who, ...(words?.say ?? [])].join(' ')}</p>
      {words?.easier.map((form) => (
        <p key={form}>
          <b>Or</b> {form}
        </p>
      ))}
    </>
  )
}
