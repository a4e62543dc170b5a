import type { DancedEvent } from '../../core/combination/lengths'
import type { Pass } from '../../core/combination/passes'
import type { Remark, RemarkKind } from '../../core/combination/remark'
import { calledWords, notedWords } from '../../core/combination/remarks'
import type { Simulation } from '../../core/simulate/simulate'
import { standingsIn } from '../../core/simulate/standings'
import { endOf, labelIn, type PlaceLabel } from '../../core/time/time'
import { kindOf } from '../../core/what/kinds'
import classes from './braid.module.css'
import { SIZE } from './geometry'

/** What of a phrase is no move, and is drawn: a line each. */
const DRAWN: readonly RemarkKind[] = ['pose', 'prepare', 'breath', 'face']
const LINE = 13

const linesOf = ({ remarks }: Pass): readonly RemarkKind[] =>
  DRAWN.filter((kind) => remarks.some((remark) => remark.kind === kind))

/** What lies over counts: a turn that steps share, and counts in which everybody is free. */
const spansIn = ({ events }: Pass): readonly DancedEvent[] =>
  events.filter(
    ({ what, layer }) => what.kind === 'share' || (what.kind === 'free' && layer === 'feet'),
  )

/** What stands under the feet of a phrase needs so much height, in pixels. */
export const heightUnder = (simulation: Simulation, pass: Pass): number =>
  aboveLines(simulation, pass) + LINE * linesOf(pass).length

const aboveLines = (simulation: Simulation, pass: Pass): number =>
  spansIn(pass).length > 0 || standingsIn(simulation, pass).length > 0 ? SIZE.under : 0

/** Under the feet: the height that lasts, the turn that steps share, free counts, pictures and breath. */
export function UnderFeet({
  simulation,
  pass,
  x,
  selected,
  fresh,
}: {
  readonly simulation: Simulation
  readonly pass: Pass
  readonly x: (tick: number) => number
  readonly selected: ReadonlySet<string>
  readonly fresh: ReadonlySet<string>
}) {
  const label = labelIn(pass.phrase)
  const above = aboveLines(simulation, pass)
  return (
    <>
      {standingsIn(simulation, pass).map(({ level, from, to, event }) => (
        <Under
          key={`${level} ${from}`}
          words={level}
          label={`${level}, from here on`}
          event={event}
          left={x(from)}
          right={x(to)}
          y={SIZE.feet + 2}
          wordsAt={6}
          isSelected={event !== undefined && selected.has(event)}
          isFresh={event !== undefined && fresh.has(event)}
        />
      ))}
      {spansIn(pass).map((event) => {
        const words = wordsOver(event)
        return (
          <Under
            key={event.id}
            words={words}
            label={kindOf(event.what).say(event.what, {
              ...event,
              vocabulary: simulation.vocabulary,
            })}
            event={event.id}
            left={x(event.at)}
            right={x(endOf(event))}
            y={SIZE.feet + 9}
            wordsAt={(x(endOf(event)) - x(event.at)) / 2}
            isSelected={selected.has(event.id)}
            isFresh={fresh.has(event.id)}
          />
        )
      })}
      {linesOf(pass).flatMap((kind, row) =>
        pass.remarks
          .filter((remark) => remark.kind === kind)
          .map((remark) => {
            const words = drawnWords(remark, label)
            return (
              <Under
                key={remark.id}
                words={words}
                label={words}
                event={undefined}
                left={x(remark.at)}
                right={x(endOf(remark))}
                y={SIZE.feet + above + LINE * row + 6}
                wordsAt={2}
                isSelected={false}
                isFresh={false}
              />
            )
          }),
      )}
    </>
  )
}

const wordsOver = ({ what, as }: DancedEvent): string =>
  what.kind === 'share'
    ? `${what.degrees > 0 ? '↻' : '↺'} ${Math.abs(what.degrees)}° shared`
    : `free${as ? `: ${as}` : ''}`

const drawnWords = (remark: Remark, label: PlaceLabel): string =>
  remark.kind === 'pose'
    ? (notedWords(remark) ?? '')
    : `${remark.kind === 'face' ? 'face: ' : ''}${calledWords(remark, label) ?? ''}`

/** What a letter of its words is wide, about. */
const LETTER = 5.8

/** A line under the feet with its words. */
function Under({
  words,
  label,
  event,
  left,
  right,
  y,
  wordsAt,
  isSelected,
  isFresh,
}: {
  readonly words: string
  readonly label: string
  readonly event: string | undefined
  readonly left: number
  readonly right: number
  readonly y: number
  /** Pixels from its beginning. */
  readonly wordsAt: number
  readonly isSelected: boolean
  readonly isFresh: boolean
}) {
  return (
    <g
      className={`${classes.foot} ${classes.under} layer-feet ${isSelected ? classes.selected : ''}`}
      data-event={event}
      data-fresh={isFresh || undefined}
      role="img"
      aria-label={`${label}, feet`}
    >
      <title>{label}</title>
      <rect className={classes.hit} x={left} y={y - 7} width={right - left} height={14} />
      <line x1={left + 2} x2={right - 2} y1={y} y2={y} />
      <rect
        className={classes.behind}
        x={left + wordsAt - 3}
        y={y - 5}
        width={words.length * LETTER + 6}
        height={10}
      />
      <text x={left + wordsAt} y={y + 4}>
        {words}
      </text>
    </g>
  )
}
