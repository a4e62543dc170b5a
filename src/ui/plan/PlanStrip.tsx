import { scaleLinear } from 'd3-scale'
import type { Drill } from '../../core/plan/drill'
import { type Materials, meanLoad, roundOf, secondsOf } from '../../core/plan/material'
import { drillTitle, minutesText } from '../../core/plan/totals'
import classes from './plan.module.css'

const WIDTH = 1000
const HEIGHT = 74
const BASE = 52
/** A class of light drills is not drawn as if it were hard. */
const LEAST_TOP = 4

/** What warms, cools or rests: it is not as hot as what is danced. */
const isCalm = ({ combination }: Drill): boolean => combination === undefined

/** The class as one pour: every drill as long as it lasts and as high as it is hard. */
export function PlanStrip({
  drills,
  materials,
  seconds,
  onPick,
}: {
  readonly drills: readonly Drill[]
  readonly materials: Materials
  /** Of the class. */
  readonly seconds: number
  readonly onPick: (id: string) => void
}) {
  const lengths = drills.map((drill) => secondsOf(drill, materials))
  const sum = lengths.reduce((a, b) => a + b, 0)
  const x = scaleLinear([0, Math.max(seconds, sum)], [0, WIDTH])
  let from = 0
  const shown = drills.map((drill, i) => {
    const start = from
    from += lengths[i] ?? 0
    const round = roundOf(drill, materials)
    return { drill, start, end: from, load: round ? meanLoad(drill, round) : 0 }
  })
  const top = Math.max(LEAST_TOP, ...shown.map(({ load }) => load))
  const y = scaleLinear([0, top], [0, BASE - 8])
  const minutes = Math.floor(seconds / 60)
  const step = minutes > 90 ? 15 : minutes > 40 ? 10 : 5
  const marks = Array.from({ length: Math.floor(minutes / step) + 1 }, (_, i) => i * step)
  return (
    <div className={classes.pourAll}>
      <svg
        viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
        preserveAspectRatio="none"
        className={classes.strip}
        role="img"
        aria-label={`${drills.length} drills over ${minutesText(sum)} of ${minutesText(seconds)}`}
      >
        {shown.map(({ drill, start, end, load }) => (
          // biome-ignore lint/a11y/noStaticElementInteractions: the same drills are reached in the list below
          <g key={drill.id} onClick={() => onPick(drill.id)} className={classes.pour}>
            <title>{`${drillTitle(drill, materials)}, ${minutesText(end - start)}`}</title>
            <rect
              x={x(start)}
              width={Math.max(1, x(end) - x(start))}
              y={0}
              height={BASE}
              fill="transparent"
            />
            <rect
              x={x(start) + 1}
              width={Math.max(1, x(end) - x(start) - 2)}
              y={BASE - 8 - y(load)}
              height={8 + y(load)}
              rx={3}
              className={isCalm(drill) ? classes.calm : classes.hot}
              fillOpacity={isCalm(drill) ? 1 : 0.35 + 0.65 * Math.min(1, load / top)}
            />
          </g>
        ))}
        {marks.map((minute) => (
          <g key={minute}>
            <line
              x1={x(minute * 60)}
              x2={x(minute * 60)}
              y1={BASE + 2}
              y2={BASE + 7}
              className={classes.tickMark}
            />
          </g>
        ))}
        <rect
          x={x(Math.min(seconds, sum))}
          width={Math.abs(x(seconds) - x(sum))}
          y={BASE - 6}
          height={6}
          className={sum > seconds ? classes.over : classes.spare}
        />
      </svg>
      <div className={classes.minutes} aria-hidden>
        {marks.map((minute) => (
          <span key={minute} style={{ left: `${(100 * x(minute * 60)) / WIDTH}%` }}>
            {minute}′
          </span>
        ))}
      </div>
    </div>
  )
}
