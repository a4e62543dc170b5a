import type { Meter } from './meter'
import { mean, median } from './numbers'
import { NUMBERS, type Weights } from './rows'

/** Counts on either side of a border that are compared, and how quickly the farther ones matter less. */
const REACH = 16
const FADES = 7
/** A border stands out from the middle of all by so many usual differences. */
const STANDS_OUT = 1.5
const LEAST_APART = 12
const ONES_MORE = 1.2
/** Chords come and go within a section; how loud and how low it is does not. */
export const OF_BORDERS: Weights = { tones: 0.3, timbre: 1, loudness: 5 }

/** How differently it goes on from each count. @param rows counts as directions, by `OF_BORDERS` */
export const newnessOf = (rows: readonly Float64Array[]): readonly number[] =>
  rows.map((_, i) => newnessAt(rows, i))

/** Where a song changes: places of counts, the first one where it begins, and how clearly, 0 to 1. */
interface Borders {
  readonly starts: readonly number[]
  readonly sure: number
}

export function bordersOf(
  beats: readonly number[],
  { bars, ones }: Pick<Meter, 'bars' | 'ones'>,
  newness: readonly number[],
): Borders {
  if (beats.length < 2 * LEAST_APART || ones.length === 0)
    return { starts: beats.length > 0 ? [0] : [], sure: 0 }
  // Sections begin with a bar, rather with an eight, or a count beside where one was heard.
  const offered = bars.map((one) =>
    [one - 1, one, one + 1].reduce((best, at) =>
      (newness[at] ?? 0) > (newness[best] ?? 0) ? at : best,
    ),
  )
  const isOne = new Set(ones)
  const values = offered.map(
    (at, i) => (newness[at] ?? 0) * (isOne.has(bars[i] as number) ? ONES_MORE : 1),
  )
  const middle = median(values)
  const usual = median(values.map((value) => Math.abs(value - middle)))
  const borders: number[] = []
  const order = values
    .map((value, i) => ({ value, one: bars[i] as number }))
    .filter(({ value }) => value > middle + STANDS_OUT * usual)
    .sort((a, b) => b.value - a.value)
  for (const { one } of order)
    if (borders.every((other) => Math.abs(other - one) >= LEAST_APART)) borders.push(one)
  const first = ones[0] as number
  const after = borders.filter((at) => at >= first + LEAST_APART)
  return {
    starts: [...new Set([first, ...after])].sort((a, b) => a - b),
    sure: clarity(values, bars, after),
  }
}

/** By how many spreads borders stand out from all that is no border and beside none. */
function clarity(
  values: readonly number[],
  bars: readonly number[],
  borders: readonly number[],
): number {
  const isBeside = (one: number) => borders.some((at) => Math.abs(at - one) < LEAST_APART)
  const at = (isWanted: (one: number) => boolean) =>
    values.filter((_, i) => isWanted(bars[i] as number))
  const inside = at((one) => !isBeside(one))
  if (borders.length === 0 || inside.length === 0) return 0
  const spread = Math.sqrt(mean(values.map((value) => (value - mean(values)) ** 2))) || 1
  const lead = mean(at((one) => borders.includes(one))) - Math.max(...inside)
  return Math.min(1, Math.max(0, lead / spread))
}

/** How alike the counts on each side of a border are to their own side, and how unlike the other's. */
function newnessAt(rows: readonly Float64Array[], border: number): number {
  const [before, after] = [-1, 1].map((way) => {
    const middle = new Float64Array(NUMBERS)
    let all = 0
    for (let k = 0; k < REACH; k++) {
      const row = rows[way < 0 ? border - 1 - k : border + k]
      if (!row) continue
      const weight = Math.exp(-0.5 * (k / FADES) ** 2)
      all += weight
      for (let n = 0; n < NUMBERS; n++)
        middle[n] = (middle[n] as number) + weight * (row[n] as number)
    }
    // A side of a few counts alone says little.
    const share = all / FULL
    for (let n = 0; n < NUMBERS; n++)
      middle[n] = ((middle[n] as number) / (all || 1)) * Math.sqrt(share)
    return { middle, share }
  }) as [Side, Side]
  const even = Math.min(before.share, after.share)
  let sum = 0
  for (let n = 0; n < NUMBERS; n++)
    sum += ((before.middle[n] as number) - (after.middle[n] as number)) ** 2
  return sum * even
}

interface Side {
  readonly middle: Float64Array
  readonly share: number
}

/** All the weight a side can have. */
const FULL = Array.from({ length: REACH }, (_, k) => Math.exp(-0.5 * (k / FADES) ** 2)).reduce(
  (sum, weight) => sum + weight,
)
