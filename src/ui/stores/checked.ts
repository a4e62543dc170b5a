import type { Side } from '../../core/body/side'
import type { Combination } from '../../core/combination/combination'
import { type Checked, judged } from '../../core/findings/check'
import type { House } from '../../core/house/house'
import type { Vocabulary } from '../../core/moves/vocabulary'
import { type Danced, danced } from '../../core/simulate/danced'
import type { Simulation } from '../../core/simulate/simulate'
import { houseNow } from './house'
import { words } from './words'

interface Known {
  readonly vocabulary: Vocabulary
  readonly house: House
  readonly danced: WeakMap<Combination, Danced>
  readonly checked: WeakMap<Combination, Checked>
}

let known: Known | undefined

/** What is known by the words and the house as they are now. */
function knownNow(): Known {
  const { vocabulary } = words.get()
  const { house } = houseNow.get()
  if (known?.vocabulary !== vocabulary || known.house !== house)
    known = { vocabulary, house, danced: new WeakMap(), checked: new WeakMap() }
  return known
}

/** A combination danced, once for each state of it, of the words and of the house. */
export function dancedOf(combination: Combination): Danced {
  const { danced: all, vocabulary, house } = knownNow()
  const found = all.get(combination) ?? danced(combination, vocabulary, house)
  all.set(combination, found)
  return found
}

/** What the judge says of it: a second step, which who only sees or plays it does not wait for. */
export function checkedOf(combination: Combination): Checked {
  const { checked } = knownNow()
  const found = checked.get(combination) ?? judged(dancedOf(combination), combination)
  checked.set(combination, found)
  return found
}

/** The combination danced from a side. */
export const simulationFrom = (combination: Combination, side: Side): Simulation =>
  dancedOf(combination).from(side)
