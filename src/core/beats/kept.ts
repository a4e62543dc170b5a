import type { Features } from './features'

/** Numbers in one byte each, finer where they are small. */
interface Bytes {
  /** What the largest byte stands for. */
  readonly most: number
  readonly values: Uint8Array
}

const ROWS = ['flux', 'low', 'loudness', 'lowShare', 'chroma', 'timbre'] as const
type Row = (typeof ROWS)[number]

/** What was heard of a song, small enough to be kept: a byte a number, 1000 a second. */
export type KeptFeatures = Pick<Features, 'frames' | 'slowFrames'> & Readonly<Record<Row, Bytes>>

/** What stands for 0, and how far a byte reaches from there. */
const NONE = 128
const REACH = 127

function bytesOf(row: Float32Array): Bytes {
  const most = row.reduce((top, value) => Math.max(top, Math.abs(value)), 0)
  const scale = most > 0 ? 1 / most : 0
  const values = Uint8Array.from(
    row,
    (value) => NONE + Math.round(Math.sign(value) * REACH * Math.sqrt(Math.abs(value) * scale)),
  )
  return { most, values }
}

const numbersOf = ({ most, values }: Bytes): Float32Array =>
  Float32Array.from(values, (byte) => {
    const part = (byte - NONE) / REACH
    return Math.sign(part) * part * part * most
  })

export const keptOf = (features: Features): KeptFeatures => ({
  frames: features.frames,
  slowFrames: features.slowFrames,
  ...rowsBy((row) => bytesOf(features[row])),
})

export const featuresIn = (kept: KeptFeatures): Features => ({
  frames: kept.frames,
  slowFrames: kept.slowFrames,
  ...rowsBy((row) => numbersOf(kept[row])),
})

const rowsBy = <T>(make: (row: Row) => T): Readonly<Record<Row, T>> =>
  Object.fromEntries(ROWS.map((row) => [row, make(row)])) as Record<Row, T>

/** The most of a row between two frames, as it is seen: the root of its share of all, 0 to 1. */
export function mostIn(kept: KeptFeatures, row: Row, from: number, to: number): number {
  const { values } = kept[row]
  const first = Math.max(0, Math.round(from))
  let most = NONE
  for (let i = first; i < Math.max(first + 1, Math.round(to)); i++)
    most = Math.max(most, values[i] ?? NONE)
  return (most - NONE) / REACH
}
