import type { Layer } from '../body/layers'
import { otherSide, type Side } from '../body/side'
import type { Combination, Event, Phrase } from '../combination/combination'
import { dancedIn } from '../combination/lengths'
import { mirrorEvent } from '../combination/mirror'
import { placeEvent } from '../edits/edits'
import { checkCombination } from '../findings/check'
import type { Checked } from '../findings/checked'
import { type Finding, severityOf } from '../findings/finding'
import { findingText } from '../findings/findingText'
import type { House } from '../house/house'
import { type Vocabulary, vocabularyFor } from '../moves/vocabulary'
import { footMeant } from '../simulate/footMeant'
import { placesNeeded } from '../simulate/places'
import { type Simulation, stateBefore } from '../simulate/simulate'
import { TICKS_PER_COUNT, type Tick, tick } from '../time/time'
import { steady } from '../time/timeMap'
import { findOffers, type Offer } from '../writing/search'
import type { Wanted } from '../writing/wanted'
import { hereIn } from './here'

/** Some empty counts of a layer, on the lead side. */
export interface Gap {
  readonly pass: number
  readonly layer: Layer
  readonly at: Tick
  /** At the most this long; a move may be shorter. */
  readonly length: Tick
}

/** The empty counts from a tick of a phrase on, at the most so long; absent where something is danced. */
export function gapIn(
  phrase: Phrase,
  { at, length, layer }: { at: Tick; length: number; layer: Layer },
  vocabulary: Vocabulary,
): { readonly at: Tick; readonly length: Tick } | undefined {
  const own = dancedIn(phrase, vocabulary).filter((event) => event.layer === layer)
  if (at < 0 || own.some((one) => one.at <= at && one.at + one.length > at)) return undefined
  const later = own.map((one) => one.at).filter((when) => when > at)
  const next = Math.min(phrase.counts * TICKS_PER_COUNT, ...later)
  return { at, length: tick(Math.min(length, next - at)) }
}

/** A move that could stand there, and why. */
export interface Suggestion {
  readonly offer: Offer
  readonly length: Tick
  readonly reasons: readonly string[]
  /** What it would bring: a sentence for each snag or caution that was not there before. */
  readonly doubts: readonly string[]
}

/** Offers looked at closely: the search has put what fits best first. */
const LOOKED_AT = 36
const SHOWN = 8

/** Moves for some empty counts, each placed and checked: no faults among them, the best first. */
export function suggestMoves(
  combination: Combination,
  gap: Gap,
  base: Vocabulary,
  house: House,
): readonly Suggestion[] {
  const vocabulary = vocabularyFor(combination, base)
  const checked = checkCombination(combination, base, house)
  const found = offersFor(checked, gap, vocabulary, LOOKED_AT).flatMap((offer, rank) => {
    const { length, changed } = placed(combination, gap, offer, 'suggested')
    const after = checkCombination(changed, base, house)
    const fresh = newFindings(checked, after)
    if (fresh.some((finding) => severityOf(finding) === 'fault')) return []
    const doubts = fresh.filter((finding) => severityOf(finding) !== 'note')
    const limit = house.limits[`load.limit.${after.level}`]
    const load = loadAt(after, gap)
    const over = load > limit ? 6 : 0
    const suggestion: Suggestion = {
      offer,
      length,
      reasons: reasonsFor(offer, length, gap, checked, vocabulary, load, limit),
      doubts: doubts.map((finding) => findingText(finding, house.units)),
    }
    return [{ suggestion, rank: rank + 12 * doubts.length + over }]
  })
  return found
    .sort((a, b) => a.rank - b.rank)
    .slice(0, SHOWN)
    .map(({ suggestion }) => suggestion)
}

/** The side that is meant in a gap where none is said: of the feet the free one. */
export function sideMeantIn(lead: Simulation, { pass, layer, at }: Gap): Side {
  const { combination, passes } = lead
  const mirrored = combination.order[pass]?.mirrored ?? false
  if (layer !== 'feet') return mirrored ? otherSide[combination.lead] : combination.lead
  const state = stateBefore(lead, tick((passes[pass]?.at ?? 0) + at))
  return footMeant(state, combination.lead, mirrored)
}

