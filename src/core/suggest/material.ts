import { factsOf } from '../body/feet'
import type { Layer } from '../body/layers'
import { SIDES } from '../body/side'
import { mirrorWhat } from '../combination/mirror'
import { HOLDS } from '../findings/rules/cloth'
import { keyOf } from '../load/things'
import type { Vocabulary } from '../moves/vocabulary'
import { COUNT } from '../time/time'
import { kindOf, type What } from '../what/kinds'
import { idOfKind } from '../writing/fit'
import type { Offer } from '../writing/search'
import type { Slot } from './shapes'

/** What a motif is danced with. */
export interface Motif {
  readonly offer: Offer
  readonly what: What
  /** Of the thing to learn it is. */
  readonly key: string
}

/** What is asked of a motif. */
export interface MotifWish {
  readonly slot: Slot
  readonly layer: Layer
  /** It is also danced to the other side, so it has to have one. */
  readonly isTurned: boolean
  /** How often it comes. */
  readonly times: number
  /** What the phrase has already, by kind. */
  readonly used: ReadonlySet<string>
  /** It turns far already. */
  readonly hasTurned: boolean
  readonly families: readonly string[]
}

/** Of what fits a place, what can be a motif there: in so many counts, with a side where it needs one. */
export function motifsAmong(
  offers: readonly Offer[],
  { slot, layer, isTurned, times, used, hasTurned, families }: MotifWish,
  vocabulary: Vocabulary,
): readonly Motif[] {
  const isOften = times > SPINS_AT_MOST
  return offers.flatMap((offer): readonly Motif[] => {
    const what = inSlot(offer, slot, families, vocabulary)
    if (!what || used.has(idOfKind(what))) return []
    // Round and round is no phrase, and the same figure on the same foot is none either.
    if (
      turnsFar(what, vocabulary) ? hasTurned || isOften : isOften && isOnOneFoot(what, vocabulary)
    )
      return []
    const isOfOneSide = JSON.stringify(mirrorWhat(what)) === JSON.stringify(what)
    if (isTurned && isOfOneSide && layer !== 'feet') return []
    // What goes on and on is laid over a path once, and not to one side and the other.
    if (isTurned && kindOf(what).claim(what, { layer, vocabulary }).kind === 'texture') return []
    return [{ offer, what, key: keyOf({ layer, what }, vocabulary) }]
  })
}

/** Whether it is an accent, or a step that ends something: what a phrase ends on. */
export function isEnding(what: What, layer: Layer, vocabulary: Vocabulary): boolean {
  if (what.kind === 'foot') return ENDS.has(what.action.primitive)
  if (layer === 'arms') return what.kind === 'arms'
  return kindOf(what).claim(what, { layer, vocabulary }).kind === 'accent'
}

const ENDS: ReadonlySet<string> = new Set(['close', 'touch', 'stamp'])

/** Figures that turn this far come so often in a phrase at the most, in degrees (h). */
const FAR = 180
const SPINS_AT_MOST = 2

export function turnsFar(what: What, vocabulary: Vocabulary): boolean {
  const move = what.kind === 'move' ? vocabulary.find(what.move) : undefined
  const turned = move?.pattern.reduce((sum, { action }) => sum + (action.turn ?? 0), 0) ?? 0
  return Math.abs(turned) >= FAR
}

function isOnOneFoot(what: What, vocabulary: Vocabulary): boolean {
  const move = what.kind === 'move' ? vocabulary.find(what.move) : undefined
  return move?.layer === 'feet' && SAME_FOOT.has(move.to) && !STEADY.has(move.id)
}

/** Whether a move is of these families by name, and not only of all of them. */
export function isOfFamily(
  what: What,
  families: readonly string[],
  vocabulary: Vocabulary,
): boolean {
  const move = what.kind === 'move' ? vocabulary.find(what.move) : undefined
  return move?.families.some((one) => families.includes(one)) ?? false
}

/** Figures that end so can be danced again on the same foot. */
const SAME_FOOT: ReadonlySet<string> = new Set(['=', 'both'])
/** Figures that are danced on and on, whichever foot begins (h). */
export const STEADY: ReadonlySet<string> = new Set([
  'march',
  'merengue-march',
  'samba-no-pe',
  'kao-feet',
  'tiny-run',
])

/** What an offer is danced as in so many counts; undefined where that is not its length. */
function inSlot(
  { what, length, layer }: Offer,
  { counts, motif }: Slot,
  families: readonly string[],
  vocabulary: Vocabulary,
): What | undefined {
  const own = length / COUNT
  if (what.kind === 'free' || what.kind === 'stay') return undefined
  if (what.kind === 'foot')
    // A single step closes or joins; what is danced longer is a figure.
    return counts === 1 && own === 1 && SINGLE.has(what.action.primitive) ? what : undefined
  if (layer === 'head' && what.kind === 'look' && motif !== 'a')
    // The head answers by coming home.
    return what.gaze === 'front' ? what : undefined
  if (!isMaterial(layer, what, families, vocabulary)) return undefined
  const { kind } = kindOf(what).claim(what, { layer, vocabulary })
  if (kind === 'texture') return counts >= 2 ? what : undefined
  if (kind === 'place') return counts >= own ? what : undefined
  if (own === counts) return what
  // A short accent is repeated on each of its counts.
  if (kind === 'accent' && what.kind === 'move' && own === 1 && counts <= 4)
    return { ...what, every: COUNT }
  return undefined
}

/**
 * Phrases are made of moves, of the arms' own places and of looks; where a combination says which
 * families it is of, of theirs and of what belongs to all.
 */
export function isMaterial(
  layer: Layer,
  what: What,
  families: readonly string[],
  vocabulary: Vocabulary,
): boolean {
  if (what.kind === 'arms')
    return what.hands === undefined && SIDES.every((side) => FRAMES.has(what[side] ?? ''))
  if (what.kind === 'look') return true
  // What holds a thing is for who carries one.
  if (what.kind !== 'move' || HOLDS.has(what.move)) return false
  const { families: own = [], pattern = [] } = vocabulary.find(what.move) ?? {}
  // A stance is something to dance on, not a figure.
  const lands = pattern.some(({ action }) => factsOf(action.primitive).lands)
  if (layer === 'feet' && !lands) return false
  return (
    families.length === 0 ||
    families.includes('general') ||
    layer === 'head' ||
    own.some((one) => one === 'general' || families.includes(one))
  )
}

/** Places that frame what the body does, in both arms alike or each its own. */
const FRAMES: ReadonlySet<string> = new Set([
  'low',
  'low-v',
  'demi-second',
  'second',
  'high-v',
  'crown',
  'front',
  'hips',
  'diagonal-up',
])

/** Steps that join or end a phrase. */
const SINGLE: ReadonlySet<string> = new Set(['step', 'touch', 'close', 'stamp', 'hold'])
