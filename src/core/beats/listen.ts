import { nearestIn } from '../time/nearest'
import { chordsOf, timbresOf } from './chords'
import { countsIn } from './count'
import { envelopeOf } from './envelope'
import { featuresOf } from './features'
import { featuresIn, type KeptFeatures, keptOf } from './kept'
import { heightAt, medianGap } from './level'
import { type Meter, meterOf } from './meter'
import { mean } from './numbers'
import { ANY_STYLE, type TempoPrior } from './pace'
import { type HeardPart, OF_LIKENESS, partsOf } from './parts'
import { atListenRate } from './resample'
import { rowsOfCounts, type Weights } from './rows'
import { bordersOf, newnessOf, OF_BORDERS } from './sections'
import { tappedCounts } from './tapped'

/** What was heard of a song: proposals, each to be put right by who knows it. */
export interface Listened {
  /** Seconds of every count, rising. */
  readonly counts: readonly number[]
  /** Counts a bar. */
  readonly bar: number
  /** Places of counts: first ones of bars, and of eights. */
  readonly bars: readonly number[]
  readonly ones: readonly number[]
  readonly sections: readonly HeardPart[]
  /** Counts a minute, the middle one. */
  readonly tempo: number
  /** How sure of it all one can be, 0 to 1 each; `counts` of each count, in the eight round it. */
  readonly sure: {
    readonly level: number
    readonly counts: readonly number[]
    readonly bars: number
    readonly eights: number
    readonly sections: number
  }
}

/** Why nothing was found. */
export type NotHeard = 'silent' | 'short' | 'beatless'

/** What is told before anything is heard. */
export interface Told {
  readonly prior?: TempoPrior | undefined
  /** Seconds at which a hand tapped on counts: level and place are taken from them. */
  readonly taps?: readonly number[] | undefined
  /** The second of a count that is 1, and how many a phrase has from there. */
  readonly one?: { readonly at: number; readonly counts?: number | undefined } | undefined
}

/** Under so many seconds no count is found. */
const LEAST_SECONDS = 6
/** As loud as that, of 1, is silence. */
const SILENT = 1e-4
const LEAST_COUNTS = 8

/** What of a sound tells its counts, small enough to be kept, or why there is nothing to listen to. */
export function readSound(
  samples: Float32Array,
  rate: number,
  onShare: (share: number) => void = () => {},
): KeptFeatures | NotHeard {
  if (!samples.some((value) => Math.abs(value) > SILENT)) return 'silent'
  if (samples.length / rate < LEAST_SECONDS) return 'short'
  return keptOf(featuresOf(atListenRate(samples, rate), onShare))
}

/**
 * Finds counts, bars, eights and sections in what was read of a song.
 * @throws UserError where taps keep no count
 */
export function heardIn(
  kept: KeptFeatures,
  { prior = ANY_STYLE, taps, one }: Told = {},
): Listened | NotHeard {
  const features = featuresIn(kept)
  const envelope = envelopeOf(features.flux)
  const heard = { chords: chordsOf(features), timbres: timbresOf(features) }
  const { beats, sure } = taps
    ? { beats: tappedCounts(features, taps), sure: 1 }
    : countsIn(envelope, features, heard, prior)
  if (beats.length < LEAST_COUNTS) return 'beatless'
  const found = meterOf(beats, features, heard)
  const meter = one ? countedFrom(found, beats, one.at, one.counts) : found
  const { bar, bars, ones } = meter
  const rows = (weights: Weights) => rowsOfCounts(beats, features, heard, weights)
  const { starts, sure: clear } = bordersOf(beats, meter, newnessOf(rows(OF_BORDERS)))
  return {
    counts: beats,
    bar,
    bars,
    ones,
    sections: partsOf(starts, beats, features, rows(OF_LIKENESS)),
    tempo: 60 / medianGap(beats),
    sure: { level: sure, counts: suresOf(beats, envelope), ...meter.sure, sections: clear },
  }
}

/**
 * Finds counts, bars, eights and sections of a song.
 * @param samples one channel
 * @param rate samples a second
 */
export function listen(samples: Float32Array, rate: number, told: Told = {}): Listened | NotHeard {
  const kept = readSound(samples, rate)
  return typeof kept === 'string' ? kept : heardIn(kept, told)
}

/** Bars and eights where one of them is known. */
function countedFrom(
  { bar, sure }: Meter,
  beats: readonly number[],
  at: number,
  phrase = 2 * bar,
): Meter {
  const nearest = nearestIn(beats)(at)
  const each = (length: number) =>
    beats.flatMap((_, i) => ((((i - nearest) % length) + length) % length === 0 ? [i] : []))
  return {
    bar,
    bars: each(phrase % bar === 0 ? bar : phrase),
    ones: each(phrase),
    sure: { ...sure, eights: 1 },
  }
}

/** Counts that keep the pace differ by no more than that share. */
const EVEN = 0.06
/** A count is as clear as the clearest tenth of them, or less so. */
const CLEAR_SHARE = 0.9
/** A count is as sure as the eight round it. */
const ROUND_IT = 4

/** How clear and how even the counts round each one are, 0 to 1. */
function suresOf(beats: readonly number[], envelope: Float32Array): readonly number[] {
  const usual = medianGap(beats)
  const even = beats.map((at, i) => {
    const gap = (beats[i + 1] ?? at + usual) - at
    return Math.abs(gap / usual - 1) < EVEN ? 1 : 0
  })
  const heights = beats.map((at) => heightAt(envelope, at))
  const clear = [...heights].sort((a, b) => a - b)[Math.floor(CLEAR_SHARE * heights.length)] || 1
  return beats.map((_, i) => {
    const round = [Math.max(0, i - ROUND_IT), i + ROUND_IT] as const
    return Math.min(1, (mean(heights.slice(...round)) / clear) * mean(even.slice(...round)))
  })
}
