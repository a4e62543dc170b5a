import { type KeyboardEvent, useCallback, useMemo, useRef } from 'react'
import type { Position } from '../../audio/player'
import type { Side } from '../../core/body/side'
import type { Combination } from '../../core/combination/combination'
import type { Layer } from '../../core/moves/move'
import { layerWord } from '../../core/moves/vocabulary'
import { standingAt } from '../../core/pose/standing'
import type { PlayDeck } from '../play/deck'
import { useFrames } from '../play/useFrames'
import { simulationFrom } from '../stores/checked'
import { partsOf } from './figureParts'
import classes from './stage.module.css'

interface StandingFigureProps {
  readonly combination: Combination
  readonly side: Side
  /** Shown while nothing plays: ticks from the start of the combination. */
  readonly at: number
  readonly layers: ReadonlySet<Layer>
  readonly only: Layer | undefined
  readonly onOnly: (layer: Layer | undefined) => void
  readonly deck: PlayDeck
}

/** Where a layer's word stands beside the figure, and the point of the body it leads to. */
const WORDS: Readonly<Record<Layer, { y: number; to: readonly [number, number] }>> = {
  head: { y: 36, to: [122, 40] },
  arms: { y: 74, to: [140, 92] },
  torso: { y: 106, to: [128, 100] },
  hips: { y: 140, to: [130, 140] },
  feet: { y: 222, to: [134, 232] },
}

/** The standing body: touch a part, and only that layer and the feet are shown, heard and danced. */
export function StandingFigure(props: StandingFigureProps) {
  const { combination, side, at, layers, only, onOnly, deck } = props
  const root = useRef<SVGSVGElement>(null)
  const still = useMemo(
    () => partsOf(standingAt(simulationFrom(combination, side), at, layers)),
    [combination, side, at, layers],
  )
  const draw = useCallback(
    (position: Position | undefined) => {
      const dance = position?.part.dance
      const parts =
        position && dance
          ? partsOf(
              standingAt(simulationFrom(combination, dance.side), dance.from + position.at, layers),
            )
          : still
      for (const [id, attributes] of Object.entries(parts)) {
        const element = root.current?.querySelector(`[data-part="${id}"]`)
        for (const [name, value] of Object.entries(attributes)) element?.setAttribute(name, value)
      }
    },
    [combination, layers, still],
  )
  useFrames(deck, draw)

  const part = (layer: Layer, ids: readonly string[]) => {
    const toggle = () => onOnly(only === layer ? undefined : layer)
    const quiet = only !== undefined && only !== layer && layer !== 'feet'
    return (
      <g
        key={layer}
        className={`${classes.part} layer-${layer} ${only === layer ? classes.chosen : ''} ${quiet ? classes.quiet : ''}`}
        role="button"
        tabIndex={0}
        aria-pressed={only === layer}
        aria-label={
          layer === 'feet'
            ? 'Only the feet'
            : `Only the ${layerWord[layer].toLowerCase()} on the feet`
        }
        onClick={toggle}
        onKeyDown={(event: KeyboardEvent) => {
          if (event.key !== 'Enter' && event.key !== ' ') return
          event.preventDefault()
          toggle()
        }}
      >
        <line
          className={classes.leader}
          x1={WORDS[layer].to[0]}
          y1={WORDS[layer].to[1]}
          x2={196}
          y2={WORDS[layer].y - 4}
        />
        {ids.map((id) =>
          id.startsWith('head') || id === 'hips' ? (
            <ellipse
              key={id}
              data-part={id}
              className={classes[id] ?? classes.limb}
              {...still[id]}
            />
          ) : (
            <path key={id} data-part={id} className={classes[id] ?? classes.limb} {...still[id]} />
          ),
        )}
        <text x={200} y={WORDS[layer].y}>
          {layerWord[layer]}
        </text>
      </g>
    )
  }

  return (
    <svg
      ref={root}
      viewBox="14 10 244 240"
      className={classes.figure}
      role="group"
      aria-label="Standing body, seen from behind: its right is your right"
    >
      <title>Touch a part to see, hear and dance only that on the feet</title>
      <ellipse className={classes.floor} cx={100} cy={238} rx={84} ry={9} />
      {part('feet', ['legL', 'legR', 'footL', 'footR'])}
      {part('torso', ['torso'])}
      {part('hips', ['hips', 'belt'])}
      {part('arms', ['armL', 'armR'])}
      {part('head', ['neck', 'head', 'headKnot'])}
    </svg>
  )
}
