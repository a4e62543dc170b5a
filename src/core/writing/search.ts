import { Direction, type FootAction, factsOf, mirrorFootAction, Primitive } from '../body/feet'
import { LAYERS, type Layer } from '../body/layers'
import {
  ArmPlace,
  Compass,
  compassWord,
  Gaze,
  LegPlace,
  ShoulderPlace,
  shoulderName,
  TrunkPlace,
  trunkName,
} from '../body/places'
import type { Side } from '../body/side'
import type { Event } from '../combination/combination'
import { nameOf, sideOf } from '../combination/names'
import { onSide, whatOf } from '../combination/whatOf'
import type { Family, Move } from '../moves/move'
import type { Vocabulary } from '../moves/vocabulary'
import { folded } from '../record/folded'
import { isThere, placesNeeded } from '../simulate/places'
import { dance } from '../simulate/primitives'
import type { BodyState } from '../simulate/state'
import type { Tempo } from '../time/tempo'
import { COUNT, type Tick } from '../time/time'
import { steady } from '../time/timeMap'
import type { What } from '../what/kinds'
import type { Places } from '../what/places'

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

/** What is known about the place where something is to be written. */
export interface Wanted {
  readonly layer: Layer
  /** The side meant where none is typed: the free foot, or the lead side. */
  readonly side: Side
  readonly families: readonly Family[]
  /** What else decides whether it fits; without it only names and families count. */
  readonly here?: Here | undefined
}

/** The place something would be written at. */
export interface Here {
  /** The body as it comes there. */
  readonly state: BodyState
  readonly places: Places
  readonly at: Tick
  /** Ticks until the layer has something else, or the phrase ends. */
  readonly room: number
  readonly tempo: Tempo
  /** What was placed lately, the last one first: ids of offers without their side. */
  readonly recent: readonly string[]
}

interface Entry extends Written {
  /** The words, folded for searching. */
  readonly names: readonly string[]
}

