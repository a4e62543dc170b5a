import type { Side } from '../../core/body/side'
import type { Combination } from '../../core/combination/combination'
import { type Checked, judged } from '../../core/findings/check'
import type { House } from '../../core/house/house'
import type { Vocabulary } from '../../core/moves/vocabulary'
import { type Danced, danced } from '../../core/simulate/danced'
import type { Simulation } from '../../core/simulate/simulate'
import { houseNow } from './house'
import { words } from './words'

/** Of so many states the dance and the judgement are kept: what is undone further back is danced again. */
const MOST = 8

/** The last few of something that is worked out of combinations. */
interface Latest<T> {
  readonly of: (combination: Combination, make: () => T) => T
}

function latest<T>(): Latest<T> {
  const known = new Map<Combination, T>()
  return {
    of(combination, make) {
      const found = known.get(combination) ?? make()
      // What was asked for last goes last.
      known.delete(combination)
      known.set(combination, found)
      for (const oldest of known.keys()) {
        if (known.size <= MOST) break
        known.delete(oldest)
      }
      return found
    },
  }
}

interface Known {
  readonly vocabulary: Vocabulary
  readonly house: House
  readonly danced: Latest<Danced>
  readonly checked: Latest<Checked>
}

let known: Known | undefined

/** What is known by the words and the house as they are now. */
function knownNow(): Known {
  const { vocabulary } = words.get()
  const { house } = houseNow.get()
  if (known?.vocabulary !== vocabulary || known.house !== house)
    known = { vocabulary, house, danced: latest(), checked: latest() }
  return known
}

/** A combination danced, once for each state of it, of the words and of the house. */
export function dancedOf(combination: Combination): Danced {
  const { danced: all, vocabulary, house } = knownNow()
  return all.of(combination, () => danced(combination, vocabulary, house))
}

/** What the judge says of it: a second step, which who only sees or plays it does not wait for. */
export function checkedOf(combination: Combination): Checked {
  return knownNow().checked.of(combination, () => judged(dancedOf(combination), combination))
}

/** The combination danced from a side. */
export const simulationFrom = (combination: Combination, side: Side): Simulation =>
  dancedOf(combination).from(side)
