import { changeAt, type Heard, stepAt } from './chords'
import type { Features } from './features'
import { heightAt, meanBetween, medianGap } from './level'
import { mean, scored } from './numbers'
import { bestRound } from './viterbi'

/** Where bars and eights begin, as places of counts. */
export interface Meter {
  /** Counts of a bar. */
  readonly bar: number
  readonly bars: readonly number[]
  /** The first count of each eight, or of as many bars. */
  readonly ones: readonly number[]
  /** How much better they are there than a count, or a bar, later: 0 to 1. */
  readonly sure: { readonly bars: number; readonly eights: number }
}

/** What a bar's first count has more of: by how much each tells. */
const OF_BAR = { chord2: 1, chord1: 0.6, chord4: 0.5, low: 0.8, timbre: 0.3, flux: 0.2 } as const
/** A bar that is longer or shorter than the others must be worth so much. */
const BAR_LEAP = 14
/** Bars of a phrase of 32. */
const PHRASE = 8
const PHRASE_LEAP = 16
/** Most songs begin with the first bar of a phrase. */
const BEGINS = 6
/** A first count in three stands out less from the others than one in four does, for the same sum. */
const THREE_LESS = 0.816
/** Three counts a bar are rare: they must be so much better a count. */
const THREE_MORE = 0.06

/** Finds bars and eights. @param beats seconds */
export function meterOf(beats: readonly number[], features: Features, heard: Heard): Meter {
  if (beats.length < 12) return { bar: 4, bars: [], ones: [], sure: { bars: 0, eights: 0 } }
  const accents = barAccents(beats, features, heard)
  const four = barsOf(accents, 4)
  const three = barsOf(accents, 3)
  const bar =
    (THREE_LESS * three.score) / beats.length > four.score / beats.length + THREE_MORE ? 3 : 4
  const { way } = bar === 3 ? three : four
  const bars = way.flatMap((place, i) => (place === 0 ? [i] : []))
  const { ones, sure } = onesOf(bars, beats, features, heard)
  return { bar, bars, ones, sure: { bars: lead(accents, bars, bar), eights: sure } }
}

/** By how many spreads what is found leads before the next best, one to a round less one later. */
function lead(values: readonly number[], found: readonly number[], round: number): number {
  const at = (later: number) => mean(found.flatMap((i) => values[i + later] ?? []))
  const others = Array.from({ length: round - 1 }, (_, k) => at(k + 1))
  const spread = Math.sqrt(mean(values.map((value) => value * value))) || 1
  return Math.min(1, Math.max(0, (at(0) - Math.max(...others)) / spread))
}

/** How much the first counts of bars stand out, a count: 0 where nothing tells them. */
export function barStrength(beats: readonly number[], features: Features, heard: Heard): number {
  const accents = barAccents(beats, features, heard)
  const [four, three] = [4, 3].map((bar) => barsOf(accents, bar).score / beats.length) as [
    number,
    number,
  ]
  return Math.max(four, THREE_LESS * three - THREE_MORE)
}

function barAccents(
  beats: readonly number[],
  { low, flux }: Features,
  { chords, timbres }: Heard,
): readonly number[] {
  const gap = medianGap(beats)
  const rows = {
    chord2: scored(beats.map((at) => changeAt(chords, at, 2 * gap))),
    chord1: scored(beats.map((at) => changeAt(chords, at, gap))),
    chord4: scored(beats.map((at) => changeAt(chords, at, 4 * gap))),
    low: scored(beats.map((at) => heightAt(low, at))),
    timbre: scored(beats.map((at) => stepAt(timbres, at, 8 * gap))),
    flux: scored(beats.map((at) => heightAt(flux, at))),
  }
  return beats.map((_, i) =>
    (Object.keys(OF_BAR) as (keyof typeof OF_BAR)[]).reduce(
      (sum, key) => sum + OF_BAR[key] * (rows[key][i] as number),
      0,
    ),
  )
}

