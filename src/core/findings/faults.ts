import type { Combination } from '../combination/combination'
import { mirror } from '../combination/mirror'
import { type House, USUAL_HOUSE } from '../house/house'
import type { FootJoins } from '../joins/joins'
import type { Vocabulary } from '../moves/vocabulary'
import { type Simulation, simulate } from '../simulate/simulate'
import { danceLead } from './danceLead'
import { type Finding, severityOf } from './finding'
import { onceEach, reasonsToLeave } from './once'
import type { Rule } from './rule'
import { clash } from './rules/clash'
import { quickFeet } from './rules/quickFeet'
import { weight } from './rules/weight'
import { onBothSides } from './sides'
import type { TempoRule } from './tempoRule'

/** The rules that can say “can’t be danced”: all that a shelf of combinations needs to ask. */
export const FAULT_RULES: readonly Rule[] = [weight, clash]
export const FAULT_TEMPO_RULES: readonly TempoRule[] = [quickFeet]

/** A combination danced on its lead side, how it joins, and what can't be danced in it. */
export interface Faults {
  readonly lead: Simulation
  readonly joins: FootJoins
  readonly faults: readonly Finding[]
}

/** The faults of both sides, without all the rest a full check says. */
export function faultsOf(
  combination: Combination,
  base: Vocabulary,
  house: House = USUAL_HOUSE,
): Faults {
  const { written, lead, known, danceable } = danceLead(combination, base, house)
  const { joins, tempo, vocabulary } = known
  const found = (simulation: Simulation) => {
    const asked = danceable(simulation)
    return onceEach([
      ...FAULT_RULES.flatMap((rule) => [...rule.check(asked)]),
      ...FAULT_TEMPO_RULES.flatMap((rule) =>
        [...rule.tempoLimits(asked, tempo)].map((limit) => limit.found(tempo)),
      ),
    ])
  }
  const reasonToLeave = reasonsToLeave(combination)
  const faults = onBothSides(written, found(lead), () =>
    found(simulate(mirror(written), vocabulary, house)),
  ).filter((one) => severityOf(one) === 'fault' && reasonToLeave(one) === undefined)
  return { lead, joins, faults }
}
