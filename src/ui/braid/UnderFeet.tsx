import type { Pass } from '../../core/combination/passes'
import type { Simulation } from '../../core/simulate/simulate'
import { standingsIn } from '../../core/simulate/standings'
import { endOf } from '../../core/time/time'
import { kindOf } from '../../core/what/kinds'
import classes from './braid.module.css'
import { SIZE } from './geometry'

/** Whether something stands under the feet of a phrase. */
export const hasUnder = (simulation: Simulation, pass: Pass): boolean =>
  pass.events.some(({ what }) => what.kind === 'share') || standingsIn(simulation, pass).length > 0

/** Under the feet: the height that lasts, and the turn that steps share. */
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
  const shares = pass.events.filter(({ what }) => what.kind === 'share')
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
      {shares.map((event) => {
        const degrees = event.what.kind === 'share' ? event.what.degrees : 0
        const words = `${degrees > 0 ? '↻' : '↺'} ${Math.abs(degrees)}° shared`
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
    </>
  )
}

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
