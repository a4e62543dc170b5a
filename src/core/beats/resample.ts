/** Samples a second at which music is listened to. */
export const LISTEN_RATE = 22_050

/** Samples on either side that a new one is made of, at the lower rate. */
const REACH = 8

/**
 * Sound at the rate it is listened to, as loud as it can be: a windowed sinc keeps out what that
 * rate can't hold.
 * @param samples one channel
 * @param rate samples a second
 */
export function atListenRate(samples: Float32Array, rate: number): Float32Array {
  const made = rate === LISTEN_RATE ? samples.slice() : resampled(samples, rate)
  let peak = 0
  for (const value of made) peak = Math.max(peak, Math.abs(value))
  if (peak > 0) for (let i = 0; i < made.length; i++) made[i] = (made[i] as number) / peak
  return made
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
