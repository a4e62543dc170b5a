import { TICKS_PER_COUNT, type Tick, tick } from '../time/time'
import { type Combination, type Event, lengthOf, type Phrase, type Remark } from './combination'
import { mirrorPhrase } from './mirror'

/** One dancing of a phrase: where it starts, and its events as they are danced then. */
export interface Pass {
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
  readonly events: readonly Event[]
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
 * The order, written out. The pickup stands in the first pass on negative ticks; one that
 * is danced before every round also stands at the end of the last pass, and of those before it
 * where it is longer than the last, in place of what is written there.
 */
export function passesOf(combination: Combination): readonly Pass[] {
  const { phrases, order, pickup } = combination

  const byId = new Map(phrases.map((phrase) => [phrase.id, phrase]))
  const timesOf = new Map<string, number>()
  for (const { phrase } of order) timesOf.set(phrase, (timesOf.get(phrase) ?? 0) + 1)
  const danced = new Map<string, number>()
  let at = 0
  const passes = order.map((entry, index): Pass => {
    const phrase = byId.get(entry.phrase)
    if (!phrase) throw new Error(`no phrase ${entry.phrase}`)
    const time = (danced.get(phrase.id) ?? 0) + 1
    danced.set(phrase.id, time)
    const pass = passOf(phrase, {
      index,
      time,
      times: timesOf.get(phrase.id) ?? 1,
      mirrored: entry.mirrored,
      at: tick(at),
    })
    at += pass.length
    return pass
  })
  return pickup?.each ? withPickupAtEnd(passes, pickupTicks(combination)) : passes
}

type Place = Pick<Pass, 'index' | 'time' | 'times' | 'mirrored' | 'at'>

const known = new WeakMap<Phrase, Pass[]>()
/** A phrase is remembered in so many places of an order. */
const MOST_KNOWN = 16

/** The very same pass for the same phrase in the same place, so that what is worked out of it holds. */
function passOf(phrase: Phrase, place: Place): Pass {
  const { index, time, times, mirrored, at } = place
  const before = known.get(phrase) ?? []
  known.set(phrase, before)
  const same = before.find(
    (one) =>
      one.index === index &&
      one.at === at &&
      one.mirrored === mirrored &&
      one.time === time &&
      one.times === times,
  )
  if (same) return same
  const made = { ...place, phrase, length: lengthOf(phrase), ...danceOf(phrase, mirrored, index) }
  if (before.length === MOST_KNOWN) before.shift()
  before.push(made)
  return made
}

/** Only the first pass is led into; most phrases have no pickup at all. */
function danceOf(
  phrase: Phrase,
  mirrored: boolean,
  index: number,
): Pick<Pass, 'events' | 'remarks'> {
  const { events, remarks = NOTHING } = mirrored ? mirrorPhrase(phrase) : phrase
  return index === 0
    ? { events, remarks }
    : { events: fromCountOne(events), remarks: fromCountOne(remarks) }
}

const NOTHING: readonly never[] = []

const fromCountOne = <T extends { readonly at: Tick }>(list: readonly T[]): readonly T[] =>
  list.some(({ at }) => at < 0) ? list.filter(({ at }) => at >= 0) : list

function withPickupAtEnd(passes: readonly Pass[], pickup: Tick): readonly Pass[] {
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
    return {
      ...pass,
      events: led(pass.events, first.events),
      remarks: led(pass.remarks, first.remarks),
      leadIn: {
        phrase: first.phrase,
        from: tick(Math.max(0, from - pass.at)),
        countOne: tick(countOne - pass.at),
        replaced: pass.events.filter((event) => !isKept(event)),
      },
    }
  })
}

/** The pass danced at a tick; the last one for anything later. */
export const passAt = (passes: readonly Pass[], at: number): Pass | undefined =>
  passes.findLast((pass) => pass.at <= at) ?? passes[0]
