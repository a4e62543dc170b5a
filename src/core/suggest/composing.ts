import type { Combination } from '../combination/combination'
import { checkCombination, danceablesOf } from '../findings/check'
import type { Checked } from '../findings/checked'
import type { House } from '../house/house'
import { type Vocabulary, vocabularyFor } from '../moves/vocabulary'
import { COUNT } from '../time/time'
import type { Offer } from '../writing/search'
import type { FillWish } from './asked'
import { layeringsOf } from './layerings'
import { type Gap, offersFor } from './suggest'

/** What is asked for and known while one layer is composed. */
export interface Composing {
  /** What is filled, at the tempo and for the level that are asked for. */
  readonly meant: Combination
  readonly before: Checked
  readonly wish: FillWish
  readonly vocabulary: Vocabulary
  readonly base: Vocabulary
  readonly house: House
  readonly known: ReadonlySet<string> | undefined
  /** Things by what usually goes with them. */
  readonly layerings: ReadonlyMap<string, ReadonlySet<string>>
  /** Offers by the check they were made in and their tick: the same are asked for again and again. */
  readonly offers: WeakMap<Checked, Map<number, readonly Offer[]>>
  /** What can't stand where something was empty before, by tick, length and kind. */
  readonly broken: Set<string>
  /** Counts that a check goes over, and those it takes as long as besides. */
  readonly ofACheck: number
  /** Counts that may still be checked: a bound on time that is the same on every machine. */
  work: number
}

/** Of the best offers for a place, how many are looked through for a motif. */
const LOOKED_THROUGH = 90

/** Prepares to compose a layer: what there is, and what goes with what in its families. */
export function composing(
  combination: Combination,
  wish: FillWish,
  base: Vocabulary,
  house: House,
  work: number,
): Composing {
  const layerings = new Map<string, Set<string>>()
  const add = (one: string, other: string) => {
    const known = layerings.get(one)
    if (known) known.add(other)
    else layerings.set(one, new Set([other]))
  }
  for (const layering of layeringsOf(house.layerings)) {
    if (combination.families.length > 0 && !combination.families.includes(layering.family)) continue
    add(layering.on, layering.with)
    add(layering.with, layering.on)
  }
  const before = checkCombination(combination, base, house)
  const counts = before.lead.passes.reduce(
    (sum, { length, phrase: { options = [] } }) =>
      sum + (length / COUNT) * (1 + OF_AN_OPTION * options.length),
    0,
  )
  return {
    meant: combination,
    before,
    // Where something is kept both sides are checked.
    ofACheck: (BESIDE + counts) * danceablesOf(before).length,
    wish,
    vocabulary: vocabularyFor(combination, base),
    base,
    house,
    known: wish.group && new Set(wish.group.known),
    layerings,
    offers: new WeakMap(),
    broken: new Set(),
    work,
  }
}

/** Checks a combination, and books what that takes. */
export function checkedIn(composing: Composing, combination: Combination): Checked {
  composing.work -= composing.ofACheck
  return checkCombination(combination, composing.base, composing.house)
}

/** A check takes as long as so many counts, besides those it checks. */
const BESIDE = 24
/** What a phrase takes more for each of its options, which are danced and checked too. */
const OF_AN_OPTION = 2

/** What the search offers for a place, looked for once. */
export const offersIn = (composing: Composing, checked: Checked, gap: Gap): readonly Offer[] => {
  const known = composing.offers.get(checked) ?? new Map<number, readonly Offer[]>()
  composing.offers.set(checked, known)
  const found = known.get(gap.at) ?? offersFor(checked, gap, composing.vocabulary, LOOKED_THROUGH)
  known.set(gap.at, found)
  return found
}