/** What the search would offer first for a gap, with the side that is meant there. */
export function offersFor(
  { lead }: Checked,
  gap: Gap,
  vocabulary: Vocabulary,
  most: number,
  recent: readonly string[] = [],
): readonly Offer[] {
  const { combination } = lead
  const here = hereIn(lead, gap.pass, gap.layer, gap.at, recent)
  const side = sideMeantIn(lead, gap)
  const wanted: Wanted = {
    layer: gap.layer,
    side,
    families: combination.families,
    here: { ...here, room: Math.min(here.room, gap.length) },
  }
  return findOffers('', wanted, vocabulary, most)
}

/** The combination with an offer in the gap, as it would be placed. */
export function placed(
  combination: Combination,
  { pass, layer, at, length }: Gap,
  { what, length: usual }: Offer,
  id: string,
): { readonly event: Event; readonly length: Tick; readonly changed: Combination } {
  const entry = combination.order[pass]
  const event: Event = { id, layer, at, ...(usual > length && { length }), what }
  const stored = entry?.mirrored ? mirrorEvent(event) : event
  return {
    event,
    length: tick(Math.min(usual, length)),
    changed: placeEvent(entry?.phrase ?? '', stored)(combination),
  }
}

/** What is found after a change that was not found before. */
export function newFindings(before: Checked, after: Checked): readonly Finding[] {
  const key = (finding: Finding) => {
    const { code, side, spot, events } = finding
    // How it joins is about all of it, whatever stands last.
    const first = code.startsWith('join.') ? '' : (events[0] ?? '')
    return [severityOf(finding), code, side, spot.phrase, spot.layer, first].join('|')
  }
  const known = new Set(before.findings.map(key))
  return after.findings.filter((finding) => !known.has(key(finding)))
}

/** What no proposal may bring. */
export const isUnclean = (finding: Finding): boolean => severityOf(finding) !== 'note'

/** Can’t be danced, or will go wrong in class. */
export const isTrouble = (finding: Finding): boolean =>
  severityOf(finding) === 'fault' || severityOf(finding) === 'snag'

/** Whether a part of a proposal brings faults or snags; how it joins is asked of the whole. */
export const breaks = (before: Checked, after: Checked): boolean =>
  newFindings(before, after).some((one) => isTrouble(one) && !one.code.startsWith('join.'))

function loadAt({ loads, lead }: Checked, { pass, at, length }: Gap): number {
  const from = (lead.passes[pass]?.at ?? 0) + at
  return loads
    .filter((one) => one.at + TICKS_PER_COUNT > from && one.at < from + length)
    .reduce((most, { total }) => Math.max(most, total), 0)
}

function reasonsFor(
  offer: Offer,
  length: Tick,
  gap: Gap,
  { lead, house }: Checked,
  vocabulary: Vocabulary,
  load: number,
  limit: number,
): readonly string[] {
  const { what } = offer
  const { combination } = lead
  const here = hereIn(lead, gap.pass, gap.layer, gap.at)
  const move = what.kind === 'move' ? vocabulary.find(what.move) : undefined
  const reasons: string[] = []
  if (gap.layer === 'feet')
    reasons.push(
      here.state.weight === 'both'
        ? 'both feet are free'
        : `${here.state.weight === 'R' ? 'left' : 'right'} foot is free`,
    )
  if (move) {
    const needs = placesNeeded(move, what)
    reasons.push(Object.keys(needs).length > 0 ? 'starts where you are' : 'starts from anywhere')
    const seconds = steady(combination.tempo).secondsAt(length)
    if (move.kind !== 'texture')
      reasons.push(
        `${seconds.toFixed(1)} s for ${(move.fastest_s * house.limits['reach.ofFastest']).toFixed(1)}`,
      )
    const family = move.families.find((one) => combination.families.includes(one))
    if (family) reasons.push(family)
  }
  if (load > 0) reasons.push(`load ${load.toFixed(1)} of ${limit}`)
  return reasons
}
