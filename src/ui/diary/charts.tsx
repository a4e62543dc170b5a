import { scaleBand, scaleLinear, scalePoint } from 'd3-scale'
import { line } from 'd3-shape'
import { countsByWeek, loadByClass, tempoByPhrase } from '../../core/diary/charts'
import type { ClassEntry } from '../../core/diary/diary'
import { dayShort, dayWords, numberWords } from '../parts/locale'
import classes from './diary.module.css'

const WIDTH = 360
/** Where the titles beside the tempo chart begin, and the letters that fit there. */
const TITLES = WIDTH - 134
const MOST_LETTERS = 22
const HEIGHT = 132
const LEFT = 34
const BOTTOM = 20
const TOP = 10

/** Labels that do not lie on each other: every so many. */
/** Of so many days each so-manieth is named, where there is room for so many names. */
const everyOf = (count: number, room = 7): number => Math.max(1, Math.ceil(count / room))

function Axis({
  y,
  unit,
  end = WIDTH - 4,
}: {
  readonly y: (value: number) => number
  readonly unit: readonly number[]
  /** Where the lines end, so that none runs through a title. */
  readonly end?: number
}) {
  return unit.map((value) => (
    <g key={value}>
      <line x1={LEFT} x2={end} y1={y(value)} y2={y(value)} className={classes.grid} />
      <text x={LEFT - 5} y={y(value) + 4} textAnchor="end">
        {value}
      </text>
    </g>
  ))
}

/** Counts on each side, week by week: right solid, left outlined. */
export function SideChart({ given }: { readonly given: readonly ClassEntry[] }) {
  const weeks = countsByWeek(given).slice(-14)
  const most = Math.max(1, ...weeks.flatMap(({ counts }) => [counts.R, counts.L]))
  const x = scaleBand(
    weeks.map(({ week }) => week),
    [LEFT, WIDTH - 4],
  ).padding(0.28)
  const y = scaleLinear([0, most], [HEIGHT - BOTTOM, TOP]).nice(3)
  const half = x.bandwidth() / 2
  const text = weeks.map(
    ({ week, counts }) => `week of ${dayWords(week)}: ${counts.R} right, ${counts.L} left`,
  )
  return (
    <figure className={classes.chart}>
      <figcaption>
        Counts a side, week by week <span className={classes.right}>right</span>{' '}
        <span className={classes.leftKey}>left</span>
      </figcaption>
      <svg
        viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
        role="img"
        aria-label={`Counts a side: ${text.join('; ')}`}
      >
        <Axis y={y} unit={y.ticks(3)} />
        {weeks.map(({ week, counts }, i) => (
          <g key={week}>
            <rect
              x={x(week) ?? 0}
              width={half - 1}
              y={y(counts.R)}
              height={y(0) - y(counts.R)}
              className={classes.rightBar}
            />
            <rect
              x={(x(week) ?? 0) + half + 1}
              width={Math.max(0, half - 2)}
              y={y(counts.L)}
              height={y(0) - y(counts.L)}
              className={classes.leftBar}
            />
            {i % everyOf(weeks.length) === 0 && (
              <text x={(x(week) ?? 0) + half} y={HEIGHT - 5} textAnchor="middle">
                {dayShort(week)}
              </text>
            )}
          </g>
        ))}
      </svg>
    </figure>
  )
}

