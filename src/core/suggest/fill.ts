import { uniformFloat64 } from 'pure-rand/distribution/uniformFloat64'
import { xoroshiro128plus } from 'pure-rand/generator/xoroshiro128plus'
import type { Layer } from '../body/layers'
import type { Combination } from '../combination/combination'
import { dancedIn } from '../combination/lengths'
import { nameOf } from '../combination/names'
import { checkCombination } from '../findings/check'
import type { Checked } from '../findings/checked'
import { severityOf } from '../findings/finding'
import type { House } from '../house/house'
import { type Vocabulary, vocabularyFor } from '../moves/vocabulary'
import { COUNT, endOf, type Tick, tick } from '../time/time'
import { idOfKind } from '../writing/fit'
import { type Gap, newFindings, offersFor, placed } from './suggest'

/** A whole phrase of one layer, filled. */
export interface Filling {
  /** What was put in, in order. */
  readonly names: readonly string[]
  readonly combination: Combination
}

export interface FillWish {
  readonly pass: number
  readonly layer: Layer
  /** The same number gives the same proposals. */
  readonly seed: number
}

const MOST_FILLINGS = 5
const ATTEMPTS = 24
/** Of the best offers for a place, how many may be drawn, and how many are tried one after another. */
const DRAWN_FROM = 14
const TRIED = 4
/** A filling that shares more than this with another is not different from it. */
const MOST_SHARED = 0.6

/** A stream of numbers from 0 up to but not with 1: the same for the same seed. */
export function numbersFrom(seed: number): () => number {
  const source = xoroshiro128plus(seed)
  const next = () => uniformFloat64(source)
  // The first ones of near seeds are near each other.
  for (let i = 0; i < WARM_UP; i++) next()
  return next
}

const WARM_UP = 8

/**
 * Up to five ways to fill what is empty on one layer of a phrase: each checked as it grows,
 * none with a fault or a snag that was not there, and different from each other.
 */
export function fillPhrase(
  combination: Combination,
  wish: FillWish,
  base: Vocabulary,
  house: House,
): readonly Filling[] {
  const vocabulary = vocabularyFor(combination, base)
  const before = checkCombination(combination, base, house)
  const fillings: (Filling & { readonly kinds: readonly string[] })[] = []
  for (let attempt = 0; attempt < ATTEMPTS && fillings.length < MOST_FILLINGS; attempt++) {
    const next = numbersFrom(wish.seed * 1009 + attempt)
    const made = grow(combination, before, wish, next, vocabulary, base, house)
    if (!made || fillings.some(({ kinds }) => sharedWith(kinds, made.kinds) > MOST_SHARED)) continue
    fillings.push(made)
  }
  return fillings.map(({ names, combination: filled }) => ({ names, combination: filled }))
}

function sharedWith(a: readonly string[], b: readonly string[]): number {
  const same = a.filter((kind, i) => b[i] === kind).length
  return same / Math.max(a.length, b.length, 1)
}

function grow(
  combination: Combination,
  before: Checked,
  { pass, layer, seed }: FillWish,
  next: () => number,
  vocabulary: Vocabulary,
  base: Vocabulary,
  house: House,
) {
  let now = combination
  let checked = before
  const names: string[] = []
  const kinds: string[] = []
  let last: string | undefined
  for (
    let gap = firstGap(now, pass, layer, vocabulary);
    gap;
    gap = firstGap(now, pass, layer, vocabulary)
  ) {
    const offers = offersFor(checked, gap, vocabulary, DRAWN_FROM, last ? [last] : []).filter(
      ({ length }) => length <= (gap?.length ?? 0),
    )
    const left = [...offers]
    let isPlaced = false
    for (let tried = 0; tried < TRIED && left.length > 0 && !isPlaced; tried++) {
      // The better ones are drawn more often.
      const [offer] = left.splice(Math.floor(next() ** 1.6 * left.length), 1)
      if (!offer) break
      const id = `fill-${seed}-${pass}-${layer}-${gap.at}`
      const { event, changed } = placed(now, gap, offer, id)
      const after = checkCombination(changed, base, house)
      const isBad = newFindings(checked, after).some((finding) => {
        const severity = severityOf(finding)
        // Whether it joins is asked of the whole, below.
        return severity === 'fault' || (severity === 'snag' && !finding.code.startsWith('join.'))
      })
      if (isBad) continue
      now = changed
      checked = after
      last = idOfKind(offer.what)
      kinds.push(last)
      names.push(nameOf(event, vocabulary))
      isPlaced = true
    }
    if (!isPlaced) return undefined
  }
  const worsens = newFindings(before, checked).some((finding) => severityOf(finding) === 'snag')
  return names.length === 0 || worsens ? undefined : { names, kinds, combination: now }
}

/** The first stretch of a phrase in which a layer has nothing. */
export function firstGap(
  combination: Combination,
  pass: number,
  layer: Layer,
  vocabulary: Vocabulary,
): Gap | undefined {
  const phrase = combination.phrases.find(({ id }) => id === combination.order[pass]?.phrase)
  if (!phrase) return undefined
  const end = phrase.counts * COUNT
  const taken = dancedIn(phrase, vocabulary)
    .filter((event) => event.layer === layer && endOf(event) > 0)
    .sort((a, b) => a.at - b.at)
  let at: Tick = tick(0)
  for (const event of taken) {
    if (event.at - at >= COUNT) return { pass, layer, at, length: tick(event.at - at) }
    at = tick(Math.max(at, endOf(event)))
  }
  return end - at >= COUNT ? { pass, layer, at, length: tick(end - at) } : undefined
}
