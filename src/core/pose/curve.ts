import { countUpTo } from '../time/countUpTo'
/** Small curves in time that everything else is made of. */

/** From 0 to 1, at rest at both ends. */
export const eased = (x: number): number => {
  const t = x < 0 ? 0 : Math.min(x, 1)
  return t * t * (3 - 2 * t)
}

export const radians = (degrees: number): number => (degrees * Math.PI) / 180

/**
 * Values that are known at some times, and flow in between without ever going past them
 * (a monotone cubic, Fritsch and Carlson 1980).
 */
export interface Track {
  readonly times: Float64Array
  readonly values: Float64Array
  readonly slopes: Float64Array
}

/** @param points in order of time; of two at one time the later holds. */
export function trackThrough(points: readonly (readonly [number, number])[]): Track {
  const kept = points.filter(([time], i) => time < (points[i + 1]?.[0] ?? Infinity))
  const n = kept.length
  const times = Float64Array.from(kept, ([time]) => time)
  const values = Float64Array.from(kept, ([, value]) => value)
  const slopes = new Float64Array(n)
  const rise = (i: number) =>
    ((values[i + 1] ?? 0) - (values[i] ?? 0)) / ((times[i + 1] ?? 1) - (times[i] ?? 0))
  for (let i = 1; i < n - 1; i++) {
    const before = rise(i - 1)
    const after = rise(i)
    slopes[i] = before * after > 0 ? (2 * before * after) / (before + after) : 0
  }
  return { times, values, slopes }
}

export function valueAt({ times, values, slopes }: Track, t: number): number {
  const next = countUpTo(times, t)
  if (next === 0) return values[0] ?? 0
  const last = next - 1
  if (next === times.length) return values[last] as number
  const from = times[last] as number
  const span = (times[next] as number) - from
  const s = (t - from) / span
  const a = values[last] as number
  const b = values[next] as number
  const ma = (slopes[last] as number) * span
  const mb = (slopes[next] as number) * span
  const s2 = s * s
  const s3 = s2 * s
  return a * (2 * s3 - 3 * s2 + 1) + ma * (s3 - 2 * s2 + s) + b * (3 * s2 - 2 * s3) + mb * (s3 - s2)
}
