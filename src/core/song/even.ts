import type { SongCounts } from './song'

/** Seconds of a count where nobody knows. */
const USUAL_SECONDS = 0.5

/** The counts of a song nobody has counted: even, and none of them is said. */
export function evenCounts(seconds: number): SongCounts {
  const total = Math.max(2, Math.min(6000, Math.floor(seconds / USUAL_SECONDS)))
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

/** Whether anything of it is counted. */
export const isCounted = ({ ms, silent }: SongCounts): boolean =>
  !silent.some(({ from, to }) => from === 0 && to >= ms.length)
