import { median } from './numbers'
import type { Pace } from './pace'

/** How tightly counts keep the period. */
const TIGHT = 600
const NEAREST = 0.55
const FARTHEST = 1.8

/** The frames, not whole ones, on which counts are heard: where most begins, as evenly as the song goes. */
export function beatsIn(
  envelope: Float32Array,
  { periodAt }: Pick<Pace, 'periodAt'>,
): readonly number[] {
  const { length } = envelope
  const score = new Float64Array(length)
  const before = new Int32Array(length).fill(-1)
  for (let i = 0; i < length; i++) {
    const period = periodAt(i)
    let most = 0
    let where = -1
    const from = Math.max(0, Math.floor(i - FARTHEST * period))
    const to = Math.floor(i - NEAREST * period)
    for (let k = from; k <= to; k++) {
      const off = Math.log((i - k) / period)
      const value = (score[k] as number) - TIGHT * off * off
      if (value > most) [most, where] = [value, k]
    }
    score[i] = (envelope[i] as number) + most
    before[i] = where
  }
  const period = periodAt(length - 1)
  let last = Math.max(0, length - 1)
  for (let i = length - 1; i > length - 1 - period && i >= 0; i--)
    if ((score[i] as number) > (score[last] as number)) last = i
  const beats: number[] = []
  for (let i = last; i >= 0; i = before[i] as number) beats.push(i)
  return withEnds(beats.toReversed(), envelope).map((frame) => peakNear(envelope, frame))
}

/** What is quieter than that share of the middle count at either end is before the song, or after it. */
const QUIET = 0.05

function withEnds(beats: readonly number[], envelope: Float32Array): readonly number[] {
  const heights = beats.map((frame) => envelope[frame] as number)
  const middle = median(heights)
  let from = 0
  let to = beats.length
  while (from < to && (heights[from] as number) < QUIET * middle) from++
  while (to > from && (heights[to - 1] as number) < QUIET * middle) to--
  return beats.slice(from, to)
}

/** The top of a peak between its frames. */
function peakNear(envelope: Float32Array, frame: number): number {
  const [a, b, c] = [envelope[frame - 1] ?? 0, envelope[frame] ?? 0, envelope[frame + 1] ?? 0]
  const bend = a - 2 * b + c
  if (bend >= 0) return frame
  return frame + Math.min(0.5, Math.max(-0.5, (0.5 * (a - c)) / bend))
}
