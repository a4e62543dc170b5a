import type { Layer } from '../body/layers'
import type { Combination, Event } from '../combination/combination'
import { mirrorEvent, mirrorWhat } from '../combination/mirror'
import { nameOf, sideOf } from '../combination/names'
import { onSide } from '../combination/whatOf'
import { placeEvent } from '../edits/edits'
import { checkCombination, danceablesOf } from '../findings/check'
import type { Checked } from '../findings/checked'
import { type Finding, severityOf } from '../findings/finding'
import type { House } from '../house/house'
import { keyOf } from '../load/things'
import { type Vocabulary, vocabularyFor } from '../moves/vocabulary'
import { COUNT, endOf, tick } from '../time/time'
import type { What } from '../what/kinds'
import { idOfKind } from '../writing/fit'
import type { Offer } from '../writing/search'
import { endsAsAsked, type FillWish } from './asked'
import { gapsOf } from './gaps'
import { layeringsOf } from './layerings'
import { isEnding, isOfFamily, type Motif, motifsAmong, turnsFar } from './material'
import { drawn } from './numbers'
import { returns, type Shape, type Slot, shapesOf, withoutSides } from './shapes'
import { type Gap, newFindings, offersFor, sideMeantIn } from './suggest'

/** A layer filled once, and clean. */
export interface Composed {
  readonly combination: Combination
  readonly checked: Checked
  /** What was put in, in order. */
  readonly names: readonly string[]
  /** What is danced on each of its counts, to tell proposals apart. */
  readonly signature: readonly string[]
  /** How it is built: `4 and 4 to the other side`. */
  readonly shape: string
  /** A motif of it comes back, as it was or to the other side. */
  readonly returns: boolean
  readonly motifs: readonly PutMotif[]
}

/** A motif where it was put. */
interface PutMotif {
  readonly key: string
  /** It lies over, or under, something that usually goes with it. */
  readonly isUsual: boolean
  /** The family of the combination has it by name. */
  readonly isOwn: boolean
}

/** What is asked for and known while one layer is composed. */
export interface Composing {
  /** What is filled, at the tempo and for the level that are asked for. */
  readonly meant: Combination
  readonly before: Checked
  readonly wish: FillWish
  readonly vocabulary: Vocabulary
  readonly base: Vocabulary
  readonly house: House
  readonly known: ReadonlySet<string> | undefined
  /** Things by what usually goes with them. */
  readonly layerings: ReadonlyMap<string, ReadonlySet<string>>
  /** Offers by the check they were made in and their tick: the same are asked for again and again. */
  readonly offers: WeakMap<Checked, Map<number, readonly Offer[]>>
  /** What can't stand where something was empty before, by tick, length and kind. */
  readonly broken: Set<string>
  /** Counts that a check goes over, and those it takes as long as besides. */
  readonly ofACheck: number
  /** Counts that may still be checked: a bound on time that is the same on every machine. */
  work: number
}

/** Of the best offers for a place, how many are looked through for a motif. */
const LOOKED_THROUGH = 90
/** So often another motif is tried where one does not stand. */
const TRIES = 3
/** How often what usually goes with what is there is taken before anything else. */
const USUAL_SHARE = 0.7
/** How often what the family has by name is taken before what all have. */
const FAMILY_SHARE = 0.65
/** How often a phrase ends on an accent where one fits. */
const ACCENT_SHARE = 0.6

/** Prepares to compose a layer: what there is, and what goes with what in its families. */
export function composing(
  combination: Combination,
  wish: FillWish,
  base: Vocabulary,
  house: House,
  work: number,
): Composing {
  const layerings = new Map<string, Set<string>>()
  const add = (one: string, other: string) => {
    const known = layerings.get(one)
    if (known) known.add(other)
    else layerings.set(one, new Set([other]))
  }
  for (const layering of layeringsOf(house.layerings)) {
    if (combination.families.length > 0 && !combination.families.includes(layering.family)) continue
    add(layering.on, layering.with)
    add(layering.with, layering.on)
  }
  const before = checkCombination(combination, base, house)
  const counts = before.lead.passes.reduce(
    (sum, { length, phrase: { options = [] } }) =>
      sum + (length / COUNT) * (1 + OF_AN_OPTION * options.length),
    0,
  )
  return {
    meant: combination,
    before,
    // Where something is kept both sides are checked.
    ofACheck: (BESIDE + counts) * danceablesOf(before).length,
    wish,
    vocabulary: vocabularyFor(combination, base),
    base,
    house,
    known: wish.group && new Set(wish.group.known),
    layerings,
    offers: new WeakMap(),
    broken: new Set(),
    work,
  }
}

/** Checks a combination, and books what that takes. */
export function checkedIn(composing: Composing, combination: Combination): Checked {
  composing.work -= composing.ofACheck
  return checkCombination(combination, composing.base, composing.house)
}

/** A check takes as long as so many counts, besides those it checks. */
const BESIDE = 24
/** What a phrase takes more for each of its options, which are danced and checked too. */
const OF_AN_OPTION = 2

