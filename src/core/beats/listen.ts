import { chordsOf, timbresOf } from './chords'
import { countsIn } from './count'
import { envelopeOf } from './envelope'
import { featuresOf } from './features'
import { heightAt, medianGap } from './level'
import { meterOf } from './meter'
import { mean } from './numbers'
import { ANY_STYLE, type TempoPrior } from './pace'
import { atListenRate } from './resample'
import { newnessOf, sectionsOf } from './sections'

/** What was heard of a song: proposals, each to be put right by who knows it. */
export interface Listened {
  /** Seconds of every count, rising. */
  readonly counts: readonly number[]
  /** Counts a bar. */
  readonly bar: number
  /** Places of counts: first ones of bars, of eights, and where something else begins. */
  readonly bars: readonly number[]
  readonly ones: readonly number[]
  readonly sections: readonly number[]
  /** Counts a minute, the middle one. */
  readonly tempo: number
  /** How sure the level is, and each eight from the first "one" on, 0 to 1. */
  readonly sure: { readonly level: number; readonly eights: readonly number[] }
}

/** Why nothing was found. */
export type NotHeard = 'silent' | 'short' | 'beatless'

/** Under so many seconds no count is found. */
const LEAST_SECONDS = 6
/** As loud as that, of 1, is silence. */
const SILENT = 1e-4
const LEAST_COUNTS = 8
/** What reading the sound is of all the work. */
const READING = 0.85

/**
 * Finds counts, bars, eights and sections of a song.
 * @param samples one channel
 * @param rate samples a second
 * @param told is told the share that is done, 0 to 1
 */
export function listen(
  samples: Float32Array,
  rate: number,
  told: (share: number) => void = () => {},
  prior: TempoPrior = ANY_STYLE,
): Listened | NotHeard {
  if (!samples.some((value) => Math.abs(value) > SILENT)) return 'silent'
  if (samples.length / rate < LEAST_SECONDS) return 'short'
  const features = featuresOf(atListenRate(samples, rate), (share) => told(READING * share))
  const envelope = envelopeOf(features.flux)
  const heard = { chords: chordsOf(features), timbres: timbresOf(features) }
  const { beats, sure } = countsIn(envelope, features, heard, prior)
  if (beats.length < LEAST_COUNTS) return 'beatless'
  const meter = meterOf(beats, features, heard)
  const { bar, bars, ones } = meter
  const sections = sectionsOf(beats, meter, newnessOf(beats, features, heard))
  told(1)
  return {
    counts: beats,
    bar,
    bars,
    ones,
    sections,
    tempo: 60 / medianGap(beats),
    sure: { level: sure, eights: suresOf(ones, beats, envelope) },
  }
}

/** Counts that keep the pace differ by no more than that share. */
const EVEN = 0.06
/** A count is as clear as the clearest tenth of them, or less so. */
const CLEAR_SHARE = 0.9

/** How clear and how even the counts of each eight are, 0 to 1. */
function suresOf(
  ones: readonly number[],
  beats: readonly number[],
  envelope: Float32Array,
): readonly number[] {
  const gaps = beats.slice(1).map((at, i) => at - (beats[i] as number))
  const usual = medianGap(beats)
  const heights = beats.map((at) => heightAt(envelope, at))
  const clear = [...heights].sort((a, b) => a - b)[Math.floor(CLEAR_SHARE * heights.length)] || 1
  return ones.map((one, i) => {
    const own = gaps.slice(one, ones[i + 1] ?? beats.length)
    const even = own.filter((gap) => Math.abs(gap / usual - 1) < EVEN).length
    const clarity = mean(heights.slice(one, ones[i + 1] ?? beats.length)) / clear
    return Math.min(1, (clarity * even) / Math.max(1, own.length))
  })
}
