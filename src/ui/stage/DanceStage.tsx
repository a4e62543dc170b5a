import { NativeSelect } from '@mantine/core'
import { useReducedMotion } from '@mantine/hooks'
import { type PointerEvent, useCallback, useEffect, useMemo, useRef, useState } from 'react'
import { useStore } from 'zustand'
import { LAYERS, type Layer } from '../../core/body/layers'
import { type Side, sideWord } from '../../core/body/side'
import type { Combination } from '../../core/combination/combination'
import { layerWord } from '../../core/moves/vocabulary'
import type { DanceMoment } from '../../core/performance/performance'
import type { Seam } from '../../core/performance/seam'
import { type Dancer, dancerOf } from '../../core/pose/dancer'
import { placeOfJoint } from '../../core/pose/joints'
import { VIEWS, type View, viewFacts } from '../../core/pose/views'
import { TICKS_PER_COUNT } from '../../core/time/time'
import { createFrames, type Frames, trailJoints } from '../../dancer/frames'
import type { Stage } from '../../dancer/stage'
import { useFrames } from '../play/useFrames'
import { simulationFrom } from '../stores/checked'
import { dancerNow } from '../stores/dancer'
import type { PlayDeck } from '../stores/deck'
import { scrubbed } from '../stores/scrub'
import { FlatStage } from './FlatFigure'
import { drawFlat } from './flatDrawing'
import { coloursOf, openStage } from './openStage'
import { SaveMenu } from './SaveMenu'
import classes from './stage.module.css'
import { stageChoice } from './stageChoice'

interface DanceStageProps {
  readonly combination: Combination
  readonly side: Side
  /** Shown while nothing plays: ticks from the start of the combination. */
  readonly at: number
  readonly layers: ReadonlySet<Layer>
  readonly only: Layer | undefined
  readonly onOnly: (layer: Layer | undefined) => void
  readonly deck: PlayDeck
}

const STILL_MS = 140
/** Drawn flat there is one figure, and nothing beside it. */
const FLAT_CHOICE = { both: false, trails: false, next: false } as const

