import { dequal } from 'dequal'
import { LAYERS } from '../body/layers'
import type { Combination, Event } from '../combination/combination'
import { mirrorWhat } from '../combination/mirror'
import { nameOf } from '../combination/names'
import { phraseDanced } from '../combination/passes'
import type { House } from '../house/house'
import { keyOf } from '../load/things'
import type { Vocabulary } from '../moves/vocabulary'
import { labelIn, labelOfSpan } from '../time/time'
import type { Offer } from '../writing/search'
import { asAsked, asItWas, type FillWish } from './asked'
import { type Composed, compose } from './compose'
import { type Composing, checkedIn, composing } from './composing'
import { gapsOf } from './gaps'
import { isMaterial } from './material'
import { numbersFrom } from './numbers'
import { priceOf } from './score'
import { isUnclean, newFindings, offersFor, placed } from './suggest'

/** A whole phrase of one layer, filled. */
export interface Filling {
  /** What was put in, in order. */
  readonly names: readonly string[]
  /** How it is built: `4 and 4 to the other side`. */
  readonly shape: string
  /** Why it is proposed, in a line. */
  readonly reason: string
  /** A motif of it comes back, as it was or to the other side. */
  readonly returns: boolean
  /** No count is left free; else it is one move, where no phrase goes. */
  readonly isWhole: boolean
  /** Keys of the things it is made of. */
  readonly things: readonly string[]
  readonly combination: Combination
}

const MOST_FILLINGS = 5
/** Proposals that are made and looked at, at the most. */
const ATTEMPTS = 90
/** So many of them only have shapes in which something comes back, where there are any. */
const RETURNING_FIRST = 70
/** So many more than are wanted are made at the most, to have a choice. */
const SPARE = 4
/** A filling that shares this much with another is not different from it. */
const MOST_SHARED = 0.5
/** Counts that are checked for it at the most: what keeps it under half a second. */
const WORK = 9_000

/**
 * Up to five ways to fill what is empty on one layer of a phrase: each has a shape, made of moves at
 * their usual lengths, mostly with a motif that comes back; none has a fault or a snag that was not
 * there, each ends as asked and differs from the others on at least half of its counts.
 * @param most how many are wanted
 */
export const waysToFill = (
  combination: Combination,
  wish: FillWish,
  base: Vocabulary,
  house: House,
  most = MOST_FILLINGS,
): readonly Filling[] =>
  filledBy(searchFor(combination, wish, base, house, most), most, combination)

/** The same; where no phrase comes out, single moves that can stand there. */
export function fillPhrase(
  combination: Combination,
  wish: FillWish,
  base: Vocabulary,
  house: House,
): readonly Filling[] {
  const search = searchFor(combination, wish, base, house, MOST_FILLINGS)
  const ways = filledBy(search, MOST_FILLINGS, combination)
  if (ways.length > 0 || wish.end || wish.group?.news) return ways
  return singleMoves(search, MOST_FILLINGS).map((made) => ({
    ...made,
    combination: asItWas(made.combination, combination),
  }))
}

const searchFor = (
  combination: Combination,
  wish: FillWish,
  base: Vocabulary,
  house: House,
  most: number,
): Composing =>
  composing(
    asAsked(combination, wish),
    wish,
    base,
    house,
    (WORK * (most + 1)) / (MOST_FILLINGS + 1),
  )

function filledBy(search: Composing, most: number, own: Combination): readonly Filling[] {
  const { wish } = search
  const wanted = most + Math.min(SPARE, most)
  const found: (Composed & { readonly price: number })[] = []
  for (let attempt = 0; attempt < ATTEMPTS && found.length < wanted && search.work > 0; attempt++) {
    // Each layer by numbers of its own: else all of them would have the same shape.
    const next = numbersFrom(wish.seed * 1009 + attempt + 7919 * LAYERS.indexOf(wish.layer))
    const made = compose(search, { next, isAny: attempt >= RETURNING_FIRST })
    if (made) found.push({ ...made, price: priceOf(made, search) })
  }
  return choiceOf(found, most).map(({ names, shape, returns, motifs, combination: made }) => ({
    names,
    shape,
    reason: `${shape}, ends with ${names.at(-1)}`,
    returns,
    isWhole: true,
    things: motifs.map(({ key }) => key),
    combination: asItWas(made, own),
  }))
}

/** The best of them, each different from those before it: in what is danced when, and in what it is made of. */
function choiceOf(
  found: readonly (Composed & { readonly price: number })[],
  most: number,
): readonly Composed[] {
  const chosen: Composed[] = []
  const left = new Set(found)
  const priceBeside = ({ price, motifs }: (typeof found)[number]) => {
    const taken = new Set(chosen.flatMap((one) => one.motifs.map(({ key }) => key)))
    const again = motifs.filter(({ key }) => taken.has(key)).length
    return price + (SAME_AGAIN * again) / motifs.length
  }
  while (chosen.length < most && left.size > 0) {
    const [best] = [...left].sort((a, b) => priceBeside(a) - priceBeside(b))
    if (!best) break
    left.delete(best)
    if (!chosen.some((other) => isLike(best, other))) chosen.push(best)
  }
  return chosen
}

/** What being made of the same costs a proposal beside others (h). */
const SAME_AGAIN = 1

function isLike({ signature: a }: Composed, { signature: b }: Composed): boolean {
  const same = a.filter((kind, i) => b[i] === kind).length
  return same / Math.max(a.length, b.length, 1) > MOST_SHARED
}

/** Where no phrase of them comes out: every move there is, tried where an empty stretch begins. */
function singleMoves(search: Composing, most: number): readonly Filling[] {
  const { wish, vocabulary, before, known, meant: combination } = search
  const phrase = phraseDanced(combination, wish.pass)
  const found: Filling[] = []
  for (const gap of gapsOf(combination, wish.pass, wish.layer, vocabulary, wish.within))
    for (const offer of bothWays(offersFor(before, gap, vocabulary, Number.POSITIVE_INFINITY))) {
      if (found.length >= most) return found
      if (offer.length > gap.length || !canStand(offer.what, combination, search)) continue
      const id = `fill-${wish.seed}-${gap.pass}-${gap.layer}-${gap.at}`
      const { event, length, changed } = placed(combination, gap, offer, id)
      if (known && !known.has(keyOf(event, vocabulary))) continue
      if (newFindings(before, checkedIn(search, changed)).some(isUnclean)) continue
      const where = labelOfSpan({ at: event.at, length }, labelIn(phrase ?? { counts: 8 }))
      found.push({
        names: [nameOf(event, vocabulary)],
        shape: 'one move',
        reason: `one move on ${where}, where no whole phrase goes; the rest stays free`,
        returns: false,
        isWhole: false,
        things: [keyOf(event, vocabulary)],
        combination: changed,
      })
    }
  return found
}

/** To the side that is meant first, and then to the other one; the feet have no choice. */
const bothWays = (offers: readonly Offer[]): readonly Offer[] => [
  ...offers,
  ...offers.flatMap((offer) => {
    const what = mirrorWhat(offer.what)
    return offer.layer === 'feet' || dequal(what, offer.what) ? [] : [{ ...offer, what }]
  }),
]

/** What is no rest, and of her families. */
const canStand = (
  what: Event['what'],
  { families }: Combination,
  { wish, vocabulary }: Composing,
): boolean =>
  what.kind === 'foot'
    ? what.action.primitive !== 'hold' && what.action.primitive !== 'free'
    : isMaterial(wish.layer, what, families, vocabulary)