/** The fastest tempo of each phrase, class by class; a full dot where it was clean. */
export function TempoChart({ given }: { readonly given: readonly ClassEntry[] }) {
  const all = tempoByPhrase(given)
  const lines = all.slice(-6)
  const days = [...new Set(lines.flatMap(({ points }) => points.map(({ day }) => day)))].sort()
  const tempos = lines.flatMap(({ points }) => points.map(({ tempo }) => tempo))
  const x = scalePoint(days, [LEFT + 6, TITLES - 6]).padding(0.2)
  const y = scaleLinear(
    [Math.min(60, ...tempos) - 4, Math.max(80, ...tempos) + 4],
    [HEIGHT - BOTTOM, TOP],
  )
  const draw = line<{ day: string; tempo: number }>(
    ({ day }) => x(day) ?? 0,
    ({ tempo }) => y(tempo),
  )
  const ends = spread(lines.map(({ points }) => y(points.at(-1)?.tempo ?? 60)))
  const text = lines.map(
    ({ title, points }) =>
      `${title}: ${points.map(({ tempo, isClean }) => `${tempo}${isClean ? ' clean' : ''}`).join(', ')}`,
  )
  return (
    <figure className={classes.chart}>
      <figcaption>Tempo reached, phrase by phrase; a full dot was clean</figcaption>
      <svg
        viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
        role="img"
        aria-label={`Tempo reached. ${text.join('; ')}`}
      >
        <Axis y={y} unit={y.ticks(4)} end={TITLES - 4} />
        {lines.map(({ combination, title, points }, i) => (
          <g key={combination + title} className={classes[`line${i % 6}`]}>
            <path d={draw([...points]) ?? ''} />
            {points.map(({ day, tempo, isClean }) => (
              <circle key={day} cx={x(day)} cy={y(tempo)} r={3.6} data-clean={isClean} />
            ))}
            <text x={TITLES} y={(ends[i] ?? 0) + 4}>
              {title.length > MOST_LETTERS ? `${title.slice(0, MOST_LETTERS - 1)}…` : title}
              {title.length > MOST_LETTERS && <title>{title}</title>}
            </text>
          </g>
        ))}
        {days.map((day, i) =>
          i % everyOf(days.length, 4) === 0 ? (
            <text key={day} x={x(day)} y={HEIGHT - 5} textAnchor="middle">
              {dayShort(day)}
            </text>
          ) : null,
        )}
      </svg>
    </figure>
  )
}

/** Places of labels, moved apart until none lies on another. */
function spread(places: readonly number[]): readonly number[] {
  const order = places.map((place, i) => ({ place, i })).sort((a, b) => a.place - b.place)
  let last = Number.NEGATIVE_INFINITY
  const moved: number[] = []
  for (const { place, i } of order) {
    last = Math.max(place, last + 13)
    moved[i] = last
  }
  const over = Math.max(0, last - (HEIGHT - BOTTOM))
  return moved.map((place) => place - over)
}

/** How much load was danced in each class. */
export function LoadChart({ given }: { readonly given: readonly ClassEntry[] }) {
  const loads = loadByClass(given)
    .filter(({ load }) => load > 0)
    .slice(-14)
  const most = Math.max(1, ...loads.map(({ load }) => load))
  const x = scaleBand(
    loads.map(({ id }) => id),
    [LEFT, WIDTH - 4],
  ).padding(0.3)
  const y = scaleLinear([0, most], [HEIGHT - BOTTOM, TOP]).nice(3)
  const text = loads.map(
    ({ day, load, mean }) =>
      `${dayWords(day)}: ${numberWords(load)}, ${numberWords(mean, 1)} a count`,
  )
  return (
    <figure className={classes.chart}>
      <figcaption>Load taught, class by class (load × counts)</figcaption>
      <svg
        viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
        role="img"
        aria-label={`Load taught. ${text.join('; ')}`}
      >
        <Axis y={y} unit={y.ticks(3)} />
        {loads.map(({ id, day, load, mean }, i) => (
          <g key={id}>
            <rect
              x={x(id)}
              width={x.bandwidth()}
              y={y(load)}
              height={y(0) - y(load)}
              rx={3}
              className={classes.heat}
              fillOpacity={0.35 + Math.min(0.65, mean / 12)}
            />
            {i % everyOf(loads.length) === 0 && (
              <text x={(x(id) ?? 0) + x.bandwidth() / 2} y={HEIGHT - 5} textAnchor="middle">
                {dayShort(day)}
              </text>
            )}
          </g>
        ))}
      </svg>
    </figure>
  )
}
