import type { Combination, Event, Phrase } from '../combination/combination'
import { mirrorEvent } from '../combination/mirror'
import { freeName } from '../combination/names'
import { phraseDanced } from '../combination/passes'
import { changePhrase, type Edit, madeBy } from '../edits/edit'
import { bringUsed } from '../edits/edits'
import { addPhrase, setCounts } from '../edits/phrases'
import { checkCombination } from '../findings/check'
import type { Checked } from '../findings/checked'
import type { House } from '../house/house'
import type { Vocabulary } from '../moves/vocabulary'
import { asAsked, asItWas, endsAsAsked, type PassWish } from './asked'
import { waysToFill } from './fill'
import { isOfMovesOnly, withOwnIds } from './halves'
import { mendedIn } from './mend'
import { numbersFrom } from './numbers'
import { breaks, isTrouble, newFindings } from './suggest'
import type { Variation } from './vary'

/** A phrase of another combination that could be danced here. */
interface Candidate {
  readonly of: Combination
  readonly phrase: Phrase
}

const MOST_MIXES = 5
/** Ways that are tried, at the most. */
const ATTEMPTS = 40
/** A tempo this far from this one's is another dance (h). */
const NEAR_TEMPO = 0.25
/** Repairs and links that are looked for in all. */
const MOST_LOOKED_FOR = 9
/** A link between two phrases has so many counts. */
const LINK_COUNTS = 4

/**
 * Phrases of other combinations joined to this one: one or two behind the phrase of a pass, or two
 * or three in the place of an empty one. Each border meets as it is, from the other side, by a step
 * danced otherwise, or over a link of four counts; none brings a fault or a snag.
 * @param shelf the combinations they may come from
 */
export function mixesOf(
  combination: Combination,
  wish: PassWish,
  shelf: readonly Combination[],
  base: Vocabulary,
  house: House,
): readonly Variation[] {
  const meant = asAsked(combination, wish)
  const phrase = phraseDanced(meant, wish.pass)
  const candidates = candidatesOf(meant, shelf)
  if (!phrase || meant.parts || candidates.length === 0) return []
  const isEmpty = phrase.events.length === 0
  const before = checkCombination(meant, base, house)
  const found: (Variation & { readonly key: string })[] = []
  const joining: Joining = { wish, before, base, house, firsts: new Map(), left: MOST_LOOKED_FOR }
  for (let attempt = 0; attempt < ATTEMPTS && found.length < MOST_MIXES; attempt++) {
    const next = numbersFrom(wish.seed * 1013 + attempt)
    const many = (isEmpty ? 2 : 1) + (next() < 0.5 ? 1 : 0)
    const chosen = drawnFrom(candidates, many, next)
    const key = chosen.map((one) => one.phrase.id).join()
    if (found.some((one) => one.key === key)) continue
    const made = joined(meant, chosen, joining)
    if (made) found.push({ ...made, key, combination: asItWas(made.combination, combination) })
  }
  return found.map(({ words, combination: made }) => ({ words, combination: made }))
}

/** Phrases of one dancer with moves alone, near this one's tempo, and of its family where there are any. */
function candidatesOf(
  { id, families, tempo, phrases: own }: Combination,
  shelf: readonly Combination[],
): readonly Candidate[] {
  const here = new Set(own.map(({ events }) => danceKey(events)))
  const near = shelf.filter(
    (of) =>
      of.id !== id && !of.parts && !of.carried && Math.abs(of.tempo / tempo - 1) <= NEAR_TEMPO,
  )
  const akin = near.filter((of) => of.families.some((one) => families.includes(one)))
  // Where nothing of her shelf is of its family, all of it may be fused.
  return (akin.length > 0 ? akin : near)
    .flatMap((of) =>
      of.phrases
        .filter(
          (phrase) =>
            isOfMovesOnly(phrase) &&
            phrase.events.some(({ layer }) => layer === 'feet') &&
            phrase.events.every(({ at }) => at >= 0) &&
            of.order.some((entry) => entry.phrase === phrase.id),
        )
        .map((phrase) => ({ of, phrase })),
    )
    .filter(({ phrase }) => !here.has(danceKey(phrase.events)))
}

const danceKey = (events: readonly Event[]): string =>
  JSON.stringify(events.map(({ id: _, ...event }) => event))

/** Some of them, each once. */
function drawnFrom<T>(list: readonly T[], many: number, next: () => number): readonly T[] {
  const left = [...list]
  return Array.from({ length: Math.min(many, left.length) }, () =>
    left.splice(Math.floor(next() * left.length), 1),
  ).flat()
}

