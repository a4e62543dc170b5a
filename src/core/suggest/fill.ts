import { uniformFloat64 } from 'pure-rand/distribution/uniformFloat64'
import { xoroshiro128plus } from 'pure-rand/generator/xoroshiro128plus'
import { factsOf } from '../body/feet'
import { LAYERS, type Layer } from '../body/layers'
import { SIDES } from '../body/side'
import type { Combination } from '../combination/combination'
import { dancedIn } from '../combination/lengths'
import { mirrorEvent, mirrorWhat } from '../combination/mirror'
import { nameOf, sideOf } from '../combination/names'
import { onSide } from '../combination/whatOf'
import { placeEvent } from '../edits/edits'
import { checkCombination } from '../findings/check'
import type { Checked } from '../findings/checked'
import { severityOf } from '../findings/finding'
import { HOLDS } from '../findings/rules/cloth'
import type { House } from '../house/house'
import { type Vocabulary, vocabularyFor } from '../moves/vocabulary'
import { COUNT, endOf, type Tick, tick } from '../time/time'
import { kindOf, type What } from '../what/kinds'
import { idOfKind } from '../writing/fit'
import type { Offer } from '../writing/search'
import { returns, type Shape, type Slot, shapesOf, withoutSides } from './shapes'
import { type Gap, newFindings, offersFor, sideMeantIn } from './suggest'

/** A whole phrase of one layer, filled. */
export interface Filling {
  /** What was put in, in order. */
  readonly names: readonly string[]
  /** How it is built, in a line. */
  readonly reason: string
  /** A motif of it comes back, as it was or to the other side. */
  readonly returns: boolean
  readonly combination: Combination
}

export interface FillWish {
  readonly pass: number
  readonly layer: Layer
  /** The same number gives the same proposals. */
  readonly seed: number
}

const MOST_FILLINGS = 5
/** Proposals that are made and looked at, at the most. */
const ATTEMPTS = 90
/** So many of them only have shapes in which something comes back, where there are any. */
const RETURNING_FIRST = 70
/** Of the best offers for a place, how many are looked through for a motif. */
const LOOKED_THROUGH = 90
/** A filling that shares this much with another is not different from it. */
const MOST_SHARED = 0.5

/** A stream of numbers from 0 up to but not with 1: the same for the same seed. */
export function numbersFrom(seed: number): () => number {
  const source = xoroshiro128plus(seed)
  const next = () => uniformFloat64(source)
  // The first ones of near seeds are near each other.
  for (let i = 0; i < WARM_UP; i++) next()
  return next
}

const WARM_UP = 8

/** What is danced on each count of a proposal, to tell proposals apart. */
type Signature = readonly string[]

/**
 * Up to five ways to fill what is empty on one layer of a phrase: each has a shape, made of moves at
 * their usual lengths, mostly with a motif that comes back; none has a fault or a snag that was not
 * there, and each differs from the others on at least half of its counts.
 * @param most how many are wanted
 */
export function fillPhrase(
  combination: Combination,
  wish: FillWish,
  base: Vocabulary,
  house: House,
  most = MOST_FILLINGS,
): readonly Filling[] {
  const vocabulary = vocabularyFor(combination, base)
  const before = checkCombination(combination, base, house)
  const needs: Needs = { before, wish, vocabulary, base, house }
  const found: (Filling & { readonly signature: Signature })[] = []
  for (let attempt = 0; attempt < ATTEMPTS && found.length < most; attempt++) {
    // Each layer by numbers of its own: else all of them would have the same shape.
    const next = numbersFrom(wish.seed * 1009 + attempt + 7919 * LAYERS.indexOf(wish.layer))
    const made = compose(combination, needs, { next, isAny: attempt >= RETURNING_FIRST })
    if (!made || found.some(({ signature }) => shared(signature, made.signature) > MOST_SHARED))
      continue
    found.push(made)
  }
  return found.map(({ signature: _, ...filling }) => filling)
}

function shared(a: Signature, b: Signature): number {
  const same = a.filter((kind, i) => b[i] === kind).length
  return same / Math.max(a.length, b.length, 1)
}

interface Needs {
  readonly before: Checked
  readonly wish: FillWish
  readonly vocabulary: Vocabulary
  readonly base: Vocabulary
  readonly house: House
}

/** One try: a shape for every empty stretch, filled with motifs; undefined where it does not come out clean. */
function compose(
  combination: Combination,
  needs: Needs,
  { next, isAny }: { readonly next: () => number; readonly isAny: boolean },
) {
  const { before, wish, vocabulary, base, house } = needs
  const { pass, layer } = wish
  let now = combination
  let checked = before
  const names: string[] = []
  const signature: string[] = []
  const words: string[] = []
  let hasReturned = false
  for (
    let gap = firstGap(now, pass, layer, vocabulary);
    gap;
    gap = firstGap(now, pass, layer, vocabulary)
  ) {
    const whole = Math.floor(gap.length / COUNT)
    const all = shapesOf(whole).filter((one) => suits(one, layer))
    const coming = isAny ? [] : all.filter(returns)
    const chosen = drawn(coming.length > 0 ? coming : all, ({ weight }) => weight, next)
    if (!chosen) return undefined
    const filled = fillGap(now, checked, gap, chosen, needs, next)
    if (!filled) return undefined
    now = filled.combination
    checked = filled.checked
    names.push(...filled.names)
    signature.push(...filled.signature)
    words.push(filled.isTurned ? chosen.words : withoutSides(chosen.words))
    hasReturned ||= returns(chosen)
  }
  if (names.length === 0) return undefined
  const worsens = newFindings(before, checkCombination(now, base, house)).some(
    (finding) => severityOf(finding) !== 'note',
  )
  if (worsens) return undefined
  const reason = `${words.join('; ')}, ends with ${names.at(-1)}`
  return { names, signature, reason, returns: hasReturned, combination: now }
}