const offersIn = (composing: Composing, checked: Checked, gap: Gap): readonly Offer[] => {
  const known = composing.offers.get(checked) ?? new Map<number, readonly Offer[]>()
  composing.offers.set(checked, known)
  const found = known.get(gap.at) ?? offersFor(checked, gap, composing.vocabulary, LOOKED_THROUGH)
  known.set(gap.at, found)
  return found
}

/** One try: a shape for every empty stretch, filled with motifs; undefined where it does not come out clean. */
export function compose(
  composing: Composing,
  { next, isAny }: { readonly next: () => number; readonly isAny: boolean },
): Composed | undefined {
  const { before, wish, vocabulary, meant: combination } = composing
  const { pass, layer, group, within } = wish
  const words: string[] = []
  let made: Filled = { combination, checked: before, names: [], signature: [], motifs: [] }
  let hasReturned = false
  let newsLeft: number = group?.news ?? 0
  for (const gap of gapsOf(combination, pass, layer, vocabulary, within)) {
    const all = shapesOf(Math.floor(gap.length / COUNT)).filter((one) => suits(one, layer))
    const coming = isAny ? [] : all.filter(returns)
    const chosen = drawn(coming.length > 0 ? coming : all, ({ weight }) => weight, next)
    if (!chosen) return undefined
    const filled = fillGap(made, gap, chosen, { composing, next, newsLeft })
    if (!filled) return undefined
    made = filled
    newsLeft = filled.newsLeft
    words.push(filled.isTurned ? chosen.words : withoutSides(chosen.words))
    hasReturned ||= returns(chosen)
  }
  const { names, checked } = made
  if (names.length === 0 || newsLeft > 0) return undefined
  // Nobody asked for another front: what turns comes round again.
  const turned = turnOf(checked, pass)
  if (turned !== 0 && turned !== turnOf(before, pass)) return undefined
  if (!endsAsAsked(checked, wish)) return undefined
  // What another layer ends too early leaves counts free.
  if (gapsOf(made.combination, pass, layer, vocabulary, within).length > 0) return undefined
  if (newFindings(before, checked).some(isUnclean)) return undefined
  return {
    ...made,
    shape: words.join('; '),
    returns: hasReturned,
  }
}

/** By how much a pass ends facing otherwise than it began, from 0 up to a full turn. */
function turnOf({ lead }: Checked, pass: number): number {
  const { entry, exit } = lead.slices[pass] ?? {}
  return ((((exit?.facing ?? 0) - (entry?.facing ?? 0)) % ROUND) + ROUND) % ROUND
}

const ROUND = 360

/** What no proposal may bring. */
export const isUnclean = (finding: Finding): boolean => severityOf(finding) !== 'note'

/** Arms are framed in twos and fours, feet walk in figures that single steps end, and the head does little. */
function suits({ slots }: Shape, layer: Layer): boolean {
  if (layer === 'head') return slots.length <= HEAD_DOES
  if (layer === 'arms') return slots.every(({ counts }, i) => counts > 1 || i === slots.length - 1)
  if (layer === 'feet')
    return slots.length === 1 || slots.every(({ counts, motif }) => counts > 1 || motif !== 'a')
  return true
}

const HEAD_DOES = 3

/** What of a layer is filled by now. */
type Filled = Omit<Composed, 'shape' | 'returns'>

interface Filling {
  readonly composing: Composing
  readonly next: () => number
  /** Things the group may still learn by it. */
  readonly newsLeft: number
}

/** A stretch filled by a shape; undefined where a motif can't be found for it. */
function fillGap(
  made: Filled,
  gap: Gap,
  { slots }: Shape,
  { composing, next, newsLeft }: Filling,
): (Filled & { readonly isTurned: boolean; readonly newsLeft: number }) | undefined {
  const { wish, vocabulary } = composing
  const { families } = made.combination
  const motifs = new Map<string, Motif>()
  const used = new Set<string>()
  const kinds = [...new Set(slots.map(keyOfSlot))]
  const newKind = newsLeft > 0 ? kinds[Math.floor(next() * kinds.length)] : undefined
  let now = made
  let at = gap.at
  let isTurned = true
  let left = newsLeft
  let hasTurned = false
  for (const [i, slot] of slots.entries()) {
    const here: Gap = { ...gap, at, length: tick(slot.counts * COUNT) }
    const key = keyOfSlot(slot)
    const known = motifs.get(key)
    const alike = slots.filter((one) => keyOfSlot(one) === key)
    const isLast = i === slots.length - 1
    const meant = {
      slot,
      layer: gap.layer,
      isTurned: alike.some(({ other }) => other),
      times: alike.length,
      used,
      hasTurned,
      families,
    }
    const choice = known
      ? [known]
      : choose(motifsAmong(offersIn(composing, now.checked, here), meant, vocabulary), {
          composing,
          checked: now.checked,
          gap: here,
          isNew: key === newKind,
          isEnd: isLast && alike.length === 1,
          families,
          next,
        })
    const isFirst = i === 0 && now === made && made.checked === composing.before
    let placed: Filled | undefined
    for (const motif of choice) {
      if (composing.work <= 0) return undefined
      const mark = `${here.at} ${here.length} ${idOfKind(motif.what)}`
      if (isFirst && composing.broken.has(mark)) continue
      // What comes back was looked at before; the feet are followed step by step.
      const isChecked = gap.layer === 'feet' || !known || isLast
      placed = withMotif(now, here, { slot, motif, seed: wish.seed }, composing, isChecked)
      if (!placed) {
        if (isFirst) composing.broken.add(mark)
        continue
      }
      motifs.set(key, motif)
      used.add(idOfKind(motif.what))
      hasTurned ||= turnsFar(motif.what, vocabulary)
      if (composing.known && !composing.known.has(motif.key)) left -= known ? 0 : 1
      const what = forSlot(motif.what, slot, here, now.checked)
      if (slot.other && sideOf(what) === sideOf(motif.what) && gap.layer === 'feet')
        isTurned = false
      break
    }
    if (!placed) return undefined
    now = placed
    at = endOf(here)
  }
  return { ...now, isTurned, newsLeft: left }
}

