import { LAYERS, type Layer } from '../body/layers'
import { otherSide, type Side } from '../body/side'
import type { CallMode } from '../calling/calls'
import type { Combination } from '../combination/combination'
import type { House } from '../house/house'
import type { Vocabulary } from '../moves/vocabulary'
import { type Danced, danced } from '../simulate/danced'
import { type Range, tick } from '../time/time'
import { steady } from '../time/timeMap'
import type { Stretch } from './parts'
import { type Performance, performanceOf } from './performance'

interface Choice {
  /** What is danced and heard; all of it where none is named. */
  readonly layers?: readonly Layer[]
  /** What is called; nothing where it is not given. */
  readonly mode?: CallMode
}

const COUNT_IN = 4

/** A combination from its count 1 to its end. */
export const wholeOf = ({ lead }: Danced): Range => ({ from: tick(0), to: lead.length })

/** Some sides, one after the other, each counted in and danced once. */
export const sidesInTurn = (
  dance: Danced,
  sides: readonly Side[],
  { layers = LAYERS, mode = 'none' }: Choice = {},
): readonly Stretch[] =>
  sides.map((side) => ({
    simulation: dance.from(side),
    side,
    range: wholeOf(dance),
    layers,
    mode,
    countIn: COUNT_IN,
    round: 1,
    rounds: 1,
  }))

export const bothSides = (lead: Side): readonly Side[] => [lead, otherSide[lead]]

/** Where nobody calls. */
export const SILENT = () => undefined

/** A combination as its files hold it: both sides at its tempo, with what is written and nothing called. */
export const writtenPerformance = (
  combination: Combination,
  vocabulary: Vocabulary,
  house: House,
): Performance =>
  performanceOf(sidesInTurn(danced(combination, vocabulary, house), bothSides(combination.lead)), {
    time: steady(combination.tempo),
    speech: SILENT,
  })
