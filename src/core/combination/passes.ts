import type { Layer } from '../body/layers'
import type { Vocabulary } from '../moves/vocabulary'
import { remembered } from '../record/remembered'
import { TICKS_PER_COUNT, type Tick, tick } from '../time/time'
import type { PropAct } from './carried'
import { claimOf } from './claims'
import { type Combination, type Event, lengthOf, type Phrase } from './combination'
import { asDanced, type DancedEvent, overAt } from './lengths'
import { loopIndex } from './loop'
import { mirrorPhrase } from './mirror'
import { withOptions } from './options'
import type { Remark } from './remark'
import { withWays } from './ways'

/** One dancing of a phrase: which, when, and on which side. */
interface PassPlace {
  /** Its place in the order, from 0. */
  readonly index: number
  /** As it is written, or as it is danced with its options. */
  readonly phrase: Phrase
  /** The options it is danced with here. */
  readonly options?: readonly string[]
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
  /** What is done with what is carried, as it is meant on that side. */
  readonly acts: readonly PropAct[]
  /** The pickup of what follows, where it is danced over the end of this pass. */
  readonly leadIn?: LeadIn
}

/** A pickup that is danced over the end of what comes before it, layer by layer. Ticks from the start of that pass. */
interface LeadIn {
  /** The pass it leads into: the next one, or behind the last one where a round begins again. */
  readonly into: PassPlace
  /** Where each layer leaves what is written for the pickup. */
  readonly from: ReadonlyMap<Layer, Tick>
  /** Where count 1 of what it leads into falls. */
  readonly countOne: Tick
  /** What the pass has written there, and does not dance. */
  readonly replaced: readonly Event[]
}

type Written = Pick<Combination, 'pickup' | 'order' | 'phrases'>

type Early = Pick<Phrase, 'events' | 'remarks' | 'props' | 'pickup'>

/** How many ticks before its count 1 a phrase begins, in whole counts: 0 for most. */
export const ownPickup = (phrase: Early): Tick =>
  tick(Math.max(neededPickup(phrase), (phrase.pickup ?? 0) * TICKS_PER_COUNT))

const neededBy = new WeakMap<Early, Tick>()

/** How many ticks before its count 1 a phrase has something written, in whole counts; worked out once. */
export function neededPickup(phrase: Early): Tick {
  const known = neededBy.get(phrase)
  if (known !== undefined) return known
  let earliest = 0
  for (const { at } of phrase.events) if (at < earliest) earliest = at
  for (const { at } of phrase.remarks ?? NOTHING) if (at < earliest) earliest = at
  for (const { at } of phrase.props ?? NOTHING) if (at < earliest) earliest = at
  const needed = tick(Math.ceil(0 - earliest / TICKS_PER_COUNT) * TICKS_PER_COUNT)
  neededBy.set(phrase, needed)
  return needed
}

const firstPhrase = ({ order, phrases }: Pick<Written, 'order' | 'phrases'>): Phrase | undefined =>
  phrases.find(({ id }) => id === order[0]?.phrase)

/** How many ticks are danced before count 1 of the very first round, 0 without a pickup. */
export function pickupTicks({ pickup, ...written }: Written): Tick {
  const first = firstPhrase(written)
  const said = (pickup?.counts ?? 0) * TICKS_PER_COUNT
  return tick(Math.max(said, first ? ownPickup(first) : 0))
}

/** The phrase a pass dances; undefined where there is no such pass. */
export const phraseDanced = (
  { order, phrases }: Pick<Combination, 'order' | 'phrases'>,
  pass: number,
): Phrase | undefined => phrases.find(({ id }) => id === order[pass]?.phrase)

/** How many ticks before its count 1 a pass may begin: the pickup of the first phrase is danced before the first pass. */
export function pickupBefore(combination: Written, index: number): Tick {
  if (index === 0) return pickupTicks(combination)
  const { order, phrases } = combination
  const id = order[index]?.phrase
  const phrase = id === order[0]?.phrase ? undefined : phrases.find((one) => one.id === id)
  return phrase ? ownPickup(phrase) : tick(0)
}

/**
 * Whether the pickup of the first phrase is danced before every round: as it is said, and where
 * nothing is said, as that of any phrase. It is danced once where the phrase it leads into is.
 */
