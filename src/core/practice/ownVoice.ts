import type { OwnWord } from '../calling/ownWords'
import { base64, bytesOf } from './base64'

/** A word the instructor said, as a page has it: a byte a sample. */
export interface PackedWord {
  readonly rate: number
  readonly onset: number
  /** In base64. */
  readonly sound: string
}

/** A voice needs no more samples a second to be understood. */
const MOST_RATE = 16_000
/** How much finer what is quiet is kept than what is loud (the law of telephones). */
const MU = 255

const toByte = (value: number): number => {
  const size = Math.log1p(MU * Math.min(1, Math.abs(value))) / Math.log1p(MU)
  return Math.round(127 * Math.sign(value) * size) + 128
}
const fromByte = (byte: number): number => {
  const size = Math.abs(byte - 128) / 127
  return (Math.sign(byte - 128) * Math.expm1(size * Math.log1p(MU))) / MU
}

/** A word as small as it goes with nothing but a table: no encoder, and the same bytes each time. */
export function packedWord({ samples, rate, onset }: OwnWord): PackedWord {
  const every = Math.max(1, Math.round(rate / MOST_RATE))
  const length = Math.floor(samples.length / every)
  // The mean of what falls together, so that nothing high comes back as something low.
  const mean = (at: number) => {
    let sum = 0
    for (let i = 0; i < every; i++) sum += samples[at * every + i] ?? 0
    return sum / every
  }
  const bytes = Uint8Array.from({ length }, (_, at) => toByte(mean(at)))
  return { rate: rate / every, onset, sound: base64(bytes) }
}

export const unpackedWord = ({ rate, onset, sound }: PackedWord): OwnWord => ({
  rate,
  onset,
  samples: Float32Array.from(bytesOf(sound), fromByte),
})
