import type { Heard, Rows } from './chords'
import { type Features, ROW } from './features'
import { meanBetween } from './level'
import type { Meter } from './meter'
import { median } from './numbers'

/** Counts on either side of a border that are compared, and how quickly the farther ones matter less. */
const REACH = 16
const FADES = 7
/** A border stands out from the middle of all by so many usual differences. */
const STANDS_OUT = 1.5
const LEAST_APART = 12
const ONES_MORE = 1.2
const NUMBERS = 2 * ROW + 2
const TONES = 0.3
const LOUDNESS = 5

/** How differently it goes on from each count. */
export function newnessOf(
  beats: readonly number[],
  features: Features,
  { chords, timbres }: Heard,
): readonly number[] {
  const rows = rowsOfCounts(beats, features, chords, timbres)
  return beats.map((_, i) => newnessAt(rows, i))
}

/** Where a song changes, as places of counts: the first one is where it begins. */
export function sectionsOf(
  beats: readonly number[],
  { bars, ones }: Pick<Meter, 'bars' | 'ones'>,
  newness: readonly number[],
): readonly number[] {
  if (beats.length < 2 * LEAST_APART || ones.length === 0) return beats.length > 0 ? [0] : []
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
  return [...new Set([first, ...borders.filter((at) => at >= first + LEAST_APART)])].sort(
    (a, b) => a - b,
  )
}

/** Each count as a direction: its tones, how it sounds, how loud and how low it is. */
function rowsOfCounts(
  beats: readonly number[],
  { loudness, lowShare }: Features,
  chords: Rows,
  timbres: Rows,
): readonly Float64Array[] {
  const part = new Float64Array(ROW)
  const rows = beats.map((at, i) => {
    const until = beats[i + 1] ?? at + 0.5
    const row = new Float64Array(NUMBERS)
    chords.mean(at, until, part)
    const whole = Math.sqrt(part.reduce((sum, value) => sum + value * value, 0)) || 1
    for (let k = 0; k < ROW; k++) row[k] = (part[k] as number) / whole
    timbres.mean(at, until, part)
    row.set(part, ROW)
    row[2 * ROW] = meanBetween(loudness, at, until)
    row[2 * ROW + 1] = meanBetween(lowShare, at, until)
    return row
  })
  for (let k = 0; k < NUMBERS; k++) {
    const mean = rows.reduce((sum, row) => sum + (row[k] as number), 0) / rows.length
    const spread =
      Math.sqrt(
        rows.reduce((sum, row) => sum + ((row[k] as number) - mean) ** 2, 0) / rows.length,
      ) || 1
    // Chords come and go within a section; how loud and how low it is does not.
    const weight = k < ROW ? TONES : k < 2 * ROW ? 1 : LOUDNESS
    for (const row of rows) row[k] = (weight * ((row[k] as number) - mean)) / spread
  }
  for (const row of rows) {
    const long = Math.sqrt(row.reduce((sum, value) => sum + value * value, 0)) || 1
    for (let k = 0; k < NUMBERS; k++) row[k] = (row[k] as number) / long
  }
  return rows
}

/** How alike the counts on each side of a border are to their own side, and how unlike the other's. */
function newnessAt(rows: readonly Float64Array[], border: number): number {
  const [before, after] = [-1, 1].map((way) => {
    const mean = new Float64Array(NUMBERS)
    let all = 0
    for (let k = 0; k < REACH; k++) {
      const row = rows[way < 0 ? border - 1 - k : border + k]
      if (!row) continue
      const weight = Math.exp(-0.5 * (k / FADES) ** 2)
      all += weight
      for (let n = 0; n < NUMBERS; n++) mean[n] = (mean[n] as number) + weight * (row[n] as number)
    }
    // A side of a few counts alone says little.
    const share = all / FULL
    for (let n = 0; n < NUMBERS; n++)
      mean[n] = ((mean[n] as number) / (all || 1)) * Math.sqrt(share)
    return { mean, share }
  }) as [Side, Side]
  const even = Math.min(before.share, after.share)
  let sum = 0
  for (let n = 0; n < NUMBERS; n++)
    sum += ((before.mean[n] as number) - (after.mean[n] as number)) ** 2
  return sum * even
}

interface Side {
  readonly mean: Float64Array
  readonly share: number
}

/** All the weight a side can have. */
const FULL = Array.from({ length: REACH }, (_, k) => Math.exp(-0.5 * (k / FADES) ** 2)).reduce(
  (sum, weight) => sum + weight,
)
