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

/** Reads the loudness of each band where a frame begins. */
function bandReader(
  samples: Float32Array,
  gain: number,
): (start: number, into: Float64Array) => void {
  const bands = bandsOf()
  const spectra = spectraOf(FRAME)
  const window = hann(FRAME)
  const frame = new Float64Array(FRAME)
  const bins = new Float64Array(FRAME / 2 + 1)
  return (start, into) => {
    for (let k = 0; k < FRAME; k++)
      frame[k] = gain * (samples[start + k] as number) * (window[k] as number)
    spectra.magnitudes(frame, bins)
    for (let b = 0; b < BANDS; b++) {
      const { first, weights } = bands[b] as Band
      let sum = 0
      for (let k = 0; k < weights.length; k++)
        sum += (bins[first + k] as number) * (weights[k] as number)
      into[b] = Math.log(1 + (LOUD * sum) / FRAME)
    }
  }
}

/** Reads how strong each tone is round the middle of a frame, into a row of chroma. */
function toneReader(
  samples: Float32Array,
  gain: number,
): (start: number, into: Float32Array) => void {
  const tones = tonesOf()
  const spectra = spectraOf(CHROMA_FRAME)
  const window = hann(CHROMA_FRAME)
  const frame = new Float64Array(CHROMA_FRAME)
  const bins = new Float64Array(CHROMA_FRAME / 2 + 1)
  return (start, into) => {
    const from = start + FRAME / 2 - CHROMA_FRAME / 2
    for (let k = 0; k < CHROMA_FRAME; k++)
      frame[k] = gain * (samples[from + k] ?? 0) * (window[k] as number)
    spectra.magnitudes(frame, bins)
    for (let k = 1; k < bins.length - 1; k++) {
      const tone = tones[k] as number
      const here = bins[k] as number
      // Only what stands out is a tone.
      const isTop = here >= (bins[k - 1] as number) && here >= (bins[k + 1] as number)
      if (tone >= 0 && isTop) into[tone] = (into[tone] as number) + Math.sqrt(here)
    }
  }
}

const COSINES = Float64Array.from({ length: TIMBRES * BANDS }, (_, i) =>
  Math.cos((Math.PI * (Math.floor(i / BANDS) + 1) * ((i % BANDS) + 0.5)) / BANDS),
)

function writeTimbre(row: Float64Array, into: Float32Array): void {
  for (let t = 0; t < TIMBRES; t++) {
    let sum = 0
    for (let b = 0; b < BANDS; b++) sum += (COSINES[t * BANDS + b] as number) * (row[b] as number)
    into[t] = sum / BANDS
  }
}

/** 1 where nothing sounds. */
const peakOf = (samples: Float32Array): number =>
  samples.reduce((peak, value) => Math.max(peak, Math.abs(value)), 0) || 1

/** How many bands are low. */
const LOWS = bandsOf().filter(({ middle }) => middle < LOW_TO).length
/** Rows between two times that is told how far it is. */
const TELL_EVERY = 250

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
  // As loud as it can be, so that a quiet file is heard like a loud one.
  const gain = 1 / peakOf(samples)
  const [readBands, readTones] = [bandReader(samples, gain), toneReader(samples, gain)]
  // The last few rows of bands, in turn.
  const rows = Array.from({ length: BACK + 1 }, () => new Float64Array(BANDS))
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
    const row = rows[i % rows.length] as Float64Array
    readBands(i * HOP, row)
    if (i >= BACK) writeRise(made, i, row, rows[(i + 1) % rows.length] as Float64Array)
    writeLoudness(made, i, row)
    if (i % SLOW > 0) continue
    const slow = i / SLOW
    writeTimbre(row, made.timbre.subarray(TIMBRES * slow, TIMBRES * (slow + 1)))
    readTones(i * HOP, made.chroma.subarray(CHROMAS * slow, CHROMAS * (slow + 1)))
    if (slow % TELL_EVERY === 0) told(i / frames)
  }
  return made
}

/** How much louder each band is than a moment before. */
function writeRise(
  { flux, low }: Pick<Features, 'flux' | 'low'>,
  i: number,
  row: Float64Array,
  before: Float64Array,
): void {
  let all = 0
  let lows = 0
  for (let b = 0; b < BANDS; b++) {
    // A tone that slides is no new one.
    const was = Math.max(
      before[b] as number,
      before[Math.max(0, b - 1)] as number,
      before[Math.min(BANDS - 1, b + 1)] as number,
    )
    const rise = Math.max(0, (row[b] as number) - was)
    all += b < LOWS ? 2 * rise : rise
    if (b < LOWS) lows += rise
  }
  flux[i] = all
  low[i] = lows
}

function writeLoudness(
  { loudness, lowShare }: Pick<Features, 'loudness' | 'lowShare'>,
  i: number,
  row: Float64Array,
): void {
  let all = 0
  let lows = 0
  for (let b = 0; b < BANDS; b++) {
    all += row[b] as number
    if (b < LOWS) lows += row[b] as number
  }
  loudness[i] = all / BANDS
  lowShare[i] = lows / (all + 1e-9)
}

/** Numbers a row of chroma, and of timbre. */
export const ROW = 12
