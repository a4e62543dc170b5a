import { periodOf } from '../beats/tapped'
import { LEAST_COUNTS, MOST_COUNTS, type SongCounts } from './song'

/** Seconds of a count where nobody knows. */
const USUAL_SECONDS = 0.5

/** The counts of a song nobody has counted: even, and none of them is said. */
export function evenCounts(seconds: number): SongCounts {
  const total = countsIn(seconds / USUAL_SECONDS)
  return {
    ms: Array.from({ length: total }, (_, i) => Math.round(1000 * USUAL_SECONDS * i)),
    by: 'hand',
    fixed: [],
    sure: [],
    ones: [{ at: 0, counts: 8, found: true }],
    anew: [],
    silent: [{ from: 0, to: total }],
  }
}

const countsIn = (counts: number): number =>
  Math.max(LEAST_COUNTS, Math.min(MOST_COUNTS, Math.floor(counts)))

/**
 * The counts of a song in which nothing tells them, as a hand tapped them: even, to its end.
 * @param taps seconds, rising
 * @throws UserError where they are too few or no steady count
 */
export function countsTapped(taps: readonly number[], seconds: number): SongCounts {
  const { period, first } = periodOf(taps)
  // The first 1 is the first tap; what is before it leads in.
  const before = Math.floor(first / period)
  const begins = first - before * period
  const total = countsIn((seconds - begins) / period)
  return {
    ms: Array.from({ length: total }, (_, i) => Math.round(1000 * (begins + i * period))),
    by: 'tapped',
    fixed: [],
    sure: [],
    ones: [{ at: before, counts: 8, found: true }],
    anew: [],
    silent: [],
  }
}

/** Whether anything of it is counted. */
export const isCounted = ({ ms, silent }: SongCounts): boolean =>
  !silent.some(({ from, to }) => from === 0 && to >= ms.length)
