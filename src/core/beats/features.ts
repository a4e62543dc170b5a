import { hann, spectraOf } from './fft'
import { LISTEN_RATE } from './resample'

const FRAME = 1024
const HOP = 220
/** Frames a second. */
export const FRAMES_A_SECOND = LISTEN_RATE / HOP
/** Every so many frames the slower features have one. */
export const SLOW = 4

const BANDS = 40
const LOWEST = 30
const HIGHEST = 10_500
/** Below it is what drums and basses put under the beat, in hertz. */
const LOW_TO = 200
/** Every band is as loud as the ear hears it: its logarithm. */
const LOUD = 1000
/** A rise is against so many frames before. */
const BACK = 2
const TIMBRES = 12
const CHROMAS = 12
const CHROMA_FRAME = 4096
const CHROMA_FROM = 60
const CHROMA_TO = 2000

/** What is heard of a song, 100 times a second, and the slower ones 25 times. */
export interface Features {
  readonly frames: number
  /** How much begins: the rise over all bands, those below 200 Hz twice. */
  readonly flux: Float32Array
  /** The same of the low bands alone. */
  readonly low: Float32Array
  /** How loud it is, in the same unit as the bands. */
  readonly loudness: Float32Array
  /** How much of that is low. */
  readonly lowShare: Float32Array
  readonly slowFrames: number
  /** Twelve tones a row, of no octave. */
  readonly chroma: Float32Array
  /** Twelve cosines of the bands a row: how it sounds, not which tones. */
  readonly timbre: Float32Array
}

/** When a frame is, in seconds: its middle. */
export const secondsOfFrame = (frame: number): number => (frame * HOP + FRAME / 2) / LISTEN_RATE
export const frameAt = (seconds: number): number => (seconds * LISTEN_RATE - FRAME / 2) / HOP

const mel = (hertz: number) => 1127 * Math.log(1 + hertz / 700)
const hertzOf = (value: number) => 700 * (Math.exp(value / 1127) - 1)

/** Which bins a band is made of, and how much of each. */
interface Band {
  readonly first: number
  readonly weights: readonly number[]
  readonly middle: number
}

function bandsOf(): readonly Band[] {
  const edges = Array.from({ length: BANDS + 2 }, (_, i) =>
    hertzOf(mel(LOWEST) + (i / (BANDS + 1)) * (mel(HIGHEST) - mel(LOWEST))),
  )
  const bin = LISTEN_RATE / FRAME
  return Array.from({ length: BANDS }, (_, b): Band => {
    const [from, middle, to] = edges.slice(b, b + 3) as [number, number, number]
    const first = Math.max(1, Math.floor(from / bin))
    const last = Math.max(first, Math.ceil(to / bin))
    const weights = Array.from({ length: last - first + 1 }, (_, i) => {
      const hertz = (first + i) * bin
      return Math.max(0, Math.min((hertz - from) / (middle - from), (to - hertz) / (to - middle)))
    })
    // The lowest bands are narrower than a bin: each still has the nearest one.
    if (!weights.some((weight) => weight > 0)) weights[0] = 1
    return { first, weights, middle }
  })
}

/** Which tone each bin of the long frame is nearest to; -1 for none. */
function tonesOf(): Int8Array {
  const bin = LISTEN_RATE / CHROMA_FRAME
  return Int8Array.from({ length: CHROMA_FRAME / 2 + 1 }, (_, i) => {
    const hertz = i * bin
    if (hertz < CHROMA_FROM || hertz > CHROMA_TO) return -1
    return ((Math.round(12 * Math.log2(hertz / 440)) % 12) + 12) % 12
  })
}

/**
 * Listens to a song.
 * @param samples at `LISTEN_RATE`
 * @param told is told the share that is done, 0 to 1
 */
