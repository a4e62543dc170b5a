import { countUpTo } from './countUpTo'

/** Gives the place of the time that is nearest to a moment. @param times rising, one or more */
export function nearestIn(times: readonly number[]): (moment: number) => number {
  const row = Float64Array.from(times)
  return (moment) => {
    const after = Math.min(row.length - 1, countUpTo(row, moment))
    const before = Math.max(0, after - 1)
    const off = (at: number) => Math.abs((row[at] as number) - moment)
    return off(after) < off(before) ? after : before
  }
}