const barsOf = (accents: readonly number[], bar: number) =>
  bestRound({
    places: bar,
    moments: accents.length,
    fits: (i, place) =>
      place === 0 ? (accents[i] as number) : -(accents[i] as number) / (bar - 1),
    leap: () => BAR_LEAP,
  })

/** How much cheaper a leap is where it sounds so different, in spreads. */
const ANEW = 8
const ANEW_FROM = 0.9
/** What tells the first bar of an eight, and of four eights: by how much each. */
const OF_EIGHT = { flux: 1, timbre16: 1, before: 0.5, chord: 1.2 } as const
const OF_PHRASE = {
  flux: 0.7,
  timbre16: 1,
  timbre8: 0.5,
  timbre4: 0.5,
  before: 1,
  loud: 0.7,
} as const

/** Every other bar: the first ones of eights, as phrases of four eights tell. */
function onesOf(
  bars: readonly number[],
  beats: readonly number[],
  { flux, low, loudness }: Features,
  { chords, timbres }: Heard,
): { readonly ones: readonly number[]; readonly sure: number } {
  const gap = medianGap(beats)
  const at = bars.map((i) => beats[i] as number)
  const step = (counts: number) => clipped(at.map((time) => stepAt(timbres, time, counts * gap)))
  // Low sounds aside, which lead into nothing.
  const beginsIn = (from: number, to: number) =>
    meanBetween(flux, from, to) - 2 * meanBetween(low, from, to)
  const changes = at.map((time) => changeAt(chords, time, 2 * gap))
  const alternate = alternation(changes)
  const rows = {
    flux: clipped(at.map((time) => heightAt(flux, time))),
    timbre4: step(4),
    timbre8: step(8),
    timbre16: step(16),
    loud: clipped(at.map((time) => heightAt(loudness, time))),
    // A fill leads into what begins.
    before: clipped(at.map((time) => beginsIn(time - gap, time - 0.1 * gap))),
    chord: clipped(changes).map((value) => value * alternate),
  }
  type Row = keyof typeof rows
  const told = (weights: Readonly<Partial<Record<Row, number>>>) =>
    at.map((_, i) =>
      Object.entries(weights).reduce(
        (sum, [key, weight]) => sum + weight * (rows[key as Row][i] as number),
        0,
      ),
    )
  const eight = told(OF_EIGHT)
  const newness = (i: number) =>
    ((rows.timbre4[i] as number) + (rows.timbre8[i] as number) + (rows.timbre16[i] as number)) / 3
  const phrase = told(OF_PHRASE)
  const { way } = bestRound({
    places: PHRASE,
    moments: bars.length,
    fits: (i, place) =>
      (i === 0 && place === 0 ? BEGINS : 0) +
      (place % 2 === 0 ? 1 : -1) * (eight[i] as number) +
      (place === 0 ? (phrase[i] as number) : -(phrase[i] as number) / (PHRASE - 1)),
    // What sounds quite different from here on may well begin anew.
    leap: (i, place) =>
      place === 0 ? PHRASE_LEAP - ANEW * Math.max(0, newness(i) - ANEW_FROM) : 2 * PHRASE_LEAP,
  })
  const found = bars.flatMap((_, i) => ((way[i] as number) % 2 === 0 ? [i] : []))
  return { ones: found.map((i) => bars[i] as number), sure: lead(eight, found, 2) }
}

/** No single moment says more than that. */
const MOST_TOLD = 3
const clipped = (values: readonly number[]): readonly number[] =>
  scored(values).map((value) => Math.min(MOST_TOLD, Math.max(-MOST_TOLD, value)))

/** From there on the change at one bar is so much more than at the next that they take turns. */
const EACH_BAR = 0.3

/** Whether chords change every other bar, 0 to 1: where they change in each bar they tell no eights. */
function alternation(changes: readonly number[]): number {
  const pairs = changes.slice(1).map((value, i) => {
    const before = changes[i] as number
    return Math.abs(value - before) / (value + before + 1e-9)
  })
  return Math.min(1, Math.max(0, (mean(pairs) - EACH_BAR) / EACH_BAR))
}