export const isRoundPickup = (combination: Written): boolean =>
  loopIndex(combination) === 0 &&
  (combination.pickup ? combination.pickup.each : pickupTicks(combination) > 0)

/** Ticks of a layer that a pickup takes at the end of every round; 0 where it has nothing there. */
export function roundPickup(combination: Written, layer: Layer): Tick {
  const first = isRoundPickup(combination) ? firstPhrase(combination) : undefined
  if (!first) return tick(0)
  let earliest = 0
  for (const event of first.events)
    if (event.layer === layer && event.at < earliest) earliest = event.at
  return tick(0 - earliest)
}

/** The order, written out: where each phrase is danced. */
export function passPlaces(combination: Combination, vocabulary: Vocabulary): readonly PassPlace[] {
  const { phrases, order } = combination
  const byId = new Map(phrases.map((phrase) => [phrase.id, phrase]))
  const timesOf = new Map<string, number>()
  for (const { phrase } of order) timesOf.set(phrase, (timesOf.get(phrase) ?? 0) + 1)
  const danced = new Map<string, number>()
  let at = 0
  return order.map((entry, index): PassPlace => {
    const written = byId.get(entry.phrase)
    if (!written) throw new Error(`no phrase ${entry.phrase}`)
    const varied = withOptions(written, entry.options ?? NOTHING, vocabulary)
    const phrase = withWays(varied, { lead: combination.lead, vocabulary })
    const time = (danced.get(phrase.id) ?? 0) + 1
    danced.set(phrase.id, time)
    const length = lengthOf(phrase)
    const { mirrored } = entry
    const place = {
      ...(entry.options && { options: entry.options }),
      index,
      phrase,
      time,
      times: timesOf.get(phrase.id) ?? 1,
      mirrored,
      length,
    }
    at += length
    return { ...place, at: tick(at - length) }
  })
}

/**
 * The order with all that is danced in it. What leads into the first pass stands in it on negative
 * ticks; every other pickup, and that of every round, stands at the end of what comes before, in
 * place of what begins there on its layers.
 */
export function passesOf(combination: Combination, vocabulary: Vocabulary): readonly Pass[] {
  const passes = passPlaces(combination, vocabulary).map((place) => passOf(place, vocabulary))
  const first = passes[0]
  const last = passes.at(-1)
  if (!first || !last) return passes
  const led = passes.map((pass, i) => {
    const next = passes[i + 1]
    // That of the first phrase is danced as the combination says, whenever it comes again.
    return next && next.phrase.id !== first.phrase.id && ownPickup(next.phrase) > 0
      ? ledInto(pass, next, vocabulary)
      : pass
  })
  const again = passes[loopIndex(combination)] ?? first
  if (isRoundPickup(combination)) return withPickupAtEnd(led, vocabulary)
  return again.phrase.id !== first.phrase.id && ownPickup(again.phrase) > 0
    ? led.with(-1, ledInto(last, again, vocabulary))
    : led
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
  const { events, remarks, acts } = danceOf(phrase, mirrored, index)
  const pass = { ...place, events: asDanced(events, phrase.counts, vocabulary), remarks, acts }
  if (before.length === MOST_KNOWN) before.shift()
  before.push({ pass, vocabulary })
  return pass
}

/** Only the first pass is led into; most phrases have no pickup at all. */
function danceOf(
  phrase: Phrase,
  mirrored: boolean,
  index: number,
): Pick<Phrase, 'events'> & Pick<Pass, 'remarks' | 'acts'> {
  const {
    events,
    remarks = NOTHING,
    props: acts = NOTHING,
  } = mirrored ? mirrorPhrase(phrase) : phrase
  return index === 0
    ? { events, remarks, acts }
    : {
        events: fromCountOne(events),
        remarks: fromCountOne(remarks),
        acts: fromCountOne(acts),
      }
}

/** The events of a pass before their times are worked out. */
const eventsOf = ({ phrase, mirrored, index }: Pass): readonly Event[] =>
  danceOf(phrase, mirrored, index).events

const NOTHING: readonly never[] = []

