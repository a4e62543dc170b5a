import { Direction, factsOf, type Primitive, STEP_WORDS } from '../body/feet'
import { type Hand, HandShape, PalmWay } from '../body/hands'
import type { Layer } from '../body/layers'
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
import { whatOf } from '../combination/whatOf'
import { otherArmNames } from '../entry/armPlaceIn'
import type { Family, Move } from '../moves/move'
import type { Vocabulary } from '../moves/vocabulary'
import { folded } from '../record/folded'
import { COUNT, type Tick, tick } from '../time/time'
import type { What } from '../what/kinds'

/** What can be written, as it is found. */
export interface Entry extends Written {
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
  return STEP_WORDS.flatMap((primitive) => {
    const facts = factsOf(primitive)
    const base = { primitive, ...(facts.foot && { foot: 'R' as const }) }
    const rank = (COMMON_STEPS.indexOf(primitive) + 100) % 100
    const entry = (action: object, words: string, hint: string): Written => ({
      what: { kind: 'foot', action: { ...base, ...action } },
      words: [words, ...(ALSO_CALLED[primitive] ?? [])],
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

/** What else a step is called. */
const ALSO_CALLED: Readonly<Partial<Record<Primitive, readonly string[]>>> = {
  recover: ['release'],
  low: ['plie', 'demi plie', 'bend the knees'],
  deep: ['grand plie', 'sit low'],
  toes: ['releve', 'rise'],
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

/** Hands, their shapes and where the palms look. */
const handEntries = (): readonly Written[] => {
  const both = (hand: Hand, one: string, two: string): readonly Written[] => [
    held({ kind: 'arms', hands: { R: hand } }, one),
    held({ kind: 'arms', hands: { R: hand, L: hand } }, two),
  ]
  return [
    ...HandShape.options.flatMap((shape) =>
      both({ shape }, `one hand ${shape}`, `both hands ${shape}`),
    ),
    ...PalmWay.options.flatMap((palm) => both({ palm }, `palm ${palm}`, `both palms ${palm}`)),
  ]
}

const armEntries = (): readonly Written[] => [
  ...handEntries(),
  ...ArmPlace.options.flatMap((place): Written[] => [
    {
      ...armEntry(place),
      what: { kind: 'arms', R: place, L: place },
      words: [`both ${place}`, ...otherArmNames(place)],
    },
    { ...armEntry(place), what: { kind: 'arms', R: place }, words: [`one arm ${place}`], rank: 40 },
  ]),
]

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
  partner: 'look at the partner',
}

export const moveEntry = (move: Move): Written => ({
  what: whatOf(move),
  words: [move.name, ...move.aka],
  hint: move.aka[0] ?? '',
  length: move.length,
  families: move.families,
  rank: 20 + move.demand,
})

/** Danced as one likes, and staying as it is. */
const FREE: Written = {
  what: { kind: 'free' },
  words: ['free', 'improvise'],
  hint: 'as you like',
  length: tick(4 * COUNT),
  families: [],
  rank: 45,
}
const STAY: Written = {
  what: { kind: 'stay' },
  words: ['stay', 'still'],
  hint: 'stays as it is, and is checked',
  length: tick(4 * COUNT),
  families: [],
  rank: 46,
}

const OWN_ENTRIES: Readonly<Record<Layer, () => readonly Written[]>> = {
  feet: () => [...footEntries(), FREE],
  legs: () => [...legEntries(), STAY],
  hips: () => [...compassEntries('hips'), STAY],
  torso: () => [...compassEntries('torso'), ...trunkEntries(), STAY],
  arms: () => [...armEntries(), FREE, STAY],
  head: () => [...gazeEntries(), FREE, STAY],
}

const entriesByVocabulary = new WeakMap<Vocabulary, Map<Layer, readonly Entry[]>>()

/** All that can be written on a layer. */
export function entriesOf(vocabulary: Vocabulary, layer: Layer): readonly Entry[] {
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
  return what.kind === 'arms' && what.R && what.R === what.L ? `both:${what.R}` : ''
}

/** Words that mean the same as one a move is called by. */
const SAME_WORDS: ReadonlyMap<string, string> = new Map([
  ['8', 'eight'],
  ['8s', 'eight'],
  ['eights', 'eight'],
  ['ribcage', 'rib'],
])

/** The words of a text, folded for searching. */
export const wordsIn = (text: string): readonly string[] =>
  folded(text)
    .split(/[\s,]+/)
    .filter(Boolean)
    .map((word) => SAME_WORDS.get(word) ?? word)
