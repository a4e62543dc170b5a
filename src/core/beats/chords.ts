import { type Features, frameAt, ROW, SLOW } from './features'

/** Sums over time of what has one row each few frames, so that any stretch is read at once. */
export interface Rows {
  /** The mean row between two moments, in seconds. */
  readonly mean: (from: number, to: number, into: Float64Array) => void
}

function rowsOf(values: Float32Array, frames: number): Rows {
  const sums = new Float64Array(ROW * (frames + 1))
  for (let i = 0; i < ROW * frames; i++) sums[i + ROW] = (sums[i] as number) + (values[i] as number)
  const place = (seconds: number) =>
    Math.min(frames, Math.max(0, Math.round(frameAt(seconds) / SLOW)))
  return {
    mean(from, to, into) {
      const a = place(from)
      const b = Math.max(a + 1, place(to))
      const last = Math.min(frames, b)
      for (let k = 0; k < ROW; k++)
        into[k] =
          ((sums[ROW * last + k] as number) - (sums[ROW * Math.min(a, last) + k] as number)) /
          Math.max(1, last - a)
    },
  }
}

/** What is heard besides what begins: which tones, and how they sound. */
export interface Heard {
  readonly chords: Rows
  readonly timbres: Rows
}

export const chordsOf = ({ chroma, slowFrames }: Features): Rows => rowsOf(chroma, slowFrames)
export const timbresOf = ({ timbre, slowFrames }: Features): Rows => rowsOf(timbre, slowFrames)

const [one, other] = [new Float64Array(ROW), new Float64Array(ROW)]

/** How differently it sounds before and after a moment, 0 to 2: tones by their angle. */
export function changeAt(rows: Rows, seconds: number, reach: number): number {
  rows.mean(seconds - reach, seconds, one)
  rows.mean(seconds, seconds + reach, other)
  let dot = 0
  let a = 0
  let b = 0
  for (let k = 0; k < ROW; k++) {
    dot += (one[k] as number) * (other[k] as number)
    a += (one[k] as number) ** 2
    b += (other[k] as number) ** 2
  }
  return a === 0 || b === 0 ? 0 : 1 - dot / Math.sqrt(a * b)
}

/** How far what is heard after a moment is from what is heard before: the length of the difference. */
export function stepAt(rows: Rows, seconds: number, reach: number): number {
  rows.mean(seconds - reach, seconds, one)
  rows.mean(seconds, seconds + reach, other)
  let sum = 0
  for (let k = 0; k < ROW; k++) sum += ((one[k] as number) - (other[k] as number)) ** 2
  return Math.sqrt(sum)
}
