import type { Combination } from '../combination/combination'
import { partIds, partOf } from '../combination/partOf'
import { type House, USUAL_HOUSE } from '../house/house'
import type { FootJoins } from '../joins/joins'
import type { Vocabulary } from '../moves/vocabulary'
import { danced } from '../simulate/danced'
import type { Simulation } from '../simulate/simulate'
import { type Finding, type Found, severityOf } from './finding'
import { onceEach, reasonsToLeave } from './once'
import { type Danceable, knownOf, type Rule } from './rule'
import { clash } from './rules/clash'
import { propFaults } from './rules/propActs'
import { quickFeet } from './rules/quickFeet'
import { weight } from './rules/weight'
import { onBothSides } from './sides'
import { limitsBelow, type TempoRule } from './tempoRule'

/** The rules that can say “can’t be danced”: all that a shelf of combinations needs to ask. */
export const FAULT_RULES: readonly Rule[] = [weight, clash, propFaults]
export const FAULT_TEMPO_RULES: readonly TempoRule[] = [quickFeet]

/** What some rules find on one side, each cause said once. */
export function findBy(
  rules: readonly Rule[],
  tempoRules: readonly TempoRule[],
  danceable: Danceable,
): readonly Found[] {
  const { tempoAt } = danceable.simulation.time
  return onceEach([
    ...rules.flatMap((rule) => [...rule.check(danceable)]),
    ...limitsBelow(tempoRules, danceable, tempoAt).map(({ at, found }) => found(tempoAt(at))),
  ])
}

/** A combination danced on its lead side, how it joins, and what can't be danced in it. */
export interface Faults {
  readonly lead: Simulation
  readonly joins: FootJoins
  readonly faults: readonly Finding[]
}

/** The faults of both sides and of every part, without all the rest a full check says. */
export function faultsOf(
  combination: Combination,
  base: Vocabulary,
  house: House = USUAL_HOUSE,
): Faults {
  const [first, ...others] = partIds(combination).map((part) =>
    faultsAlone(partOf(combination, part), base, house),
  )
  if (!first) throw new Error('a combination has a part')
  const all = [first, ...others]
  return {
    lead: first.lead,
    joins: {
      ...first.joins,
      repeats: all.every(({ joins }) => joins.repeats),
      switches: all.every(({ joins }) => joins.switches),
    },
    faults: all.flatMap(({ faults }) => faults),
  }
}

function faultsAlone(combination: Combination, base: Vocabulary, house: House): Faults {
  const dance = danced(combination, base, house)
  const { written, lead } = dance
  const known = knownOf(dance)
  const found = (simulation: Simulation) =>
    findBy(FAULT_RULES, FAULT_TEMPO_RULES, { ...known, simulation })
  const reasonToLeave = reasonsToLeave(combination)
  const faults = onBothSides(written, found(lead), () => found(dance.other)).filter(
    (one) => severityOf(one) === 'fault' && reasonToLeave(one) === undefined,
  )
  return { lead, joins: known.joins, faults }
}
