import { memo } from 'react'
import { type FootAction, factsOf } from '../../core/body/feet'
import { claimOf } from '../../core/combination/claims'
import { type DancedEvent, whenSaid } from '../../core/combination/lengths'
import { nameOf } from '../../core/combination/names'
import type { MoveKind } from '../../core/moves/move'
import type { Vocabulary } from '../../core/moves/vocabulary'
import type { DancedStep } from '../../core/simulate/simulate'
import { labelIn, type Numbering } from '../../core/time/time'
import classes from './braid.module.css'
import { fitted, longest, SIZE } from './geometry'

interface MarkProps {
  readonly event: DancedEvent
  readonly vocabulary: Vocabulary
  readonly left: number
  readonly right: number
  /** Where a place that is on its way until `right` is held to. */
  readonly heldTo?: number
  readonly top: number
  /** Where the next mark of its row begins, or the row ends: a name may go on as far. */
  readonly room: number
  /** Its phrase, whose counts have names of their own. */
  readonly phrase: Numbering
  readonly selected: boolean
  /** A preview would bring or change it. */
  readonly fresh?: boolean
  /** It stands in a part's own line, and all dance it. */
  readonly isOfAll?: boolean
}

const HEIGHT = SIZE.row - 2

/** One move of a layer, drawn by its kind: a plate, a ribbon, a bead or a wave. */
export const Mark = memo(function Mark({
  event,
  vocabulary,
  left,
  right,
  heldTo = right,
  top,
  room,
  phrase,
  selected,
  fresh = false,
  isOfAll = false,
}: MarkProps) {
  const name = nameOf(event, vocabulary)
  const { kind } = claimOf(event, vocabulary)
  // An accent strikes again every `counts` of its move, unless it says otherwise (model 1).
  const { what } = event
  const every =
    what.kind === 'move' ? (what.every ?? vocabulary.find(what.move)?.length) : undefined
  const width = right - left - 3
  const shown = fitted(
    `${event.kept ? '⚓ ' : ''}${name}`,
    Math.max(width, room - left - 6) - (kind === 'accent' ? 16 : 18),
  )
  return (
    <g
      className={`${classes.mark} layer-${event.layer} ${selected ? classes.selected : ''}`}
      transform={`translate(${left + 1.5} ${top + 1})`}
      data-event={event.id}
      data-fresh={fresh || undefined}
      data-all={isOfAll || undefined}
      role="img"
      aria-label={`${name}, ${whenSaid(event, labelIn(phrase))}, ${event.layer}${event.kept ? ', kept' : ''}`}
    >
      <title>{name}</title>
      <rect className={classes.hit} width={width} height={HEIGHT} />
      {heldTo > right + 1 && (
        <line
          className={classes.held}
          x1={width}
          x2={heldTo - left - 4}
          y1={HEIGHT - 1}
          y2={HEIGHT - 1}
        />
      )}
      <Shape
        kind={kind}
        width={width}
        from={shown.length * 6.7 + 14}
        beats={every ? event.length / every : 1}
      />
      <text
        x={kind === 'accent' ? 15 : 9}
        y={HEIGHT / 2 + 4.5}
        data-over={shown.length * 6.3 > width - 14 || undefined}
      >
        {shown}
      </text>
    </g>
  )
})

interface ShapeProps {
  readonly kind: MoveKind
  readonly width: number
  /** Where the name ends: a wave does not run through it. */
  readonly from: number
  readonly beats: number
}

function Shape({ kind, width, from, beats }: ShapeProps) {
  switch (kind) {
    case 'accent':
      return (
        <>
          <rect className={classes.trace} y={HEIGHT - 2.5} width={width} height={2} rx={1} />
          {repeatsFrom(beats).map((i) => (
            <circle
              key={i}
              className={classes.bead}
              cx={5.5 + (i * width) / beats}
              cy={HEIGHT / 2}
              r={5}
            />
          ))}
        </>
      )
    case 'texture':
      return <path className={classes.wave} d={wave(Math.min(from, width - 8), width)} />
    case 'path':
      return <path className={classes.path} d={lens(width)} />
    default:
      return (
        <>
          <rect className={classes.plate} width={width} height={HEIGHT} rx={5} />
          <rect
            className={classes.anchor}
            x={width - 4}
            y={2}
            width={4}
            height={HEIGHT - 4}
            rx={1.5}
          />
        </>
      )
  }
}

const repeatsFrom = (beats: number): readonly number[] => [
  ...Array(Math.max(1, Math.floor(beats))).keys(),
]

/** A ribbon that begins and ends in a point: a way from somewhere to somewhere. */
const lens = (width: number): string =>
  `M0 ${HEIGHT / 2} C ${Math.min(14, width / 4)} 0, ${Math.min(14, width / 4)} 0, ${Math.min(26, width / 2)} 0 H ${Math.max(width / 2, width - 26)} C ${width - Math.min(14, width / 4)} 0, ${width - 8} ${HEIGHT / 4}, ${width} ${HEIGHT / 2} C ${width - 8} ${HEIGHT * 0.75}, ${width - Math.min(14, width / 4)} ${HEIGHT}, ${Math.max(width / 2, width - 26)} ${HEIGHT} H ${Math.min(26, width / 2)} C ${Math.min(14, width / 4)} ${HEIGHT}, ${Math.min(14, width / 4)} ${HEIGHT}, 0 ${HEIGHT / 2} Z`

