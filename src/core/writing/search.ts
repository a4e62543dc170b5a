import { LAYERS, type Layer } from '../body/layers'
import { ArmPlace } from '../body/places'
import type { Side } from '../body/side'
import type { Event } from '../combination/combination'
import { nameOf, sideOf } from '../combination/names'
import { onSide } from '../combination/whatOf'
import { nearest } from '../entry/names'
import type { Vocabulary } from '../moves/vocabulary'
import { COUNT, type Tick } from '../time/time'
import type { What } from '../what/kinds'
import { fitOf } from './fit'
import type { Wanted } from './wanted'
import { type Entry, entriesOf, wordsIn } from './written'

/** Something that can be placed, with the side it would be placed on. */
export interface Offer {
  readonly id: string
  /** The layer it belongs to; with a name typed it may be another one than was asked for. */
  readonly layer: Layer
  readonly name: string
  readonly hint: string
  readonly what: What
  /** How long it usually lasts. */
  readonly length: Tick
}

const SIDE_WORDS: ReadonlyMap<string, Side> = new Map([
  ['r', 'R'],
  ['right', 'R'],
  ['l', 'L'],
  ['left', 'L'],
])

/** Who types a side wants something that has one. */
const SIDED = 6

/**
 * What can be placed on a layer, best match first. A side typed in the query (`r`, `left`)
 * is the side of the offers; for the arms `R high-v, L hips` gives each arm its own place. Where
 * nothing is called so, what nearly is.
 */
export function findOffers(
  query: string,
  wanted: Wanted,
  vocabulary: Vocabulary,
  most = 12,
): readonly Offer[] {
  const found = offersFor(query, wanted, vocabulary, most)
  if (found.length > 0) return found
  // Nothing is called so: what nearly is.
  const near = nearTo(wordsIn(query), vocabulary)
  return near ? offersFor(near, wanted, vocabulary, most) : []
}

/** A name that comes near some words, or near each of them; undefined where there is none. */
function nearTo(words: readonly string[], vocabulary: Vocabulary): string | undefined {
  const names = LAYERS.flatMap((layer) =>
    entriesOf(vocabulary, layer).flatMap((entry) => entry.names),
  )
  const [whole] = nearest(words.join(' '), names, 1)
  if (whole !== undefined) return whole
  const known = new Set(names.flatMap((name) => name.split(' ')))
  const near = words.map((word) =>
    SIDE_WORDS.has(word) || known.has(word) ? word : nearest(word, [...known], 1)[0],
  )
  return near.some((word) => word === undefined) ? undefined : near.join(' ')
}

function offersFor(
  query: string,
  wanted: Wanted,
  vocabulary: Vocabulary,
  most: number,
): readonly Offer[] {
  const tokens = wordsIn(query)
  const typed = tokens.map((token) => SIDE_WORDS.get(token)).find((side) => side !== undefined)
  const side = typed ?? wanted.side
  const words = tokens.filter((token) => !SIDE_WORDS.get(token))
  const found = entriesOf(vocabulary, wanted.layer).flatMap((entry) => {
    const named = scoreOf(entry, words, wanted)
    const score = named === undefined ? undefined : named + fitOf(entry, side, wanted, vocabulary)
    const sided = typed && sideOf(entry.what) ? SIDED : 0
    return score === undefined ? [] : [{ entry, score: score + sided }]
  })
  found.sort((a, b) => b.score - a.score)
  const pair = wanted.layer === 'arms' ? armPair(query) : undefined
  const offers = found
    .slice(0, most)
    .map(({ entry }) => offer(entry, side, wanted.layer, vocabulary))
  const own = pair ? [pairOffer(pair, vocabulary), ...offers] : offers
  return [...own, ...elsewhere(words, typed, wanted, vocabulary).slice(0, most - own.length)]
}

/** What is called so on the other layers: a name is looked for where the cursor stands, and meant wherever it is. */
function elsewhere(
  words: readonly string[],
  typed: Side | undefined,
  wanted: Wanted,
  vocabulary: Vocabulary,
): readonly Offer[] {
  if (words.join('').length < 3) return []
  return LAYERS.filter((layer) => layer !== wanted.layer)
    .flatMap((layer) =>
      entriesOf(vocabulary, layer).flatMap((entry) => {
        const score = scoreOf(entry, words, wanted)
        const sided = typed && sideOf(entry.what) ? SIDED : 0
        return score === undefined ? [] : [{ entry, layer, score: score + sided }]
      }),
    )
    .sort((a, b) => b.score - a.score)
    .map(({ entry, layer }) => offer(entry, typed ?? wanted.side, layer, vocabulary))
}

function offer(entry: Entry, side: Side, layer: Layer, vocabulary: Vocabulary): Offer {
  const what = onSide(entry.what, side)
  const event: Pick<Event, 'layer' | 'what'> = { layer, what }
  return {
    id: `${layer} ${JSON.stringify(what)}`,
    layer,
    name: nameOf(event, vocabulary),
    hint: entry.hint,
    what,
    length: entry.length,
  }
}

/** Undefined when a word of the query is nowhere in the entry's names. */
function scoreOf(entry: Entry, words: readonly string[], wanted: Wanted): number | undefined {
  const { names } = entry
  // Among equals the shorter name is the plainer move.
  let score = -entry.rank / 10 - (names[0]?.length ?? 0) / 50
  if (entry.families.some((family) => wanted.families.includes(family))) score += 1
  for (const word of words) {
    const best = Math.max(...names.map((name, i) => wordScore(name, word) - (i > 0 ? 0.5 : 0)))
    if (best <= 0) return undefined
    score += best
  }
  // A name that is used up by what was typed is meant more than one that only holds it.
  const typed = words.join(' ').length
  const holding = names.filter((name) => words.every((word) => wordScore(name, word) > 0))
  score += Math.max(0, ...holding.map((name) => Math.min(1, typed / name.length))) * 6
  if (words.length > 0 && names.includes(words.join(' '))) score += 20
  return score
}

function wordScore(name: string, word: string): number {
  if (name === word) return 12
  if (name.startsWith(word)) return 8
  const parts = name.split(' ')
  if (parts.includes(word)) return 7
  return parts.some((part) => part.startsWith(word)) ? 6 : 0
}

function armPair(query: string): { R: ArmPlace; L: ArmPlace } | undefined {
  const found = /^\s*(r|l)\w*\s+([a-z-]+)[\s,;/]+(r|l)\w*\s+([a-z-]+)\s*$/i.exec(query)
  if (!found) return undefined
  const [, one, place, two, other] = found
  const first = ArmPlace.safeParse(place)
  const second = ArmPlace.safeParse(other)
  if (!first.success || !second.success || one?.toLowerCase() === two?.toLowerCase())
    return undefined
  return one?.toLowerCase() === 'r'
    ? { R: first.data, L: second.data }
    : { R: second.data, L: first.data }
}

function pairOffer(pair: { R: ArmPlace; L: ArmPlace }, vocabulary: Vocabulary): Offer {
  const what: What = { kind: 'arms', ...pair }
  return {
    id: `arms ${JSON.stringify(what)}`,
    layer: 'arms',
    name: nameOf({ layer: 'arms', what }, vocabulary),
    hint: 'each arm its own place',
    what,
    length: COUNT,
  }
}
