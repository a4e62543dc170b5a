import { LAYERS } from '../body/layers'
import { capital } from '../capital'
import type { Combination, Event, Phrase } from '../combination/combination'
import { mirrorEvent } from '../combination/mirror'
import { phraseDanced } from '../combination/passes'
import { changePhrase, type Edit, madeBy } from '../edits/edit'
import { addPhrase, repeatPass, turnPass } from '../edits/phrases'
import { checkCombination } from '../findings/check'
import { findingText } from '../findings/findingText'
import type { House } from '../house/house'
import { type Vocabulary, vocabularyFor } from '../moves/vocabulary'
import { type Span, type Tick, tick } from '../time/time'
import { asAsked, asItWas, endsAsAsked, type PassWish } from './asked'
import { waysToFill } from './fill'
import { gapsOf } from './gaps'
import { halfOf, isOfMovesOnly, withOwnIds } from './halves'
import { mendedIn } from './mend'
import { isUnclean, newFindings } from './suggest'
import type { Variation } from './vary'

/** What of a phrase an answer dances again. */
interface Again {
  readonly events: readonly Event[]
  /** Where all of its layers go on in their own way. */
  readonly anew?: Span
  /** Its feet stay as they are, and nothing else does. */
  readonly isOfFeet?: true
}

/** What answers a phrase. */
export interface Answers {
  readonly ways: readonly Variation[]
  /** What the plainest one runs into, where there is none. */
  readonly inTheWay?: string
}

/** How a phrase is answered: what it takes over; undefined where it can't. */
interface Kind {
  readonly words: string
  readonly again: (phrase: Phrase, half: Tick | undefined) => Again | undefined
}

const beginning = ({ events }: Phrase, half: Tick | undefined): Again | undefined =>
  half && { events: events.filter(({ at }) => at < half), anew: { at: half, length: half } }

const ending = ({ events }: Phrase, half: Tick | undefined): Again | undefined =>
  half && { events: events.filter(({ at }) => at >= half), anew: { at: tick(0), length: half } }

/** The feet, where there is more than them. */
function feet({ events }: Phrase): Again | undefined {
  const own = events.filter(({ layer }) => layer === 'feet')
  return own.length > 0 && own.length < events.length ? { events: own, isOfFeet: true } : undefined
}

const fromOther = (again: Again | undefined): Again | undefined =>
  again && { ...again, events: again.events.map(mirrorEvent) }

const KINDS: readonly Kind[] = [
  { words: 'the same beginning, another ending', again: beginning },
  {
    words: 'its beginning from the other side, another ending',
    again: (phrase, half) => fromOther(beginning(phrase, half)),
  },
  { words: 'another beginning, the same ending', again: ending },
  { words: 'the same feet under something else', again: feet },
  {
    words: 'its feet from the other side under something else',
    again: (phrase) => fromOther(feet(phrase)),
  },
  {
    words: 'the same from the other side, but for a step',
    again: (phrase) => fromOther({ events: phrase.events }),
  },
]

/**
 * Phrases that answer the one a pass dances, each behind it: the same from the other side, and new
 * phrases that share a half or the feet with it and go on in their own way. None brings a fault, a
 * snag or a caution, and each ends as asked.
 */
export function answersTo(
  combination: Combination,
  wish: PassWish,
  base: Vocabulary,
  house: House,
): Answers {
  const meant = asAsked(combination, wish)
  const vocabulary = vocabularyFor(combination, base)
  const phrase = phraseDanced(combination, wish.pass)
  if (!phrase || phrase.events.length === 0) return { ways: [] }
  const before = checkCombination(meant, base, house)
  const inTheWay: string[] = []
  const isGood = (made: Combination): boolean => {
    const after = checkCombination(made, base, house)
    const [worst] = newFindings(before, after).filter(isUnclean)
    if (worst) inTheWay.push(findingText(worst, house.units))
    return !worst && endsAsAsked(after, wish)
  }
  const again: Edit = (one) => turnPass(wish.pass + 1)(repeatPass(wish.pass)(one))
  const mirrored = madeBy(again, meant)
  const composed = isOfMovesOnly(phrase)
    ? KINDS.flatMap((kind, i): readonly Variation[] => {
        const again = kind.again(phrase, halfOf(phrase, vocabulary))
        if (!again || again.events.length === 0) return []
        return answered(meant, { phrase, again, words: kind.words, i }, wish, base, house)
      })
    : []
  const ways = [
    ...(mirrored ? [{ words: 'the same from the other side', combination: mirrored }] : []),
    ...composed,
  ].flatMap((way: Variation) =>
    isGood(way.combination) ? [{ ...way, combination: asItWas(way.combination, combination) }] : [],
  )
  const [first] = inTheWay
  return { ways, ...(ways.length === 0 && first !== undefined && { inTheWay: first }) }
}

/** A new phrase behind with what is danced again in it, and the rest of its layers composed. */
function answered(
  combination: Combination,
  {
    phrase,
    again,
    words,
    i,
  }: {
    readonly phrase: Phrase
    readonly again: Again
    readonly words: string
    readonly i: number
  },
  wish: PassWish,
  base: Vocabulary,
  house: House,
): readonly Variation[] {
  const id = `answer ${i}`
  const isMirrored = combination.order[wish.pass]?.mirrored ?? false
  const begun = madeBy(addPhrase(id, wish.pass, phrase.counts), combination)
  // There is no room for another phrase.
  if (!begun) return []
  const withAgain = changePhrase(id, (one) => ({ ...one, events: withOwnIds(again.events, id) }))(
    begun,
  )
  const pass = wish.pass + 1
  const start = isMirrored ? turnPass(pass)(withAgain) : withAgain
  // Feet that are danced again are led to what follows.
  const mended = again.anew ? undefined : mendedIn(start, [id], wish.end ?? 'faults', base, house)
  // All of it is there already: what is new is the step.
  if (!again.anew && !again.isOfFeet && !mended) return []
  const layers = LAYERS.filter(
    (layer) =>
      (again.anew || (again.isOfFeet && layer !== 'feet')) &&
      phrase.events.some((event) => event.layer === layer),
  )
  const said: string[] = mended ? [`Feet: ${mended.words}`] : []
  let made = mended?.combination ?? start
  for (const layer of layers) {
    if (gapsOf(made, pass, layer, vocabularyFor(made, base), again.anew).length === 0) continue
    // Its end is the feet's, and they come first: without them there is nothing to go on with.
    const end = layer === 'feet' ? wish.end : undefined
    const own = { ...wish, pass, layer, end, within: again.anew, seed: wish.seed + 17 * i }
    const [filled] = waysToFill(made, own, base, house, 1)
    if (!filled && layer === 'feet') return []
    if (!filled) continue
    said.push(`${capital(layer)}: ${filled.names.join(', ')}`)
    made = filled.combination
  }
  return said.length > 0 ? [{ words, why: said.join('. '), combination: made }] : []
}
