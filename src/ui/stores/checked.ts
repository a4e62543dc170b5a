import type { Side } from '../../core/body/side'
import type { Combination } from '../../core/combination/combination'
import { type Checked, checkCombination } from '../../core/findings/check'
import { vocabulary } from '../../core/moves/vocabulary'
import type { Simulation } from '../../core/simulate/simulate'

const known = new WeakMap<Combination, Checked>()

/** What the core says of a combination, computed once for each state of it. */
export function checkedOf(combination: Combination): Checked {
  const found = known.get(combination) ?? checkCombination(combination, vocabulary)
  known.set(combination, found)
  return found
}

/** The combination danced from a side. */
export function simulationFrom(combination: Combination, side: Side): Simulation {
  const { lead, other } = checkedOf(combination)
  return combination.lead === side ? lead : other
}