/** Arms are framed in twos and fours, feet walk in figures that single steps end, and the head does little. */
function suits({ slots }: Shape, layer: Layer): boolean {
  if (layer === 'head') return slots.length <= HEAD_DOES
  if (layer === 'arms') return slots.every(({ counts }, i) => counts > 1 || i === slots.length - 1)
  if (layer === 'feet')
    return slots.length === 1 || slots.every(({ counts, motif }) => counts > 1 || motif !== 'a')
  return true
}

const HEAD_DOES = 3

/** One of several, the heavier the more often. */
function drawn<T>(
  list: readonly T[],
  weightOf: (one: T) => number,
  next: () => number,
): T | undefined {
  let left = next() * list.reduce((sum, one) => sum + weightOf(one), 0)
  return list.find((one) => {
    left -= weightOf(one)
    return left < 0
  })
}

/** What a motif is danced with. */
interface Motif {
  readonly offer: Offer
  readonly what: What
}

function fillGap(
  combination: Combination,
  checked: Checked,
  gap: Gap,
  { slots }: Shape,
  needs: Needs,
  next: () => number,
) {
  const { wish, vocabulary, base, house } = needs
  const motifs = new Map<string, Motif>()
  const used = new Set<string>()
  const names: string[] = []
  const signature: string[] = []
  let now = combination
  let state = checked
  let at = gap.at
  let isTurned = true
  for (const [i, slot] of slots.entries()) {
    const length = tick(slot.counts * COUNT)
    const here: Gap = { ...gap, at, length }
    const key = `${slot.motif}${slot.counts}`
    const known = motifs.get(key)
    const times = slots.filter(({ motif }) => motif === slot.motif).length
    const hasOther = slots.some((one) => one.motif === slot.motif && one.other)
    const motif =
      known ?? motifFor(state, here, { slot, isTurned: hasOther, times, used }, needs, next)
    if (!motif) return undefined
    motifs.set(key, motif)
    used.add(idOfKind(motif.what))
    const what = forSlot(motif.what, slot, here, state)
    if (slot.other && sideOf(what) === sideOf(motif.what) && gap.layer === 'feet') isTurned = false
    const id = `fill-${wish.seed}-${gap.pass}-${gap.layer}-${at}`
    const event = {
      id,
      layer: gap.layer,
      at,
      ...(motif.offer.length !== length && { length }),
      what,
    }
    const entry = now.order[gap.pass]
    now = placeEvent(entry?.phrase ?? '', entry?.mirrored ? mirrorEvent(event) : event)(now)
    names.push(nameOf(event, vocabulary))
    for (let count = 0; count < slot.counts; count++)
      signature.push(`${idOfKind(what)} ${sideOf(what) ?? ''} ${count}`)
    at = tick(at + length)
    // The feet are followed step by step: who is free decides the next one. Elsewhere the end tells.
    if (gap.layer !== 'feet' && i < slots.length - 1) continue
    const after = checkCombination(now, base, house)
    if (isBroken(state, after)) return undefined
    state = after
  }
  return { combination: now, checked: state, names, signature, isTurned }
}

/** Faults and snags a step of a proposal brings; whether it joins is asked of the whole. */
const isBroken = (before: Checked, after: Checked): boolean =>
  newFindings(before, after).some((finding) => {
    const severity = severityOf(finding)
    return severity === 'fault' || (severity === 'snag' && !finding.code.startsWith('join.'))
  })

/** A motif as a slot dances it: to its side; the feet on whichever foot is free. */
function forSlot(what: What, slot: Slot, gap: Gap, { lead }: Checked): What {
  if (gap.layer === 'feet') return onSide(what, sideMeantIn(lead, gap))
  return slot.other ? mirrorWhat(what) : what
}

interface MotifWish {
  readonly slot: Slot
  /** It is also danced to the other side, so it has to have one. */
  readonly isTurned: boolean
  /** How often it comes. */
  readonly times: number
  readonly used: ReadonlySet<string>
}

/** A move for a motif: one that fits the place and its counts, the better ones more often. */
function motifFor(
  checked: Checked,
  gap: Gap,
  { slot, isTurned, times, used }: MotifWish,
  { vocabulary }: Needs,
  next: () => number,
): Motif | undefined {
  const { families } = checked.lead.combination
  const isOften = times > SPINS_AT_MOST
  const fit = offersFor(checked, gap, vocabulary, LOOKED_THROUGH).flatMap((offer): Motif[] => {
    const what = inSlot(offer, slot, families, vocabulary)
    if (!what || used.has(idOfKind(what))) return []
    // Round and round is no phrase.
    if (isOften && turnsFar(what, vocabulary)) return []
    const isOfOneSide = JSON.stringify(mirrorWhat(what)) === JSON.stringify(what)
    return isTurned && isOfOneSide && gap.layer !== 'feet' ? [] : [{ offer, what }]
  })
  return fit[Math.floor(next() ** 1.5 * fit.length)]
}

/** Figures that turn this far come so often in a phrase at the most, in degrees (h). */
const FAR = 180
const SPINS_AT_MOST = 2

function turnsFar(what: What, vocabulary: Vocabulary): boolean {
  const move = what.kind === 'move' ? vocabulary.find(what.move) : undefined
  const turned = move?.pattern.reduce((sum, { action }) => sum + (action.turn ?? 0), 0) ?? 0
  return Math.abs(turned) >= FAR
}

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
function isMaterial(
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