const fromCountOne = <T extends { readonly at: Tick }>(list: readonly T[]): readonly T[] =>
  list.some(({ at }) => at < 0) ? list.filter(({ at }) => at >= 0) : list

/** The pickup of every round, also over the passes before the last one where it is longer than that. */
function withPickupAtEnd(passes: readonly Pass[], vocabulary: Vocabulary): readonly Pass[] {
  const [first] = passes
  const last = passes.at(-1)
  if (!first || !last) return passes
  const countOne = last.at + last.length
  return passes.map((pass) =>
    pass.at + pass.length <= countOne - ownPickup(first.phrase)
      ? pass
      : ledInto(pass, first, vocabulary, countOne),
  )
}

type Leading = Pick<Pass, 'events' | 'remarks'>

const NOTHING_LEADS: Leading = { events: NOTHING, remarks: NOTHING }

/**
 * What leads into a pass over the end of the one before it, on the ticks of the pass it leads into; the
 * very same each time.
 */
export function leadingInto(passes: readonly Pass[], pass: Pass): Leading {
  const before = passes[pass.index - 1]
  return before?.leadIn?.into.index === pass.index ? leadOf(pass, before) : NOTHING_LEADS
}

const leadOf = remembered(({ phrase, mirrored, at }: Pass, before: Pass): Leading => {
  const ids = new Set(phrase.events.filter((event) => event.at < 0).map(({ id }) => id))
  const { remarks = NOTHING } = mirrored ? mirrorPhrase(phrase) : phrase
  return {
    events: before.events
      .filter(({ id }) => ids.has(id))
      .map((event) => ({ ...event, at: tick(before.at + event.at - at) })),
    remarks: remarks.filter((remark) => remark.at < 0),
  }
})

interface Led {
  readonly into: Pass
  readonly vocabulary: Vocabulary
  readonly countOne: number
}

/** A pass with the pickup of another one over its end, count 1 of which falls on a tick of the combination. */
const ledInto = (
  pass: Pass,
  into: Pass,
  vocabulary: Vocabulary,
  countOne: number = pass.at + pass.length,
): Pass => ledPass(pass, { into, vocabulary, countOne })

/** The very same pass for the same two, so that what is worked out of it holds. */
const ledPass = remembered(
  (pass: Pass, { into, vocabulary, countOne }: Led): Pass => {
    const side = into.mirrored ? mirrorPhrase(into.phrase) : into.phrase
    const moved = <T extends { readonly at: Tick }>(list: readonly T[]): readonly T[] =>
      list.flatMap((one) => {
        const at = countOne + one.at - pass.at
        return one.at < 0 && at >= 0 && at < pass.length ? [{ ...one, at: tick(at) }] : []
      })
    const pickup = moved(side.events)
    const from = new Map<Layer, Tick>()
    for (const { layer, at } of pickup)
      from.set(layer, tick(Math.min(at, from.get(layer) ?? Number.POSITIVE_INFINITY)))
    const isKept = ({ layer, at }: Event) => at < (from.get(layer) ?? Number.POSITIVE_INFINITY)
    // What is danced there now decides how long the rest lasts.
    const own = eventsOf(pass)
    return {
      ...pass,
      events: asDanced([...own.filter(isKept), ...pickup], pass.phrase.counts, vocabulary).map(
        (event) => {
          const end = from.get(event.layer)
          // What only shakes goes on under it.
          return end === undefined ||
            event.at >= end ||
            claimOf(event, vocabulary).kind === 'texture'
            ? event
            : overAt(event, end)
        },
      ),
      remarks: [...pass.remarks, ...moved(side.remarks ?? NOTHING)],
      acts: [...pass.acts, ...moved(side.props ?? NOTHING)],
      leadIn: {
        into,
        from,
        countOne: tick(countOne - pass.at),
        replaced: own.filter((event) => !isKept(event)),
      },
    }
  },
  (a: Led, b: Led) =>
    a.into === b.into && a.vocabulary === b.vocabulary && a.countOne === b.countOne,
)

/** The pass danced at a tick; the last one for anything later. */
export const passAt = <P extends PassPlace>(passes: readonly P[], at: number): P | undefined =>
  passes.findLast((pass) => pass.at <= at) ?? passes[0]
