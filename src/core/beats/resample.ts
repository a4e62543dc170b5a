/** Samples a second at which music is listened to. */
export const LISTEN_RATE = 22_050

/** Samples on either side that a new one is made of, at the lower rate. */
const REACH = 8

/**
 * Sound at the rate it is listened to: a windowed sinc keeps out what that rate can't hold.
 * @param samples one channel
 * @param rate samples a second
 */
export const atListenRate = (samples: Float32Array, rate: number): Float32Array =>
  rate === LISTEN_RATE ? samples : resampled(samples, rate)

/** Seconds that are brought to the rate at once, and what is heard of those beside them. */
const PIECE_SECONDS = 30
const BESIDE_SECONDS = 1

/** Sound that comes in pieces of any length, brought to the rate it is listened to as it comes. */
export interface Gathered {
  readonly take: (samples: Float32Array) => void
  /** All of it; nothing can be taken after that. */
  readonly all: () => Float32Array
}

/** @param rate samples a second, a whole number */
export function gathering(rate: number): Gathered {
  const made: Float32Array[] = []
  const beside = BESIDE_SECONDS * rate
  let waiting: Float32Array[] = []
  let length = 0
  // Seconds of what waits that are brought to the rate already, and wait as neighbours only.
  let before = 0
  const bring = (isEnd: boolean) => {
    const raw = joined(waiting, length)
    const seconds = isEnd ? raw.length / rate : PIECE_SECONDS + before
    const here = atListenRate(raw.subarray(0, isEnd ? raw.length : seconds * rate + beside), rate)
    made.push(here.slice(before * LISTEN_RATE, isEnd ? here.length : seconds * LISTEN_RATE))
    const kept = raw.slice((seconds - BESIDE_SECONDS) * rate)
    waiting = [kept]
    length = kept.length
    before = BESIDE_SECONDS
  }
  return {
    take(samples) {
      waiting.push(samples)
      length += samples.length
      while (length >= (PIECE_SECONDS + before) * rate + beside) bring(false)
    },
    all() {
      bring(true)
      return joined(
        made,
        made.reduce((sum, piece) => sum + piece.length, 0),
      )
    },
  }
}

function joined(pieces: readonly Float32Array[], length: number): Float32Array {
  const whole = new Float32Array(length)
  let at = 0
  for (const piece of pieces) {
    whole.set(piece, at)
    at += piece.length
  }
  return whole
}

/** Places between two samples for which the sinc is worked out. */
const PLACES = 256

function resampled(samples: Float32Array, rate: number): Float32Array {
  const step = rate / LISTEN_RATE
  const wide = Math.max(1, step)
  const reach = Math.ceil(REACH * wide)
  // One row of weights for each place between two samples.
  const rows = Array.from({ length: PLACES + 1 }, (_, place) =>
    Float64Array.from(
      { length: 2 * reach },
      (_, k) => weightAt((k - reach + 1 - place / PLACES) / wide) / wide,
    ),
  )
  // Silence on both sides spares asking at each sample whether it is there.
  const padded = new Float32Array(samples.length + 2 * reach)
  padded.set(samples, reach)
  const made = new Float32Array(Math.floor(samples.length / step))
  for (let i = 0; i < made.length; i++) {
    const at = i * step
    const first = Math.floor(at)
    const row = rows[Math.round((at - first) * PLACES)] as Float64Array
    let sum = 0
    for (let k = 0; k < row.length; k++)
      sum += (row[k] as number) * (padded[first + k + 1] as number)
    made[i] = sum
  }
  return made
}

function weightAt(off: number): number {
  if (Math.abs(off) >= REACH) return 0
  const sinc = off === 0 ? 1 : Math.sin(Math.PI * off) / (Math.PI * off)
  return sinc * (0.5 + 0.5 * Math.cos((Math.PI * off) / REACH))
}
