import { FRAMES_A_SECOND } from './features'
import { mean } from './numbers'

const WINDOW_SECONDS = 12
const EVERY_SECONDS = 3
const SLOWEST = 58
/** A level that was told may be slower still: it is looked for so far under it, as a factor. */
const TOLD = 1.2
const FASTEST = 212
/** Steps of the grid, as a factor. */
const STEP = 1.005
/** How far a song drifts from its level, as a factor. */
const DRIFT = 1.14
/** What one step of the grid costs from one window to the next. */
const STEP_COST = 0.03
/** What a count has in common with the counts around it. */
const WITH = [
  [1, 1],
  [2, 0.6],
  [4, 0.5],
  [0.5, 0.15],
  [1 / 3, 0.1],
] as const

/** Which tempi are likely, before anything is heard. */
export interface TempoPrior {
  /** Counts a minute. */
  readonly centre: number
  /** In octaves. */
  readonly spread: number
}

export const ANY_STYLE: TempoPrior = { centre: 118, spread: 0.75 }

/** How fast a song goes. */
export interface Pace {
  /** Counts a minute of all of it. */
  readonly tempo: number
  /** How much likelier that level is than the next best one, 0 to 1. */
  readonly sure: number
  /** Frames of a count, where a frame is. */
  readonly periodAt: (frame: number) => number
}

const periodOf = (tempo: number) => (60 * FRAMES_A_SECOND) / tempo

/**
 * How fast a song goes, and how that drifts: by what repeats itself in it. What is alike is looked
 * for once, however many levels are tried.
 */
export function pacesIn(envelope: Float32Array): (prior?: TempoPrior) => Pace {
  const length = Math.round(WINDOW_SECONDS * FRAMES_A_SECOND)
  const every = Math.round(EVERY_SECONDS * FRAMES_A_SECOND)
  const alike: Float64Array[] = []
  for (let from = 0; from === 0 || from + length / 2 < envelope.length; from += every)
    alike.push(alikeness(envelope.subarray(from, Math.min(envelope.length, from + length))))
  return (prior = ANY_STYLE) => {
    const grid = gridFor(prior)
    const windows = alike.map((row) =>
      Float64Array.from(grid, (tempo) => likelihood(row, tempo, prior)),
    )
    const total = grid.map((_, i) => windows.reduce((sum, row) => sum + (row[i] as number), 0))
    const level = total.indexOf(Math.max(...total))
    const reach = Math.round(Math.log(DRIFT) / Math.log(STEP))
    const from = Math.max(0, level - reach)
    const to = Math.min(grid.length, level + reach + 1)
    const periods = smoothWay(windows, from, to).map((place) => periodOf(grid[place] as number))
    const rival = Math.max(...total.filter((_, i) => Math.abs(i - level) > 1.5 * reach), 0)
    return {
      tempo: grid[level] as number,
      sure: 1 - rival / ((total[level] as number) || 1),
      periodAt: (frame) =>
        at(periods, Math.min(periods.length - 1, Math.max(0, (frame - length / 2) / every))),
    }
  }
}

/** The tempi that are tried. */
function gridFor({ centre }: TempoPrior): readonly number[] {
  const grid: number[] = []
  const slowest = Math.min(SLOWEST, centre / TOLD)
  for (let tempo = slowest; tempo <= FASTEST; tempo *= STEP) grid.push(tempo)
  return grid
}

/** How likely a tempo is where something is so alike to itself later. */
function likelihood(alike: Float64Array, tempo: number, { centre, spread }: TempoPrior): number {
  const period = periodOf(tempo)
  const sum = WITH.reduce((all, [times, weight]) => all + weight * at(alike, times * period), 0)
  return Math.max(0, sum) * Math.exp(-0.5 * (Math.log2(tempo / centre) / spread) ** 2)
}

/** How alike something is to itself so many frames later, 1 for the same. */
function alikeness(values: Float32Array): Float64Array {
  const middle = mean(values)
  const off = Float64Array.from(values, (value) => value - middle)
  const own = off.reduce((sum, value) => sum + value * value, 0) || 1
  return Float64Array.from({ length: values.length }, (_, lag) => {
    let sum = 0
    for (let i = lag; i < off.length; i++) sum += (off[i] as number) * (off[i - lag] as number)
    // Fewer pairs are left the later it is.
    return (sum / own) * (values.length / Math.max(values.length / 4, values.length - lag))
  })
}

/** A value between two places of a row; nothing is behind its end. */
function at(row: ArrayLike<number>, place: number): number {
  const low = Math.floor(place)
  const share = place - low
  return (row[low] ?? 0) * (1 - share) + (share > 0 ? (row[low + 1] ?? 0) * share : 0)
}

/** The likeliest way through some rows that does not leap. */
function smoothWay(rows: readonly Float64Array[], from: number, to: number): readonly number[] {
  const wide = to - from
  let best = new Float64Array(wide)
  const origins: Int16Array[] = []
  for (const row of rows) {
    const top = Math.max(...row.subarray(from, to)) || 1
    const next = new Float64Array(wide)
    const origin = new Int16Array(wide)
    for (let i = 0; i < wide; i++) {
      let [most, where] = [Number.NEGATIVE_INFINITY, i]
      for (let k = Math.max(0, i - 12); k <= Math.min(wide - 1, i + 12); k++) {
        const value = (best[k] as number) - STEP_COST * Math.abs(i - k)
        if (value > most) [most, where] = [value, k]
      }
      next[i] = most + (row[from + i] as number) / top
      origin[i] = where
    }
    best = next
    origins.push(origin)
  }
  const way: number[] = []
  let now = best.indexOf(Math.max(...best))
  for (const origin of origins.toReversed()) {
    way.push(now + from)
    now = origin[now] as number
  }
  return way.toReversed()
}
