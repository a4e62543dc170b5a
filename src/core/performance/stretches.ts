import { LAYERS } from '../body/layers'
import { otherSide, type Side } from '../body/side'
import type { SpeechSeconds } from '../calling/calls'
import type { Combination } from '../combination/combination'
import type { House } from '../house/house'
import type { Vocabulary } from '../moves/vocabulary'
import { usualRhythm } from '../rhythm/rhythms'
import { type Danced, danced } from '../simulate/danced'
import type { Tempo } from '../time/tempo'
import { type Range, tick } from '../time/time'
import { steady } from '../time/timeMap'
import { COUNT_IN, type Stretch } from './parts'
import { type Performance, performanceOf } from './performance'

/** What can be danced from both sides. */
type FromSides = Pick<Danced, 'lead' | 'from'>

/** A combination from its count 1 to its end. */
export const wholeOf = ({ lead }: FromSides): Range => ({ from: tick(0), to: lead.length })

/** One side, counted in and danced once from start to end with nothing called, but for what is said otherwise. */
export const stretchOf = (
  dance: FromSides,
  side: Side,
  otherwise: Partial<Omit<Stretch, 'simulation' | 'side'>> = {},
): Stretch => ({
  simulation: dance.from(side),
  side,
  range: wholeOf(dance),
  layers: LAYERS,
  mode: 'none',
  countIn: COUNT_IN,
  round: 1,
  rounds: 1,
  ...otherwise,
})

export const bothSides = (lead: Side): readonly Side[] => [lead, otherSide[lead]]

/** Where nobody calls. */
export const SILENT = () => undefined

/** A combination as its files hold it: both sides at its tempo, with what is written and nothing called. */
export const writtenPerformance = (
  combination: Combination,
  vocabulary: Vocabulary,
  house: House,
): Performance => {
  const dance = danced(combination, vocabulary, house)
  return performanceOf(
    bothSides(combination.lead).map((side) => stretchOf(dance, side)),
    { time: steady(combination.tempo), speech: SILENT },
  )
}

/** Sides one after the other, called and to the rhythm of the family, as on the floor: what a film shows. */
export const practicePerformance = (
  dance: Danced,
  sides: readonly Side[],
  tempo: Tempo,
  speech: SpeechSeconds,
): Performance =>
  performanceOf(
    sides.map((side) => stretchOf(dance, side, { mode: 'all' })),
    {
      time: steady(tempo),
      rhythm: usualRhythm(dance.written.families, dance.lead.passes[0]?.phrase.counts),
      speech,
    },
  )
