import type { Side } from '../../core/body/side'
import type { Combination } from '../../core/combination/combination'
import { type Checked, checkCombination } from '../../core/findings/check'
import type { Vocabulary } from '../../core/moves/vocabulary'
import type { Simulation } from '../../core/simulate/simulate'
import { words } from './words'

const known = new WeakMap<Vocabulary, WeakMap<Combination, Checked>>()

/** What the core says of a combination, computed once for each state of it and of the words. */
export function checkedOf(combination: Combination): Checked {
  const { vocabulary } = words.get()
  const checked = known.get(vocabulary) ?? new WeakMap<Combination, Checked>()
  known.set(vocabulary, checked)
  const found = checked.get(combination) ?? checkCombination(combination, vocabulary)
  checked.set(combination, found)
  return found
}

/** The combination danced from a side. */
export function simulationFrom(combination: Combination, side: Side): Simulation {
  const { lead, other } = checkedOf(combination)
  return combination.lead === side ? lead : other
}
