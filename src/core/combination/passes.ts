import type { Vocabulary } from '../moves/vocabulary'
import { TICKS_PER_COUNT, type Tick, tick } from '../time/time'
import { type Combination, type Event, lengthOf, type Phrase, type Remark } from './combination'
import { asDanced, type DancedEvent } from './lengths'
import { loopIndex } from './loop'
import { mirrorPhrase } from './mirror'

/** One dancing of a phrase: which, when, and on which side. */
interface PassPlace {
  /** Its place in the order, from 0. */
  readonly index: number
  readonly phrase: Phrase
  /** Which time this phrase is danced, from 1. */
  readonly time: number
  /** How many times the phrase is danced in all. */
  readonly times: number
  readonly mirrored: boolean
  /** From the start of the combination. */
  readonly at: Tick
  readonly length: Tick
}

/** The same with its events as they are danced then. */
export interface Pass extends PassPlace {
  readonly events: readonly DancedEvent[]
  /** What is said and noted, as it is meant on the side that is danced then. */
  readonly remarks: readonly Remark[]
  /** The pickup of the next round, where it is danced over the end of this pass. */
  readonly leadIn?: LeadIn
}

/** A pickup that is danced again, over the end of what comes before. Ticks from the start of that pass. */
interface LeadIn {
  /** The phrase the pickup is written in. */
  readonly phrase: Phrase
  readonly from: Tick
  /** Where count 1 of the next round falls. */
  readonly countOne: Tick
  /** What the pass has written there, and does not dance. */
  readonly replaced: readonly Event[]
}

/** How many ticks the pickup takes, 0 without one. */
export const pickupTicks = ({ pickup }: Pick<Combination, 'pickup'>): Tick =>
  tick((pickup?.counts ?? 0) * TICKS_PER_COUNT)

/**
 * Ticks of a pickup that is danced before every round; 0 where it is danced once, as it is where
 * the phrase it leads into is.
 */
export const roundPickup = (combination: Pick<Combination, 'pickup' | 'order'>): Tick =>
  combination.pickup?.each && loopIndex(combination) === 0 ? pickupTicks(combination) : tick(0)

/** The order, written out: where each phrase is danced. */
export function passPlaces({ phrases, order }: Combination): readonly PassPlace[] {
  const byId = new Map(phrases.map((phrase) => [phrase.id, phrase]))
  const timesOf = new Map<string, number>()
  for (const { phrase } of order) timesOf.set(phrase, (timesOf.get(phrase) ?? 0) + 1)
  const danced = new Map<string, number>()
  let at = 0
  return order.map((entry, index): PassPlace => {
    const phrase = byId.get(entry.phrase)
    if (!phrase) throw new Error(`no phrase ${entry.phrase}`)
    const time = (danced.get(phrase.id) ?? 0) + 1
    danced.set(phrase.id, time)
    const length = lengthOf(phrase)
    const { mirrored } = entry
    const place = { index, phrase, time, times: timesOf.get(phrase.id) ?? 1, mirrored, length }
    at += length
    return { ...place, at: tick(at - length) }
  })
}

/**
 * The order with all that is danced in it. The pickup stands in the first pass on negative ticks; one that
 * is danced before every round also stands at the end of the last pass, and of those before it
 * where it is longer than the last, in place of what is written there.
 */
export function passesOf(combination: Combination, vocabulary: Vocabulary): readonly Pass[] {
  const pickup = roundPickup(combination)
  const passes = passPlaces(combination).map((place) => passOf(place, vocabulary))
  return pickup > 0 ? withPickupAtEnd(passes, pickup, vocabulary) : passes
}

interface KnownPass {
  readonly pass: Pass
  readonly vocabulary: Vocabulary
}

const known = new WeakMap<Phrase, KnownPass[]>()
/** A phrase is remembered in so many places of an order. */
const MOST_KNOWN = 16

/** The very same pass for the same phrase in the same place, so that what is worked out of it holds. */
function passOf(place: PassPlace, vocabulary: Vocabulary): Pass {
  const { phrase, index, time, times, mirrored, at } = place
  const before = known.get(phrase) ?? []
  known.set(phrase, before)
  const same = before.find(
    ({ pass, vocabulary: by }) =>
      pass.index === index &&
      pass.at === at &&
      pass.mirrored === mirrored &&
      pass.time === time &&
      pass.times === times &&
      by === vocabulary,
  )
  if (same) return same.pass
  const { events, remarks } = danceOf(phrase, mirrored, index)
  const pass = { ...place, events: asDanced(events, phrase.counts, vocabulary), remarks }
  if (before.length === MOST_KNOWN) before.shift()
  before.push({ pass, vocabulary })
  return pass
}

/** Only the first pass is led into; most phrases have no pickup at all. */
function danceOf(
  phrase: Phrase,
  mirrored: boolean,
  index: number,
): Pick<Phrase, 'events'> & Pick<Pass, 'remarks'> {
  const { events, remarks = NOTHING } = mirrored ? mirrorPhrase(phrase) : phrase
  return index === 0
    ? { events, remarks }
    : { events: fromCountOne(events), remarks: fromCountOne(remarks) }
}

/** The events of a pass before their times are worked out. */
const eventsOf = ({ phrase, mirrored, index }: Pass): readonly Event[] =>
  danceOf(phrase, mirrored, index).events

const NOTHING: readonly never[] = []

const fromCountOne = <T extends { readonly at: Tick }>(list: readonly T[]): readonly T[] =>
  list.some(({ at }) => at < 0) ? list.filter(({ at }) => at >= 0) : list

function withPickupAtEnd(
  passes: readonly Pass[],
  pickup: Tick,
  vocabulary: Vocabulary,
): readonly Pass[] {
  const [first] = passes
  const last = passes.at(-1)
  if (!first || !last) return passes
  const countOne = last.at + last.length
  const from = countOne - pickup
  return passes.map((pass) => {
    if (pass.at + pass.length <= from) return pass
    const isKept = ({ at }: { readonly at: Tick }) => pass.at + at < from
    const led = <T extends { readonly at: Tick }>(own: readonly T[], pickup: readonly T[]) => [
      ...own.filter(isKept),
      ...pickup
        .map((one) => ({ ...one, at: tick(countOne + one.at - pass.at) }))
        .filter(({ at }, i) => (pickup[i]?.at ?? 0) < 0 && at >= 0 && at < pass.length),
    ]
    // What is danced there now decides how long the rest lasts.
    const own = eventsOf(pass)
    return {
      ...pass,
      events: asDanced(led(own, eventsOf(first)), pass.phrase.counts, vocabulary),
      remarks: led(pass.remarks, first.remarks),
      leadIn: {
        phrase: first.phrase,
        from: tick(Math.max(0, from - pass.at)),
        countOne: tick(countOne - pass.at),
        replaced: own.filter((event) => !isKept(event)),
      },
    }
  })
}

/** The pass danced at a tick; the last one for anything later. */
export const passAt = <P extends PassPlace>(passes: readonly P[], at: number): P | undefined =>
  passes.findLast((pass) => pass.at <= at) ?? passes[0]
