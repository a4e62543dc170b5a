import { LAYERS } from '../body/layers'
import type { SpeechSeconds } from '../calling/called'
import type { Combination } from '../combination/combination'
import { bothOf, type Dancing } from '../combination/dancing'
import { loopTick } from '../combination/loop'
import type { House } from '../house/house'
import type { Vocabulary } from '../moves/vocabulary'
import { danceOf } from '../piece/dance'
import { usualRhythm } from '../rhythm/rhythms'
import type { Danced } from '../simulate/danced'
import type { Tempo } from '../time/tempo'
import { type Range, tick } from '../time/time'
import { steady } from '../time/timeMap'
import { type Performance, performanceOf } from './performance'
import { COUNT_IN, type Stretch } from './segments'

/** What can be danced from both sides. */
type FromSides = Pick<Danced, 'lead' | 'from' | 'company'>

/** A combination from its count 1 to its end. */
export const wholeOf = ({ lead }: FromSides): Range => ({ from: tick(0), to: lead.length })

/** A combination from where its later rounds begin to its end. */
export const loopOf = (
  dance: FromSides,
  combination: Pick<Combination, 'order' | 'phrases'>,
): Range => ({
  ...wholeOf(dance),
  from: loopTick(combination),
})

/** One side, counted in and danced once from start to end with nothing called, but for what is said otherwise. */
export const stretchOf = (
  dance: FromSides,
  dancing: Dancing,
  otherwise: Partial<Omit<Stretch, 'simulation' | 'dancing'>> = {},
): Stretch => ({
  simulation: dance.from(dancing),
  dancing,
  company: dance.company?.(dancing),
  range: wholeOf(dance),
  layers: LAYERS,
  mode: 'none',
  countIn: COUNT_IN,
  round: 1,
  rounds: 1,
  ...otherwise,
})

/** Where nobody calls. */
export const SILENT = () => undefined

/** A combination as its files hold it: both sides at its tempo, with what is written and nothing called. */
export const writtenPerformance = (
  combination: Combination,
  vocabulary: Vocabulary,
  house: House,
): Performance => {
  const dance = danceOf(combination, vocabulary, house)
  return performanceOf(
    bothOf(combination).map((dancing) => stretchOf(dance, dancing)),
    { time: steady(combination.tempo), speech: SILENT },
  )
}

/** Dancings one after the other, called and to the rhythm of the family, as on the floor: what a film shows. */
export const practicePerformance = (
  dance: Danced,
  dancings: readonly Dancing[],
  tempo: Tempo,
  speech: SpeechSeconds,
): Performance =>
  performanceOf(
    dancings.map((dancing) => stretchOf(dance, dancing, { mode: 'all' })),
    {
      time: steady(tempo),
      rhythm: usualRhythm(dance.written.families, dance.lead.passes[0]?.phrase.counts),
      speech,
    },
  )
