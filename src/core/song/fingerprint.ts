/** Places of a sound that are listened to, and bands of each. */
const PLACES = 20
const BANDS = 32
/** Seconds that are listened to at a place. */
const SPAN_SECONDS = 0.1
/** The lowest and the highest band, in hertz. */
const LOWEST = 60
const HIGHEST = 4000
/** Over this two sounds are the same song (students 3). */
const SAME = 0.9
/** Two files of the same song may differ by so many seconds. */
const APART_SECONDS = 0.5

/** What a sound is like, so that another copy of it is known: how loud each band is at each place, 0 to 255. */
export type Fingerprint = readonly number[]

/** The strength of one tone in some samples (Goertzel). */
function toneIn(
  samples: Float32Array,
  [from, span]: readonly [number, number],
  step: number,
): number {
  const by = 2 * Math.cos(step)
  let [before, last] = [0, 0]
  for (let i = 0; i < span; i++) {
    const now = (samples[from + i] ?? 0) + by * last - before
    before = last
    last = now
  }
  return Math.sqrt(Math.max(0, last * last + before * before - by * last * before)) / span
}

/**
 * What a sound is like.
 * @param samples one row @param rate samples a second
 */
export function fingerprintOf(samples: Float32Array, rate: number): Fingerprint {
  const span = Math.round(SPAN_SECONDS * rate)
  const tones = Array.from(
    { length: BANDS },
    (_, i) => (2 * Math.PI * LOWEST * (HIGHEST / LOWEST) ** (i / (BANDS - 1))) / rate,
  )
  return Array.from({ length: PLACES }, (_, place) =>
    Math.round(((place + 0.5) / PLACES) * Math.max(0, samples.length - span)),
  ).flatMap((from) =>
    // In steps of a decibel or so, from what is hardly heard on.
    tones.map((step) =>
      Math.max(
        0,
        Math.min(
          255,
          Math.round(4 * (60 + 20 * Math.log10(1e-9 + toneIn(samples, [from, span], step)))),
        ),
      ),
    ),
  )
}

/** How much two fingerprints go together, -1 to 1. */
export function likeness(one: Fingerprint, other: Fingerprint): number {
  const mean = (list: Fingerprint) => list.reduce((sum, x) => sum + x, 0) / Math.max(1, list.length)
  const [a, b] = [mean(one), mean(other)]
  let [both, own, its] = [0, 0, 0]
  for (const [i, x] of one.entries()) {
    const y = other[i] ?? 0
    both += (x - a) * (y - b)
    own += (x - a) ** 2
    its += (y - b) ** 2
  }
  return both / Math.max(1e-9, Math.sqrt(own * its))
}

/** A sound that was listened to. */
export interface Heard {
  readonly seconds: number
  readonly print: Fingerprint
}

/** Whether two sounds are copies of one song. */
export const isSameSong = (one: Heard, other: Heard): boolean =>
  Math.abs(one.seconds - other.seconds) <= APART_SECONDS && likeness(one.print, other.print) > SAME
