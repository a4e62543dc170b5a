import { changeAt, type Rows } from './chords'
import { type Features, frameAt } from './features'
import { mean, median } from './numbers'

/** What is heard near a moment: the strongest of a few frames. */
const REACH = 3

export function heightAt(values: Float32Array, seconds: number): number {
  const middle = Math.round(frameAt(seconds))
  let most = 0
  for (let i = middle - REACH; i <= middle + REACH; i++) most = Math.max(most, values[i] ?? 0)
  return most
}

/** What is heard between two moments, in the mean. */
export function meanBetween(values: Float32Array, from: number, to: number): number {
  const a = Math.max(0, Math.round(frameAt(from)))
  const b = Math.min(values.length, Math.max(a + 1, Math.round(frameAt(to))))
  let sum = 0
  for (let i = a; i < b; i++) sum += values[i] as number
  return sum / Math.max(1, b - a)
}

/** How much stronger some moments are than others, in halvings. */
interface Strength {
  readonly low: number
  readonly flux: number
  readonly chord: number
}

function strengthOf(
  moments: readonly number[],
  period: number,
  { flux, low }: Features,
  chords: Rows,
): Strength {
  return {
    low: mean(moments.map((at) => heightAt(low, at))),
    flux: mean(moments.map((at) => heightAt(flux, at))),
    chord: mean(moments.map((at) => changeAt(chords, at, 0.9 * period))),
  }
}

const WEIGHTS = { low: 1, flux: 0.5, chord: 0.7 } as const
/** The others must be that much better to be taken instead. */
const STAY = 0.08
/** Between counts as much low sound as on them: there is a count there too. */
const AS_LOW = 0.55
/** No faster than that is counted, where it may be counted half as fast. */
const DOUBLED_TO = 205

const evenness = (a: number, b: number): number => Math.min(a, b) / (Math.max(a, b) + 1e-9)

const halfWay = (beats: readonly number[]): readonly number[] =>
  beats.slice(1).map((at, i) => (at + (beats[i] as number)) / 2)

export const medianGap = (beats: readonly number[]): number =>
  median(beats.slice(1).map((at, i) => at - (beats[i] as number))) || 0.5

/**
 * Counts where they are danced: half a count later where drums and chords say so, twice as many
 * where what is between them is as strong.
 * @param beats seconds
 */
export function leveled(
  beats: readonly number[],
  features: Features,
  chords: Rows,
): readonly number[] {
  if (beats.length < 8) return beats
  const period = medianGap(beats)
  const between = halfWay(beats)
  const [on, off] = [beats, between].map((some) => strengthOf(some, period, features, chords)) as [
    Strength,
    Strength,
  ]
  if (60 / (period / 2) < DOUBLED_TO) {
    const twice = [...beats, ...between].sort((a, b) => a - b)
    const quarters = halfWay(twice)
    // Every other moment of those half way between all of them.
    const [one, other] = [0, 1].map((first) =>
      mean(quarters.filter((_, i) => i % 2 === first).map((at) => heightAt(features.low, at))),
    ) as [number, number]
    if (evenness(one, other) > AS_LOW && one + other > on.low + off.low) return quarters
    if (evenness(on.low, off.low) > AS_LOW) return twice
  }
  const better = (['low', 'flux', 'chord'] as const).reduce(
    (sum, key) => sum + WEIGHTS[key] * Math.log2((off[key] + 1e-6) / (on[key] + 1e-6)),
    0,
  )
  return better > STAY ? between : beats
}