/** A fine wave behind the name, as long as the texture runs. */
function wave(from: number, to: number): string {
  const swing = 5
  const dips = Math.max(1, Math.floor((to - from) / (2 * swing)))
  const dip = ` q ${swing / 2} -6 ${swing} 0 t ${swing} 0`
  return `M0 2 v${HEIGHT - 4} M${from} ${HEIGHT / 2}${dip.repeat(dips)}`
}

interface FootMarkProps {
  readonly danced: DancedStep
  readonly x: number
  /** Pixels until the next thing the feet do. */
  readonly room: number
  /** The next thing follows so soon that the footprint is drawn small. */
  readonly tight: boolean
  readonly selected: boolean
  /** A preview would bring or change it. */
  readonly fresh?: boolean
  /** It stands in a part's own line, and all dance it. */
  readonly isOfAll?: boolean
}

/** One thing the feet do: a footprint on its side of the ribbon, with its word outside it. */
export const FootMark = memo(function FootMark({
  danced,
  x,
  room,
  tight,
  selected,
  fresh = false,
  isOfAll = false,
}: FootMarkProps) {
  const { action, event } = danced
  const foot = action.foot ?? (danced.after.weight === 'L' ? 'L' : 'R')
  const y = foot === 'L' ? SIZE.leftFoot : SIZE.rightFoot
  const wordY = foot === 'L' ? SIZE.leftFoot - 9 : SIZE.rightFoot + 15
  return (
    <g
      className={`${classes.foot} layer-feet ${selected ? classes.selected : ''}`}
      transform={`translate(${x} 0)`}
      data-event={event.id}
      data-fresh={fresh || undefined}
      data-all={isOfAll || undefined}
      role="img"
      aria-label={`${footWords(action)}, feet${event.kept ? ', kept' : ''}`}
    >
      <title>{footWords(action)}</title>
      <rect className={classes.hit} y={y - 8} width={Math.min(26, room)} height={16} />
      <g transform={tight ? `translate(0 ${y * 0.35}) scale(0.65)` : undefined}>
        <Print action={action} foot={foot} y={y} />
      </g>
      <text x={1} y={wordY}>
        {longest(
          wordings(action).map((words) => (event.kept ? `⚓${words}` : words)),
          room - 4,
        )}
      </text>
    </g>
  )
})

function Print({ action, foot, y }: { action: FootAction; foot: 'R' | 'L'; y: number }) {
  const solid = foot === 'R' ? classes.right : classes.left
  const { needs, lands, levelOnly } = factsOf(action.primitive)
  if (action.primitive === 'hold' || levelOnly) return null
  // A touch that is pressed into the floor.
  if (action.primitive === 'press')
    return (
      <>
        <circle className={solid} cx={9} cy={y} r={4.5} />
        <path className={classes.pressed} d={`M1 ${y + 7} h16`} />
      </>
    )
  if (needs === 'free-touch')
    return lands || action.primitive === 'sweep' ? (
      <circle className={solid} cx={9} cy={y} r={4.5} />
    ) : (
      <path className={solid} d={`M9 ${y + 5} l-4.500 -6 a4.500 4.500 0 1 1 9 0 z`} />
    )
  // A sole seen from above: toes to the right, the way the counts run.
  return (
    <path
      className={solid}
      // The arch is on the inside, so the left one is the right one turned over.
      transform={`translate(0 ${y}) scale(1 ${foot === 'R' ? 1 : -1})`}
      d="M1 0 C1 -3.400 5 -3.600 9 -2.800 C13 -2.300 13.500 -5.200 18 -5.200 C23.500 -5.200 23.500 3.800 19 4.800 C14 5.400 9 4 5 3.700 C2.400 3.500 1 2.400 1 0 Z"
    />
  )
}

const footWords = ({ primitive, foot, direction, turn }: FootAction): string =>
  [primitive, foot, direction, turn && `${turn}°`].filter(Boolean).join(' ')

const SHORT: Readonly<Record<string, string>> = {
  forward: 'fwd',
  together: 'tog',
  'in-place': 'here',
  'diag-forward': 'diag fwd',
  'diag-back': 'diag back',
  'cross-front': 'x front',
  'cross-behind': 'x behind',
}

/** Wordings of a step, the longest first; the foot itself is said by where the word stands. */
function wordings(action: FootAction): readonly string[] {
  const { primitive, direction, turn, size, contact, jump, shared } = action
  const onBoth = shared && 'both'
  const said = (way: string | undefined, ...more: (string | false | undefined)[]) =>
    [primitive === 'step' ? '' : primitive, jump, way, ...more].filter(Boolean).join(' ')
  const turned = turn ? `${turn > 0 ? '↻' : '↺'}${Math.abs(turn)}°` : undefined
  const long = direction?.replace('-', ' ')
  const short = direction && (SHORT[direction] ?? direction)
  return [
    said(long, size, contact, onBoth, turned),
    said(short, size, contact, onBoth, turned),
    said(short, size, onBoth, turned),
    said(short, size, turned),
    said(short, turned),
  ]
}
