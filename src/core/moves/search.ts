import { Direction, factsOf, Primitive } from '../body/feet'
import { ArmPlace, Compass, compassWord, Gaze } from '../body/places'
import type { Side } from '../body/side'
import type { Event, What } from '../combination/combination'
import { mirrorWhat } from '../combination/mirror'
import { nameOf, sideOf } from '../combination/names'
import { COUNT, type Tick } from '../time/time'
import type { Family, Layer, Move } from './move'
import type { Vocabulary } from './vocabulary'

/** Something that can be placed, with the side it would be placed on. */
export interface Offer {
  readonly id: string
  readonly name: string
  readonly hint: string
  readonly what: What
  /** How long it usually lasts. */
  readonly length: Tick
}

/** What is known about the place where something is to be written. */
export interface Wanted {
  readonly layer: Layer
  /** The side meant where none is typed: the free foot, or the lead side. */
  readonly side: Side
  readonly families: readonly Family[]
}

/** Lower case, without accents, hyphens and apostrophes, so that `ʻuwehe` is found as uwehe. */
export const folded = (text: string): string =>
  text
    .toLowerCase()
    .normalize('NFD')
    .replace(/[\u0300-\u036f'’ʻʼ]/g, '')
    .replace(/[-/·]/g, ' ')
    .trim()

interface Entry {
  readonly what: What
  /** Names it goes by, the best known first. */
  readonly words: readonly string[]
  readonly hint: string
  readonly length: Tick
  readonly families: readonly Family[]
  /** Among equals the lower comes first: single steps before figures, plain before rare. */
  readonly rank: number
}

const COMMON_STEPS = ['step', 'touch', 'close', 'hold', 'sway', 'kick', 'heel', 'pivot']

function footEntries(): readonly Entry[] {
  return Primitive.options.flatMap((primitive) => {
    const facts = factsOf(primitive)
    const base = { primitive, ...(facts.foot && { foot: 'R' as const }) }
    const rank = (COMMON_STEPS.indexOf(primitive) + 100) % 100
    const entry = (action: object, words: string, hint: string): Entry => ({
      what: { kind: 'foot', action: { ...base, ...action } },
      words: [words],
      hint,
      length: COUNT,
      families: [],
      rank,
    })
    if (primitive === 'jump')
      return (['both', 'out', 'in', 'R'] as const).map((jump) =>
        entry({ jump }, `jump ${jump === 'R' ? 'side' : jump}`, 'lands on both feet'),
      )
    if (primitive === 'pivot')
      return [45, 90, 180, 360].map((turn) => entry({ turn }, `pivot ${turn}`, 'turn on one foot'))
    if (facts.direction)
      return Direction.options.map((direction) =>
        entry({ direction }, `${primitive} ${direction}`, weightHint[facts.needs] ?? ''),
      )
    return [entry({}, primitive, weightHint[facts.needs] ?? '')]
  })
}

const weightHint: Readonly<Record<string, string>> = {
  free: 'takes the weight',
  'free-touch': 'takes no weight',
  'both-on-floor': 'feet stay',
  loaded: 'on the standing foot',
}

const compassEntries = (layer: 'hips' | 'torso'): readonly Entry[] =>
  Compass.options
    .filter((place) => !place.endsWith('L'))
    .map((place) => ({
      what: { kind: 'at', place },
      words: [
        `${layer === 'hips' ? 'hips' : 'ribs'} ${compassWord[place].replace('right', 'side')}`,
        `at ${place}`,
      ],
      hint: 'goes there and stays',
      length: COUNT,
      families: [],
      rank: 30,
    }))

const armEntries = (): readonly Entry[] =>
  ArmPlace.options.flatMap((place): Entry[] => [
    { ...armEntry(place), what: { kind: 'arms', R: place, L: place }, words: [`both ${place}`] },
    { ...armEntry(place), what: { kind: 'arms', R: place }, words: [`one arm ${place}`], rank: 40 },
  ])

const armEntry = (place: ArmPlace): Entry => ({
  what: { kind: 'arms', R: place, L: place },
  words: [],
  hint: 'arms go there and stay',
  length: COUNT,
  families: [],
  rank: 10,
})

const gazeEntries = (): readonly Entry[] =>
  Gaze.options
    .filter((gaze) => !gaze.endsWith('L'))
    .map((gaze) => ({
      what: { kind: 'look', gaze },
      words: [gazeWords[gaze] ?? `look ${gaze}`],
      hint: 'looks there and stays',
      length: COUNT,
      families: [],
      rank: 10,
    }))

const gazeWords: Readonly<Partial<Record<Gaze, string>>> = {
  R: 'look side',
  'over-R': 'look over shoulder',
  'hand-R': 'look hand',
  'tilt-R': 'head tilt',
}

const moveEntry = (move: Move): Entry => ({
  what: {
    kind: 'move',
    move: move.id,
    ...(move.sided === 'side' && { side: 'R' as const }),
    ...(move.sided === 'direction' && { way: 'cw' as const }),
  },
  words: [move.name, ...move.aka],
  hint: move.aka[0] ?? '',
  length: move.length,
  families: move.families,
  rank: 20 + move.demand,
})

const OWN_ENTRIES: Readonly<Record<Layer, () => readonly Entry[]>> = {
  feet: footEntries,
  hips: () => compassEntries('hips'),
  torso: () => compassEntries('torso'),
  arms: armEntries,
  head: gazeEntries,
}

const entriesByVocabulary = new WeakMap<Vocabulary, Map<Layer, readonly Entry[]>>()

function entriesOf(vocabulary: Vocabulary, layer: Layer): readonly Entry[] {
  const known = entriesByVocabulary.get(vocabulary) ?? new Map<Layer, readonly Entry[]>()
  entriesByVocabulary.set(vocabulary, known)
  const found = known.get(layer)
  if (found) return found
  const own = OWN_ENTRIES[layer]().map((entry) => ({ ...entry }))
  const others: Entry[] = []
  for (const move of vocabulary.moves.filter((row) => row.layer === layer)) {
    const plain = own.find(({ what }) => targetOf(what) === plainTarget(move))
    // A move that is nothing but a place is offered as that place, under all its names.
    if (plain) Object.assign(plain, merged(plain, move))
    else others.push(moveEntry(move))
  }
  const entries = [...own, ...others]
  known.set(layer, entries)
  return entries
}

const merged = (entry: Entry, move: Move): Entry => ({
  ...entry,
  words: [...entry.words, move.name, ...move.aka],
  families: [...entry.families, ...move.families],
})

/** The one place a move goes to, when that is all it does. */
function plainTarget({ motion }: Move): string {
  const [only, ...more] = motion
  if (only?.verb !== 'to' || more.length > 0) return 'none'
  return `${only.arm ?? ''}:${only.place.replace('shoulder-', 'over-')}`
}

function targetOf(what: What): string {
  if (what.kind === 'at') return `:${what.place}`
  if (what.kind === 'look') return `:${what.gaze}`
  return what.kind === 'arms' && what.R === what.L ? `both:${what.R}` : ''
}

const SIDE_WORDS: Readonly<Record<string, Side>> = { r: 'R', right: 'R', l: 'L', left: 'L' }

/**
 * What can be placed on a layer, best match first. A side typed in the query (`r`, `left`)
 * is the side of the offers; for the arms `R high-v, L hips` gives each arm its own place.
 */
export function findOffers(
  query: string,
  wanted: Wanted,
  vocabulary: Vocabulary,
  most = 12,
): readonly Offer[] {
  const tokens = folded(query)
    .split(/[\s,]+/)
    .filter(Boolean)
  const typed = tokens.map((token) => SIDE_WORDS[token]).find((side) => side !== undefined)
  const side = typed ?? wanted.side
  const words = tokens.filter((token) => !SIDE_WORDS[token])
  const found = entriesOf(vocabulary, wanted.layer).flatMap((entry) => {
    const score = scoreOf(entry, words, wanted)
    // Who types a side wants something that has one.
    const sided = typed && sideOf(entry.what) ? 6 : 0
    return score === undefined ? [] : [{ entry, score: score + sided }]
  })
  found.sort((a, b) => b.score - a.score)
  const pair = wanted.layer === 'arms' ? armPair(query) : undefined
  const offers = found
    .slice(0, most)
    .map(({ entry }) => offer(entry, side, wanted.layer, vocabulary))
  return pair ? [pairOffer(pair, vocabulary), ...offers] : offers
}

function offer(entry: Entry, side: Side, layer: Layer, vocabulary: Vocabulary): Offer {
  const has = sideOf(entry.what)
  const what = has !== undefined && has !== side ? mirrorWhat(entry.what) : entry.what
  const event: Pick<Event, 'layer' | 'what'> = { layer, what }
  return {
    id: JSON.stringify(what),
    name: nameOf(event, vocabulary),
    hint: entry.hint,
    what,
    length: entry.length,
  }
}

/** Undefined when a word of the query is nowhere in the entry's names. */
function scoreOf(entry: Entry, words: readonly string[], wanted: Wanted): number | undefined {
  const names = entry.words.map(folded)
  let score = -entry.rank / 10
  if (entry.families.some((family) => wanted.families.includes(family))) score += 2
  for (const word of words) {
    const best = Math.max(...names.map((name, i) => wordScore(name, word) - (i > 0 ? 1 : 0)))
    if (best <= 0) return undefined
    score += best
  }
  if (words.length > 0 && names.includes(words.join(' '))) score += 20
  return score
}

function wordScore(name: string, word: string): number {
  if (name === word) return 12
  if (name.startsWith(word)) return 8
  return name.split(' ').some((part) => part.startsWith(word)) ? 6 : 0
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
    id: JSON.stringify(what),
    name: nameOf({ layer: 'arms', what }, vocabulary),
    hint: 'each arm its own place',
    what,
    length: COUNT,
  }
}