interface Joining {
  readonly wish: PassWish
  readonly before: Checked
  readonly base: Vocabulary
  readonly house: House
  /** What came of a phrase that was tried as the first one. */
  readonly firsts: Map<string, Mixed | undefined>
  /** How many more repairs and links may be looked for: they take longest. */
  left: number
}

/** The phrases one behind the other; undefined where they can't be joined. */
function joined(
  combination: Combination,
  chosen: readonly Candidate[],
  joining: Joining,
): Variation | undefined {
  const { wish, before } = joining
  const first = phraseDanced(combination, wish.pass)
  let now: Mixed = { combination, pass: wish.pass, words: [] }
  for (const [i, candidate] of chosen.entries()) {
    const inPlace = i === 0 && first?.events.length === 0
    const { id } = candidate.phrase
    const isKnown = i === 0 && joining.firsts.has(id)
    const step = isKnown ? joining.firsts.get(id) : withPhrase(now, candidate, i, inPlace, joining)
    if (i === 0) joining.firsts.set(id, step)
    if (!step) return undefined
    now = step
  }
  const after = checkCombination(now.combination, joining.base, joining.house)
  if (!endsAsAsked(after, wish) || newFindings(before, after).some(isTrouble)) return undefined
  const from = first && first.events.length > 0 ? [`phrase ${first.name}`] : []
  return { words: [...from, ...now.words].join(', then '), combination: now.combination }
}

interface Mixed {
  readonly combination: Combination
  /** The last pass that was mixed in. */
  readonly pass: number
  readonly words: readonly string[]
}

/** With one more phrase: as it is, from the other side, over a step danced otherwise, or over a link. */
function withPhrase(
  { combination, pass, words }: Mixed,
  { of, phrase }: Candidate,
  i: number,
  inPlace: boolean,
  joining: Joining,
): Mixed | undefined {
  const { before, base, house, wish } = joining
  const said = `${phrase.name} of “${of.title}”`
  const isGood = (made: Combination) => !breaks(before, checkCombination(made, base, house))
  const put = (behind: number, isOther: boolean): Edit =>
    putIn({ of, phrase }, { id: `mix ${wish.seed} ${i}`, behind, inPlace, isOther })
  const at = inPlace ? pass : pass + 1
  const plain = madeBy(put(pass, false), combination)
  // There is no room for so many counts.
  if (!plain) return undefined
  if (isGood(plain)) return { combination: plain, pass: at, words: [...words, said] }
  const other = put(pass, true)(combination)
  if (isGood(other))
    return { combination: other, pass: at, words: [...words, `${said} from the other side`] }
  if (joining.left-- <= 0) return undefined
  const both = [combination.order[pass]?.phrase, plain.order[at]?.phrase]
  const mended = mendedIn(plain, both, 'faults', base, house)
  if (mended && isGood(mended.combination))
    return {
      combination: mended.combination,
      pass: at,
      words: [...words, `${said} (${mended.words})`],
    }
  if (inPlace || joining.left-- <= 0) return undefined
  // A link between the two, of figures or steps.
  const linkId = `mix ${wish.seed} ${i} link`
  const name = freeName(combination.phrases, 'link')
  const around = madeBy((one) => {
    const empty = addPhrase(linkId, pass, LINK_COUNTS)(one)
    return put(pass + 1, false)(changePhrase(linkId, (link) => ({ ...link, name }))(empty))
  }, combination)
  if (!around) return undefined
  const asked = { pass: pass + 1, layer: 'feet' as const, seed: wish.seed + i }
  const linked = waysToFill(around, asked, base, house, 1).find((one) => isGood(one.combination))
  if (!linked) return undefined
  const over = `over a link (${linked.names.join(', ')})`
  return { combination: linked.combination, pass: pass + 2, words: [...words, `${over} ${said}`] }
}

/** A phrase of another combination put behind a pass, or in the place of an empty phrase, with the own moves it needs. */
const putIn =
  (
    { of, phrase }: Candidate,
    {
      id,
      behind,
      inPlace,
      isOther,
    }: {
      readonly id: string
      readonly behind: number
      readonly inPlace: boolean
      readonly isOther: boolean
    },
  ): Edit =>
  (combination) => {
    const isMirrored = combination.order[behind]?.mirrored ?? false
    const own = isOther !== isMirrored ? phrase.events.map(mirrorEvent) : phrase.events
    const events = withOwnIds(own, id)
    const title = phrase.title || of.title
    const target = combination.order[behind]?.phrase ?? ''
    const made = inPlace
      ? changePhrase(target, (one) => ({ ...one, title, events }))(
          setCounts(target, phrase.counts)(combination),
        )
      : changePhrase(id, (one) => ({ ...one, title, events }))(
          addPhrase(id, behind, phrase.counts)(combination),
        )
    return bringUsed(of.moves ?? [])(made)
  }
