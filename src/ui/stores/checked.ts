import QuickLRU from 'quick-lru'
import type { Combination } from '../../core/combination/combination'
import type { Dancing } from '../../core/combination/dancing'
import { partOf } from '../../core/combination/partOf'
import { judged, lookingBy } from '../../core/findings/check'
import type { Checked } from '../../core/findings/checked'
import { checkedTogether } from '../../core/findings/together'
import type { House } from '../../core/house/house'
import type { Vocabulary } from '../../core/moves/vocabulary'
import { type Danced, danced } from '../../core/simulate/danced'
import type { Simulation } from '../../core/simulate/simulate'
import { houseNow } from './house'
import { words } from './words'

/** Of so many states the dance and the judgement are kept: what is undone further back is danced again. */
const MOST = 24

/** The last few of something that is worked out of combinations. */
const latest = <T extends object>() => new QuickLRU<Combination, T>({ maxSize: MOST })

/** What is known of a combination, or made and known from now on. */
function known<T extends object>(
  all: QuickLRU<Combination, T>,
  combination: Combination,
  make: () => T,
): T {
  const found = all.get(combination) ?? make()
  all.set(combination, found)
  return found
}

interface Known {
  readonly vocabulary: Vocabulary
  readonly house: House
  readonly danced: QuickLRU<Combination, Danced>
  readonly checked: QuickLRU<Combination, Checked>
}

let now: Known | undefined

/** What is known by the words and the house as they are now. */
function knownNow(): Known {
  const { vocabulary } = words.getState()
  const { house } = houseNow.getState()
  if (now?.vocabulary !== vocabulary || now.house !== house)
    now = { vocabulary, house, danced: latest(), checked: latest() }
  return now
}

/** A combination danced, once for each state of it, of the words and of the house. */
export function dancedOf(combination: Combination): Danced {
  const { danced: all, vocabulary, house } = knownNow()
  return known(all, combination, () => danced(combination, vocabulary, house))
}

/** What the judge says of it: a second step, which who only sees or plays it does not wait for. */
export function checkedOf(combination: Combination): Checked {
  const { checked: all, vocabulary, house } = knownNow()
  return known(all, combination, () =>
    combination.parts
      ? checkedTogether(combination, (part) => checkedOf(partOf(combination, part)))
      : judged(dancedOf(combination), combination, lookingBy(vocabulary, house)),
  )
}

/** One dancing of a combination. */
export const simulationFrom = (combination: Combination, dancing: Dancing): Simulation =>
  dancedOf(partOf(combination, dancing.part)).from(dancing)