interface Written {
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

/** The way a step is most often meant, offered first. */
const COMMON_WAY: Readonly<Partial<Record<Primitive, Direction>>> = {
  step: 'side',
  touch: 'together',
  heel: 'forward',
  stamp: 'in-place',
  sweep: 'side',
  drag: 'together',
  brush: 'forward',
  kick: 'forward',
  lift: 'forward',
  leap: 'side',
  press: 'forward',
}

function footEntries(): readonly Written[] {
  return Primitive.options.flatMap((primitive) => {
    const facts = factsOf(primitive)
    const base = { primitive, ...(facts.foot && { foot: 'R' as const }) }
    const rank = (COMMON_STEPS.indexOf(primitive) + 100) % 100
    const entry = (action: object, words: string, hint: string): Written => ({
      what: { kind: 'foot', action: { ...base, ...action } },
      words: [words],
      hint,
      length: COUNT,
      families: [],
      rank,
    })
    const hint = HINTS[primitive] ?? weightHint[facts.needs] ?? ''
    if (primitive === 'jump')
      return [
        ...(['both', 'out', 'in', 'R'] as const).map((jump) =>
          entry({ jump }, `jump ${jump === 'R' ? 'side' : jump}`, hint),
        ),
        ...(facts.travels ?? []).map((direction) =>
          entry({ jump: 'both', direction }, `jump ${direction}`, hint),
        ),
      ]
    if (primitive === 'pivot')
      return [45, 90, 180, 360].map((turn) => entry({ turn }, `pivot ${turn}`, 'turn on one foot'))
    if (facts.direction)
      return Direction.options.map((direction) => {
        const made = entry({ direction }, `${primitive} ${direction}`, hint)
        return direction === COMMON_WAY[primitive] ? { ...made, rank: made.rank - 6 } : made
      })
    const travelled = (facts.travels ?? []).map((direction) =>
      entry({ direction }, `${primitive} ${direction}`, hint),
    )
    return [entry({}, primitive, hint), ...travelled]
  })
}

/** What a step is for, where its weight does not say it. */
const HINTS: Readonly<Partial<Record<Primitive, string>>> = {
  jump: 'lands on both feet',
  press: 'half the weight, and back',
  low: 'low from here on',
  deep: 'deep from here on',
  tall: 'tall from here on',
  toes: 'on the toes from here on',
  up: 'comes up again',
}

const weightHint: Readonly<Record<string, string>> = {
  free: 'takes the weight',
  'free-touch': 'takes no weight',
  'both-on-floor': 'feet stay',
  loaded: 'on the standing foot',
  home: 'the weight comes back',
}

const compassEntries = (layer: 'hips' | 'torso'): readonly Written[] =>
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

const held = (what: What, words: string): Written => ({
  what,
  words: [words],
  hint: 'goes there and stays',
  length: COUNT,
  families: [],
  rank: 32,
})

/** Legs turned at the hip. */
const legEntries = (): readonly Written[] =>
  LegPlace.options.flatMap((place) => [
    held({ kind: 'legs', R: place }, `knee ${place}`),
    held({ kind: 'legs', R: place, L: place }, `both legs ${place}`),
  ])

/** The trunk and the shoulders, held somewhere. */
const trunkEntries = (): readonly Written[] => [
  ...TrunkPlace.options
    .filter((place) => !place.endsWith('L'))
    .map((place) => held({ kind: 'trunk', place }, trunkName[place].replace(' right', ''))),
  ...ShoulderPlace.options.map((place) =>
    held({ kind: 'shoulder', side: 'R', place }, `shoulder ${shoulderName[place]}`),
  ),
]

const armEntries = (): readonly Written[] =>
  ArmPlace.options.flatMap((place): Written[] => [
    { ...armEntry(place), what: { kind: 'arms', R: place, L: place }, words: [`both ${place}`] },
    { ...armEntry(place), what: { kind: 'arms', R: place }, words: [`one arm ${place}`], rank: 40 },
  ])

const armEntry = (place: ArmPlace): Written => ({
  what: { kind: 'arms', R: place, L: place },
  words: [],
  hint: 'arms go there and stay',
  length: COUNT,
  families: [],
  rank: 10,
})

const gazeEntries = (): readonly Written[] =>
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
  'corner-R': 'look corner',
  'back-R': 'look back',
  'down-R': 'look down to the foot',
  hand: 'look at the hand that moves',
  audience: 'look at the audience',
}

const moveEntry = (move: Move): Written => ({
  what: whatOf(move),
  words: [move.name, ...move.aka],
  hint: move.aka[0] ?? '',
  length: move.length,
  families: move.families,
  rank: 20 + move.demand,
})

const OWN_ENTRIES: Readonly<Record<Layer, () => readonly Written[]>> = {
  feet: footEntries,
  legs: () => legEntries(),
  hips: () => compassEntries('hips'),
  torso: () => [...compassEntries('torso'), ...trunkEntries()],
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
  const others: Written[] = []
  for (const move of vocabulary.moves.filter((row) => row.layer === layer)) {
    const plain = own.find(({ what }) => targetOf(what) === plainTarget(move))
    // A move that is nothing but a place is offered as that place, under all its names.
    if (plain) Object.assign(plain, merged(plain, move))
    else others.push(moveEntry(move))
  }
  const entries = [...own, ...others].map((entry) => ({
    ...entry,
    names: entry.words.map((words) => wordsIn(words).join(' ')),
  }))
  known.set(layer, entries)
  return entries
}

