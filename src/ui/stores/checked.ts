import QuickLRU from 'quick-lru'
import type { Combination } from '../../core/combination/combination'
import type { Dancing } from '../../core/combination/dancing'
import { partOf } from '../../core/combination/partOf'
import type { PartId } from '../../core/combination/whose'
import { checkedPiece, judgedOnce } from '../../core/findings/check'
import type { Checked } from '../../core/findings/checked'
import { amongOthers } from '../../core/findings/pairs/met'
import type { House } from '../../core/house/house'
import type { Vocabulary } from '../../core/moves/vocabulary'
import { danceOf } from '../../core/piece/dance'
import { type DancedPiece, dancedPiece } from '../../core/piece/piece'
import type { Danced } from '../../core/simulate/danced'
import type { Simulation } from '../../core/simulate/simulate'
import { houseNow } from './house'
import { words } from './words'

/** Of so many states the dance and the judgement are kept: what is undone further back is danced again. */
const MOST = 8

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
  return known(all, combination, () => danceOf(combination, vocabulary, house))
}

/** A combination for several, danced by the words and the house as they are now. */
export function pieceNow(combination: Combination): DancedPiece {
  const { vocabulary, house } = knownNow()
  return dancedPiece(combination, vocabulary, house)
}

/** What the judge says of it: a second step, which who only sees or plays it does not wait for. */
export function checkedOf(combination: Combination): Checked {
  const { checked: all } = knownNow()
  return known(all, combination, () =>
    combination.parts
      ? checkedPiece(combination, pieceNow(combination), knownNow().vocabulary)
      : checkedDance(dancedOf(combination), combination),
  )
}

const checkedDance = (dance: Danced, combination: Combination): Checked =>
  judgedOnce(dance, { combination, base: knownNow().vocabulary })

/** What the judge says of one part of a combination, as she dances it with the others. */
export const checkedPart = (combination: Combination, part: PartId): Checked =>
  combination.parts
    ? amongOthers(
        checkedDance(pieceNow(combination).of(part), partOf(combination, part)),
        pieceNow(combination).lead,
        part,
      )
    : checkedOf(combination)

/** One dancing of a combination. */
export const simulationFrom = (combination: Combination, dancing: Dancing): Simulation =>
  dancedOf(combination).from(dancing)