const keyOfSlot = ({ motif, counts }: Slot): string => `${motif}${counts}`

interface Choosing {
  readonly composing: Composing
  readonly checked: Checked
  readonly gap: Gap
  /** The group does not know it yet. */
  readonly isNew: boolean
  /** It ends the stretch, and comes once. */
  readonly isEnd: boolean
  readonly families: readonly string[]
  readonly next: () => number
}

/** Some motifs to try, first what was drawn first: rather what usually goes with what is there, and an end on an accent. */
function choose(
  motifs: readonly Motif[],
  { composing, checked, gap, isNew, isEnd, families, next }: Choosing,
): readonly Motif[] {
  const { known, layerings, vocabulary } = composing
  const fit = known ? motifs.filter(({ key }) => known.has(key) !== isNew) : motifs
  const around = new Set(
    beside(checked, gap, vocabulary).flatMap((key) => [...(layerings.get(key) ?? [])]),
  )
  const usual = fit.filter(({ key }) => around.has(key))
  const ending = isEnd ? fit.filter(({ what }) => isEnding(what, gap.layer, vocabulary)) : []
  const own = fit.filter(({ what }) => isOfFamily(what, families, vocabulary))
  const chosen: Motif[] = []
  for (let tried = 0; tried < TRIES; tried++) {
    const by = next()
    const list =
      ending.length > 0 && next() < ACCENT_SHARE
        ? ending
        : usual.length > 0 && next() < USUAL_SHARE
          ? usual
          : own.length > 0 && next() < FAMILY_SHARE
            ? own
            : fit
    const one = list[Math.floor(by ** 1.5 * list.length)]
    if (one && !chosen.includes(one)) chosen.push(one)
  }
  return chosen
}

/** Keys of what is danced on the other layers over the counts of a gap. */
function beside({ lead }: Checked, gap: Gap, vocabulary: Vocabulary): readonly string[] {
  const events = lead.passes[gap.pass]?.events ?? []
  return events
    .filter((event) => event.layer !== gap.layer && event.at < endOf(gap) && gap.at < endOf(event))
    .map((event) => keyOf(event, vocabulary))
}

/** With a motif put on its counts; undefined where that breaks something. */
function withMotif(
  { combination, checked, names, signature, motifs }: Filled,
  here: Gap,
  { slot, motif, seed }: { readonly slot: Slot; readonly motif: Motif; readonly seed: number },
  composing: Composing,
  isChecked: boolean,
): Filled | undefined {
  const { vocabulary, layerings } = composing
  const { layer, pass, at, length } = here
  const what = forSlot(motif.what, slot, here, checked)
  const event: Event = {
    id: `fill-${seed}-${pass}-${layer}-${at}`,
    layer,
    at,
    ...(motif.offer.length !== length && { length }),
    what,
  }
  const entry = combination.order[pass]
  const now = placeEvent(
    entry?.phrase ?? '',
    entry?.mirrored ? mirrorEvent(event) : event,
  )(combination)
  const after = isChecked ? checkedIn(composing, now) : checked
  if (isChecked && isBroken(checked, after)) return undefined
  const around = beside(checked, here, vocabulary)
  const kind = `${idOfKind(what)} ${sideOf(what) ?? ''}`
  return {
    combination: now,
    checked: after,
    names: [...names, nameOf(event, vocabulary)],
    signature: [...signature, ...Array.from({ length: slot.counts }, (_, i) => `${kind} ${i}`)],
    motifs: [
      ...motifs,
      {
        key: motif.key,
        isUsual: around.some((one) => layerings.get(one)?.has(motif.key)),
        isOwn: isOfFamily(motif.what, combination.families, vocabulary),
      },
    ],
  }
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