export function featuresOf(
  samples: Float32Array,
  told: (share: number) => void = () => {},
): Features {
  const frames = Math.max(0, Math.floor((samples.length - FRAME) / HOP) + 1)
  const slowFrames = Math.ceil(frames / SLOW)
  const bands = bandsOf()
  const lows = bands.filter(({ middle }) => middle < LOW_TO).length
  const tones = tonesOf()
  const [spectra, long] = [spectraOf(FRAME), spectraOf(CHROMA_FRAME)]
  const [window, longWindow] = [hann(FRAME), hann(CHROMA_FRAME)]
  const frame = new Float64Array(FRAME)
  const longFrame = new Float64Array(CHROMA_FRAME)
  const bins = new Float64Array(FRAME / 2 + 1)
  const longBins = new Float64Array(CHROMA_FRAME / 2 + 1)
  // The last few rows of bands, in turn.
  const rows = Array.from({ length: BACK + 1 }, () => new Float64Array(BANDS))
  const cosines = Float64Array.from({ length: TIMBRES * BANDS }, (_, i) =>
    Math.cos((Math.PI * (Math.floor(i / BANDS) + 1) * ((i % BANDS) + 0.5)) / BANDS),
  )
  const made = {
    frames,
    slowFrames,
    flux: new Float32Array(frames),
    low: new Float32Array(frames),
    loudness: new Float32Array(frames),
    lowShare: new Float32Array(frames),
    chroma: new Float32Array(CHROMAS * slowFrames),
    timbre: new Float32Array(TIMBRES * slowFrames),
  }
  for (let i = 0; i < frames; i++) {
    const start = i * HOP
    for (let k = 0; k < FRAME; k++)
      frame[k] = (samples[start + k] as number) * (window[k] as number)
    spectra.magnitudes(frame, bins)
    const row = rows[i % rows.length] as Float64Array
    const before = rows[(i + 1) % rows.length] as Float64Array
    let flux = 0
    let low = 0
    let loud = 0
    let loudLow = 0
    for (let b = 0; b < BANDS; b++) {
      const { first, weights } = bands[b] as Band
      let sum = 0
      for (let k = 0; k < weights.length; k++)
        sum += (bins[first + k] as number) * (weights[k] as number)
      const value = Math.log(1 + (LOUD * sum) / FRAME)
      row[b] = value
      loud += value
      if (b < lows) loudLow += value
      if (i < BACK) continue
      // A tone that slides is no new one.
      const was = Math.max(
        before[b] as number,
        before[Math.max(0, b - 1)] as number,
        before[Math.min(BANDS - 1, b + 1)] as number,
      )
      const rise = Math.max(0, value - was)
      flux += b < lows ? 2 * rise : rise
      if (b < lows) low += rise
    }
    made.flux[i] = flux
    made.low[i] = low
    made.loudness[i] = loud / BANDS
    made.lowShare[i] = loudLow / (loud + 1e-9)
    if (i % SLOW > 0) continue
    const slow = i / SLOW
    for (let t = 0; t < TIMBRES; t++) {
      let sum = 0
      for (let b = 0; b < BANDS; b++) sum += (cosines[t * BANDS + b] as number) * (row[b] as number)
      made.timbre[TIMBRES * slow + t] = sum / BANDS
    }
    const longStart = start + FRAME / 2 - CHROMA_FRAME / 2
    for (let k = 0; k < CHROMA_FRAME; k++)
      longFrame[k] = (samples[longStart + k] ?? 0) * (longWindow[k] as number)
    long.magnitudes(longFrame, longBins)
    for (let k = 1; k < longBins.length - 1; k++) {
      const tone = tones[k] as number
      if (tone < 0) continue
      const here = longBins[k] as number
      // Only what stands out is a tone.
      if (here < (longBins[k - 1] as number) || here < (longBins[k + 1] as number)) continue
      const at = CHROMAS * slow + tone
      made.chroma[at] = (made.chroma[at] as number) + Math.sqrt(here)
    }
    if (slow % 250 === 0) told(i / frames)
  }
  return made
}

/** Numbers a row of chroma, and of timbre. */
export const ROW = 12
