import type { Side } from '../../core/body/side'
import type { Combination } from '../../core/combination/combination'
import { type Checked, checkCombination } from '../../core/findings/check'
import type { House } from '../../core/house/house'
import type { Vocabulary } from '../../core/moves/vocabulary'
import type { Simulation } from '../../core/simulate/simulate'
import { houseNow } from './house'
import { words } from './words'

interface Known {
  readonly vocabulary: Vocabulary
  readonly house: House
  readonly checked: WeakMap<Combination, Checked>
}

let known: Known | undefined

/** What the core says of a combination, computed once for each state of it, of the words and of the house. */
export function checkedOf(combination: Combination): Checked {
  const { vocabulary } = words.get()
  const { house } = houseNow.get()
  if (known?.vocabulary !== vocabulary || known.house !== house)
    known = { vocabulary, house, checked: new WeakMap() }
  const { checked } = known
  const found = checked.get(combination) ?? checkCombination(combination, vocabulary, house)
  checked.set(combination, found)
  return found
}

/** The combination danced from a side. */
export function simulationFrom(combination: Combination, side: Side): Simulation {
  const { lead, other } = checkedOf(combination)
  return combination.lead === side ? lead : other
}