const merged = (entry: Written, move: Move): Written => ({
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

const wordsIn = (text: string): readonly string[] =>
  folded(text)
    .split(/[\s,]+/)
    .filter(Boolean)

const SIDE_WORDS: ReadonlyMap<string, Side> = new Map([
  ['r', 'R'],
  ['right', 'R'],
  ['l', 'L'],
  ['left', 'L'],
])

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
  const tokens = wordsIn(query)
  const typed = tokens.map((token) => SIDE_WORDS.get(token)).find((side) => side !== undefined)
  const side = typed ?? wanted.side
  const words = tokens.filter((token) => !SIDE_WORDS.get(token))
  const found = entriesOf(vocabulary, wanted.layer).flatMap((entry) => {
    const named = scoreOf(entry, words, wanted)
    const score = named === undefined ? undefined : named + fitOf(entry, side, wanted, vocabulary)
    // Who types a side wants something that has one.
    const sided = typed && sideOf(entry.what) ? 6 : 0
    return score === undefined ? [] : [{ entry, score: score + sided }]
  })
  found.sort((a, b) => b.score - a.score)
  const pair = wanted.layer === 'arms' ? armPair(query) : undefined
  const offers = found
    .slice(0, most)
    .map(({ entry }) => offer(entry, side, wanted.layer, vocabulary))
  const own = pair ? [pairOffer(pair, vocabulary), ...offers] : offers
  return [...own, ...elsewhere(words, side, wanted, vocabulary).slice(0, most - own.length)]
}

/** What is called so on the other layers: a name is looked for where the cursor stands, and meant wherever it is. */
function elsewhere(
  words: readonly string[],
  side: Side,
  wanted: Wanted,
  vocabulary: Vocabulary,
): readonly Offer[] {
  if (words.join('').length < 3) return []
  return LAYERS.filter((layer) => layer !== wanted.layer)
    .flatMap((layer) =>
      entriesOf(vocabulary, layer).flatMap((entry) => {
        const score = scoreOf(entry, words, wanted)
        return score === undefined ? [] : [{ entry, layer, score }]
      }),
    )
    .sort((a, b) => b.score - a.score)
    .map(({ entry, layer }) => offer(entry, side, layer, vocabulary))
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

/** Worth of fitting: the foot is right, the place is right, there is time, it was used lately. */
const FIT = { foot: -14, place: -4, room: -2, fast: -3, recent: 3 } as const

/** How well something fits where it would stand; 0 for what fits, below for what does not. */
function fitOf(entry: Entry, side: Side, { here }: Wanted, vocabulary: Vocabulary): number {
  if (!here) return 0
  const what = onSide(entry.what, side)
  const move = what.kind === 'move' ? vocabulary.find(what.move) : undefined
  const first = what.kind === 'foot' ? what.action : firstAction(move, side)
  let score = recentScore(entry, here)
  if (first && dance(here.state, first, here.at).fault) score += FIT.foot
  if (entry.length > here.room) score += FIT.room
  if (!move) return score
  if (!isThere(here.places, placesNeeded(move, what))) score += FIT.place
  const seconds = steady(here.tempo).secondsAt(Math.min(entry.length, here.room))
  const needed = move.kind === 'texture' ? 0 : move.fastest_s
  return seconds < needed * 0.8 ? score + FIT.fast : score
}

/** Whether a move can be danced from what comes before it, in the room and the time there is. */
export const fits = (move: Move, wanted: Wanted, vocabulary: Vocabulary): boolean =>
  fitOf(
    { ...moveEntry(move), names: [] },
    wanted.side,
    { ...wanted, here: wanted.here && { ...wanted.here, recent: [] } },
    vocabulary,
  ) >= 0

const recentScore = (entry: Entry, { recent }: Here): number => {
  const place = recent.indexOf(idOfKind(entry.what))
  return place < 0 ? 0 : FIT.recent / (1 + place)
}

/** What is the same on both sides: one id for `hip-drop R` and `hip-drop L`. */
export const idOfKind = (what: What): string => JSON.stringify(onSide(what, 'R'))

function firstAction(move: Move | undefined, side: Side): FootAction | undefined {
  const action = move?.pattern[0]?.action
  return action && (side === 'R' ? action : mirrorFootAction(action))
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
