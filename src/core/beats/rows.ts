import type { Heard } from './chords'
import { type Features, ROW } from './features'
import { meanBetween } from './level'
import { scored } from './numbers'

/** Numbers a count has: its tones, how it sounds, how loud and how low it is. */
export const NUMBERS = 2 * ROW + 2

/** How much each kind of number tells. */
export interface Weights {
  readonly tones: number
  readonly timbre: number
  readonly loudness: number
}

/** Each count as a direction among all counts of its song: only where it points is compared. */
export function rowsOfCounts(
  beats: readonly number[],
  features: Features,
  heard: Heard,
  weights: Weights,
): readonly Float64Array[] {
  const rows = beats.map((at, i) => rowOf(at, beats[i + 1] ?? at + 0.5, features, heard))
  for (let k = 0; k < NUMBERS; k++) {
    const weight = k < ROW ? weights.tones : k < 2 * ROW ? weights.timbre : weights.loudness
    const column = scored(rows.map((row) => row[k] as number))
    for (const [i, row] of rows.entries()) row[k] = weight * (column[i] as number)
  }
  for (const row of rows) {
    const long = Math.sqrt(row.reduce((sum, value) => sum + value * value, 0)) || 1
    for (let k = 0; k < NUMBERS; k++) row[k] = (row[k] as number) / long
  }
  return rows
}

const part = new Float64Array(ROW)

function rowOf(
  from: number,
  to: number,
  { loudness, lowShare }: Features,
  { chords, timbres }: Heard,
): Float64Array {
  const row = new Float64Array(NUMBERS)
  chords.mean(from, to, part)
  const whole = Math.sqrt(part.reduce((sum, value) => sum + value * value, 0)) || 1
  for (let k = 0; k < ROW; k++) row[k] = (part[k] as number) / whole
  timbres.mean(from, to, part)
  row.set(part, ROW)
  row[2 * ROW] = meanBetween(loudness, from, to)
  row[2 * ROW + 1] = meanBetween(lowShare, from, to)
  return row
}
