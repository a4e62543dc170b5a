import { beatsIn } from './beats'
import type { Heard } from './chords'
import { type Features, secondsOfFrame } from './features'
import { heightAt, leveled, medianGap } from './level'
import { barStrength } from './meter'
import { mean } from './numbers'
import { ANY_STYLE, pacesIn, type TempoPrior } from './pace'

/** Counts as they are found, in seconds, and how sure their level is. */
export interface Counted {
  readonly beats: readonly number[]
  readonly sure: number
}

/** What a song may be counted at instead, since three against four and two repeat themselves as well. */
const RIVALS = [1, 4 / 3, 3 / 4, 3 / 2, 2 / 3]
const SLOWEST = 60
const FASTEST = 205
/** A rival is looked for this near, in octaves. */
const NEAR = 0.05
const WEIGHTS = { low: 1, flux: 0.5, bar: 1.5 } as const
/** That the drums are there says so much and no more: three in four of a swung bar has them too. */
const MOST_LOW = 1.5
/** A rival must be that much better. */
const STAY = 0.15

/** Counts a song: at the level at which drums, basses and bars agree best. */
export function countsIn(
  envelope: Float32Array,
  features: Features,
  heard: Heard,
  prior: TempoPrior = ANY_STYLE,
): Counted {
  const paceOf = pacesIn(envelope)
  const first = paceOf(prior)
  const tries = RIVALS.map((ratio) => first.tempo * ratio)
    .filter((tempo) => tempo >= SLOWEST && tempo <= FASTEST)
    .flatMap((tempo, i) => {
      const pace = i === 0 ? first : paceOf({ centre: tempo, spread: NEAR })
      const found = leveled(beatsIn(envelope, pace).map(secondsOfFrame), features, heard.chords)
      const third = medianGap(found) / 3
      return [0, third, 2 * third].map((shift) => {
        const beats = shift === 0 ? found : found.map((at) => at + shift)
        const isFirst = i === 0 && shift === 0
        return { beats, quality: qualityOf(beats, features, heard) + (isFirst ? STAY : 0) }
      })
    })
    .sort((a, b) => b.quality - a.quality)
  return { beats: tries[0]?.beats ?? [], sure: first.sure }
}

/** How well counts agree with what begins, and with bars. */
function qualityOf(beats: readonly number[], features: Features, heard: Heard): number {
  if (beats.length < 12) return Number.NEGATIVE_INFINITY
  const gap = medianGap(beats)
  const all = beats.flatMap((at) => PARTS.map((part) => at + part * gap))
  const over = (values: Float32Array) =>
    Math.log2(
      (mean(beats.map((at) => heightAt(values, at))) + 1e-6) /
        (mean(all.map((at) => heightAt(values, at))) + 1e-6),
    )
  return (
    WEIGHTS.low * Math.min(MOST_LOW, over(features.low)) +
    WEIGHTS.flux * over(features.flux) +
    WEIGHTS.bar * barStrength(beats, features, heard)
  )
}

/** Places in a count that are compared with its beginning: of three, four and eight parts. */
const PARTS = [1 / 8, 1 / 4, 1 / 3, 3 / 8, 1 / 2, 5 / 8, 2 / 3, 3 / 4, 7 / 8]