/** The dancing figure: touch a part, and only that layer and the feet are shown, heard and danced. */
export function DanceStage(props: DanceStageProps) {
  const { combination, side, at, layers, only, onOnly, deck } = props
  const choice = useStore(stageChoice, (s) => s)
  const { scale, build } = useStore(dancerNow, (s) => s)
  const dancers = useMemo(() => {
    const made: Partial<Record<Side, Dancer>> = {}
    const of = (one: Side) => {
      made[one] ??= dancerOf(simulationFrom(combination, one), { layers, scale })
      return made[one]
    }
    // Made ready when they are drawn: an edit waits for nobody.
    return {
      get R() {
        return of('R')
      },
      get L() {
        return of('L')
      },
    }
  }, [combination, layers, scale])
  const frames = useMemo(() => createFrames(dancers, trailJoints(only)), [dancers, only])
  const isStill = useReducedMotion()

  const box = useRef<HTMLDivElement>(null)
  const canvas = useRef<HTMLCanvasElement>(null)
  const stage = useRef<Stage>(undefined)
  const flat = useRef<SVGGElement>(null)
  const [isFlat, setFlat] = useState(false)
  const drawAt = useStageDrawing(canvas, stage, flat, frames)
  const isPressed = usePressed()
  const draw = useCallback(
    (moment?: DanceMoment | undefined) => {
      const scrub = scrubbed.getState()
      if (moment) {
        const { tick } = moment
        if (isStill) drawAt(moment.side, Math.floor(tick / TICKS_PER_COUNT) * TICKS_PER_COUNT)
        else drawAt(moment.side, tick, moment.seam)
      } else if (scrub) drawAt(scrub.side, scrub.at)
      else drawAt(side, at)
    },
    [drawAt, side, at, isStill],
  )
  useFrames(deck, draw)
  const redraw = useRef(draw)
  redraw.current = draw
  useEffect(() => scrubbed.subscribe(() => redraw.current(deck.moment())), [deck])

  useEffect(() => {
    const element = canvas.current
    if (!element) return
    return openStage(element, {
      onOpen(opened) {
        stage.current = opened
        redraw.current(deck.moment())
      },
      onResize: () => redraw.current(deck.moment()),
      onFail: () => setFlat(true),
      onClose() {
        stage.current = undefined
      },
    })
  }, [deck])
  useEffect(() => {
    stage.current?.setView(choice.view)
    stage.current?.highlight(only)
    stage.current?.setBuild(build)
    // While edits follow one another the braid has the frames; the figure comes right behind.
    let soon = setTimeout(function later() {
      if (isPressed.current) soon = setTimeout(later, STILL_MS)
      else draw(deck.moment())
    }, STILL_MS)
    return () => clearTimeout(soon)
  }, [choice, only, build, draw, deck, isPressed])
  // Without WebGL there is nothing to load: it is drawn as soon as that is known.
  useEffect(() => {
    if (isFlat) redraw.current(deck.moment())
  }, [isFlat, deck])

  const touch = (event: PointerEvent<HTMLCanvasElement>) => {
    const box = event.currentTarget.getBoundingClientRect()
    const layer = stage.current?.partAt(
      ((event.clientX - box.left) / box.width) * 2 - 1,
      1 - ((event.clientY - box.top) / box.height) * 2,
    )
    if (layer) onOnly(only === layer ? undefined : layer)
  }
  const whose = viewFacts[choice.view].whose
  return (
    <section className={classes.stage} aria-label="Dancing figure">
      <div className={classes.box} data-stage-box ref={box}>
        {isFlat ? (
          <FlatStage
            group={flat}
            view={choice.view}
            label={`The figure, ${sideWord[side]} side. ${whose}`}
          />
        ) : (
          <canvas
            ref={canvas}
            className={classes.canvas}
            role="img"
            aria-label={`The figure, ${choice.both ? 'both sides' : `${sideWord[side]} side`}. ${whose}`}
            onPointerUp={touch}
          />
        )}
        <p className={classes.whose}>{whose}</p>
        <NativeSelect
          size="xs"
          className={classes.view}
          aria-label="Seen from"
          value={choice.view}
          onChange={({ currentTarget }) =>
            stageChoice.setState((s) => ({ ...s, view: currentTarget.value as View }))
          }
          data={VIEWS.map((view) => ({ value: view, label: viewFacts[view].name }))}
        />
      </div>
      <div className={classes.choices}>
        {(
          [
            ['both', 'Beside', 'The other side beside it, in step'],
            ['trails', 'Trails', 'The way of hips and hands over the last counts'],
            ['next', 'Next', 'The pose of the next count, seen through'],
          ] as const
        ).map(([key, label, title]) => (
          <button
            key={key}
            type="button"
            className={classes.choice}
            aria-pressed={choice[key]}
            title={title}
            onClick={() => stageChoice.setState((s) => ({ [key]: !s[key] }))}
          >
            {label}
          </button>
        ))}
        <SaveMenu
          combination={combination}
          dancers={dancers}
          side={side}
          at={at}
          colours={() => coloursOf(box.current ?? document.documentElement)}
          inSpace={!isFlat}
        />
      </div>
      <div className={classes.layers}>
        {LAYERS.toReversed().map((layer) => (
          <button
            key={layer}
            type="button"
            className={`${classes.layer} layer-${layer}`}
            aria-pressed={only === layer}
            aria-label={
              layer === 'feet'
                ? 'Only the feet'
                : `Only the ${layerWord[layer].toLowerCase()} on the feet`
            }
            onClick={() => onOnly(only === layer ? undefined : layer)}
          >
            {layerWord[layer]}
          </button>
        ))}
      </div>
    </section>
  )
}

/** Whether a pointer is held down somewhere: then something is dragged. */
function usePressed() {
  const pressed = useRef(false)
  useEffect(() => {
    const press = () => {
      pressed.current = true
    }
    const release = () => {
      pressed.current = false
    }
    window.addEventListener('pointerdown', press, true)
    window.addEventListener('pointerup', release, true)
    window.addEventListener('pointercancel', release, true)
    return () => {
      window.removeEventListener('pointerdown', press, true)
      window.removeEventListener('pointerup', release, true)
      window.removeEventListener('pointercancel', release, true)
    }
  }, [])
  return pressed
}

/** Draws a tick of a side, and leaves on the canvas what is shown, for whoever asks. */
function useStageDrawing(
  canvas: { readonly current: HTMLCanvasElement | null },
  stage: { readonly current: Stage | undefined },
  flat: { readonly current: SVGGElement | null },
  frames: Frames,
) {
  return useCallback(
    (side: Side, tick: number, seam?: Seam) => {
      const opened = stage.current
      const group = flat.current
      if (!opened) {
        const [alone] = group ? frames.at(side, tick, FLAT_CHOICE, seam) : []
        if (!group || !alone) return
        drawFlat(group, alone.pose, stageChoice.getState().view)
        group.dataset.shown = `${side} ${tick.toFixed(3)}`
        return
      }
      const begun = performance.now()
      const shown = frames.at(side, tick, stageChoice.getState(), seam)
      opened.draw(shown)
      const element = canvas.current
      const [first] = shown
      if (!element || !first) return
      const { joints } = first.pose
      const palm = placeOfJoint.palmR
      element.dataset.shown = [
        side,
        tick.toFixed(3),
        ...[0, 1, 2].map((i) => (joints[palm + i] ?? 0).toFixed(5)),
      ].join(' ')
      element.dataset.took = (performance.now() - begun).toFixed(2)
    },
    [canvas, stage, flat, frames],
  )
}
