import type { Combination, OneSide } from '../combination/combination'
import type { House } from '../house/house'
import { footJoins } from '../joins/joins'
import { type Vocabulary, vocabularyFor } from '../moves/vocabulary'
import { type Simulation, simulate } from '../simulate/simulate'
import type { Danceable } from './rule'
import { withHouseTurns } from './sides'

/** A combination danced on its lead side, with all that the rules ask besides the dance. */
export interface DancedLead {
  /** As it is danced in this house. */
  readonly written: OneSide
  readonly lead: Simulation
  /** What a rule is given, for whichever side is danced. */
  readonly danceable: (simulation: Simulation) => Danceable
  readonly known: Omit<Danceable, 'simulation'>
}

/** Dances the lead side, with the combination's own moves. */
export function danceLead(combination: Combination, base: Vocabulary, house: House): DancedLead {
  const vocabulary = vocabularyFor(combination, base)
  const written = withHouseTurns(combination, house)
  const lead = simulate(written, vocabulary, house)
  const known = {
    vocabulary,
    house,
    level: combination.level ?? house.level,
    tempo: combination.tempo,
    joins: footJoins(lead, vocabulary),
  }
  return { written, lead, known, danceable: (simulation) => ({ ...known, simulation }) }
}
