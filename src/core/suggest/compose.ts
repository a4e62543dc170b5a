import { onceRound } from '../body/facing'
import type { Layer } from '../body/layers'
import type { Combination, Event } from '../combination/combination'
import { mirrorEvent, mirrorWhat } from '../combination/mirror'
import { nameOf, sideOf } from '../combination/names'
import { onSide } from '../combination/whatOf'
import { placeEvent } from '../edits/edits'
import type { Checked } from '../findings/checked'
import { COUNT, endOf, tick } from '../time/time'
import type { What } from '../what/kinds'
import { idOfKind } from '../writing/fit'
import { endsAsAsked } from './asked'
import { beside, choose } from './choose'
import { type Composing, checkedIn, offersIn } from './composing'
import { gapsOf } from './gaps'
import { isOfFamily, type Motif, motifsAmong, turnsFar } from './material'
import { drawn } from './numbers'
import { returns, type Shape, type Slot, shapesOf, withoutSides } from './shapes'
import { breaks, type Gap, isUnclean, newFindings, sideMeantIn } from './suggest'

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
  return onceRound((exit?.facing ?? 0) - (entry?.facing ?? 0))
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
  if (isChecked && breaks(checked, after)) return undefined
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

/** A motif as a slot dances it: to its side; the feet on whichever foot is free. */
function forSlot(what: What, slot: Slot, gap: Gap, { lead }: Checked): What {
  if (gap.layer === 'feet') return onSide(what, sideMeantIn(lead, gap))
  return slot.other ? mirrorWhat(what) : what
}
