import { factsOf } from '../body/feet'
import { SIDES, type Side } from '../body/side'
import type { BodyPart } from '../moves/move'
import type { TimedAction } from '../moves/pattern'
import type { Vocabulary } from '../moves/vocabulary'
import { remembered } from '../record/remembered'
import { COUNT, labelOfSpan, type PlaceLabel, TICKS_PER_COUNT, type Tick, tick } from '../time/time'
import type { Claim } from '../what/kind'
import { kindOf } from '../what/kinds'
import { claimOf } from './claims'
import type { Event, Phrase } from './combination'

/** An event with the time it is danced in: what is not written is worked out, and never stored. */
export type DancedEvent = Event & {
  readonly length: Tick
  /** How long each arm is on its way, where one of them is sent on before the other. */
  readonly ways?: Readonly<Record<Side, Tick>>
  /** It lasts less than by itself: what comes next, or the end of its phrase, takes the rest. */
  readonly isCut?: true
  /** Its written length, where what leads into something else takes the end of it. */
  readonly whole?: Tick
  /** The tick of its phrase it is held to, and is back behind. */
  readonly until?: Tick
  /** A foot its steps leave in the air comes down beside the other where it ends (model 4). */
  readonly putsDown?: true
}

/** What an event lasts by itself: the counts of its move; a place, a look or a step one. */
export const ownLengthOf = ({ what }: Pick<Event, 'what'>, vocabulary: Vocabulary): Tick =>
  kindOf(what).ownLength(what, what.kind === 'move' ? vocabulary.find(what.move) : undefined)

/** Level words and holds go on under what else the feet do, and end nothing. */
export const isLevelWord = ({ what }: Pick<Event, 'what'>): boolean =>
  what.kind === 'foot' && factsOf(what.action.primitive).levelOnly === true

/** The foot that steps leave in the air. */
export const footLeftUp = (steps: readonly TimedAction[]): Side | undefined =>
  SIDES.find((side) => {
    const last = steps.findLast(({ action }) => action.foot === side || action.jump)?.action
    return last?.foot === side && factsOf(last.primitive).contact === 'air'
  })

const leavesFootUp = ({ what, layer, isCut }: DancedEvent, vocabulary: Vocabulary): boolean =>
  layer === 'feet' &&
  what.kind === 'move' &&
  !isCut &&
  footLeftUp(vocabulary.find(what.move)?.pattern ?? []) !== undefined

interface Entry {
  readonly event: Event
  readonly claim: Claim
}

/**
 * The events of a phrase as they are danced, in the order they stand. One without a written length
 * lasts its own counts, at the most to the next one of its layer that needs one of its parts, and
 * to the end of the phrase; a texture ends only where another begins. A place, written or not, is
 * on its way only until its part is sent on: each arm by itself.
 */
export const asDanced = (
  events: readonly Event[],
  counts: number,
  vocabulary: Vocabulary,
): readonly DancedEvent[] => timesOf(events, { counts, vocabulary })

/** The events of a phrase as it is written, with the time each is danced in. */
export const dancedIn = ({ events, counts }: Phrase, vocabulary: Vocabulary) =>
  asDanced(events, counts, vocabulary)

interface Around {
  readonly counts: number
  readonly vocabulary: Vocabulary
}

const timesOf = remembered(
  workedOut,
  (a, b) => a.counts === b.counts && a.vocabulary === b.vocabulary,
)

function workedOut(
  events: readonly Event[],
  { counts, vocabulary }: Around,
): readonly DancedEvent[] {
  const entries = events
    .map((event): Entry => ({ event, claim: claimOf(event, vocabulary) }))
    .sort((a, b) => a.event.at - b.event.at)
  const end = counts * TICKS_PER_COUNT
  const danced = new Map(
    entries.map((entry, i) => {
      const { event } = entry
      // What is free, or stays, does so until something else is written.
      const own = isOpen(event.what) ? end - event.at : ownLengthOf(event, vocabulary)
      const most = event.length ?? Math.min(own, end - event.at)
      const alone = timed(entry, { own, most }, entries, i + 1)
      const known =
        event.held === undefined
          ? alone
          : made(event, { ...alone, until: tick(Math.min(end, event.at + event.held)) })
      const isFree = (tick: number) =>
        tick < end &&
        !entries.some(
          ({ event: { layer, at, what } }) =>
            layer === 'feet' && at === tick && what.kind !== 'share',
        )
      return [
        event,
        leavesFootUp(known, vocabulary) && isFree(known.at + known.length)
          ? made(event, { ...known, putsDown: true })
          : known,
      ]
    }),
  )
  return events.map((event) => danced.get(event) as DancedEvent)
}

/** An entry with the time it has until its parts are needed elsewhere. */
function timed(
  entry: Entry,
  { own, most }: { own: number; most: number },
  entries: readonly Entry[],
  from: number,
): DancedEvent {
  const { event, claim } = entry
  const { what } = event
  const isFixed = (event.length !== undefined && claim.kind !== 'place') || isLevelWord(event)
  const until = (parts: readonly BodyPart[]) =>
    isFixed ? most : ticksUntil(entry, most, parts, entries, from)
  const as = (length: number) =>
    lasting(event, { length, isCut: event.length === undefined && length < own })
  if (what.kind === 'stay' && event.length === undefined) {
    const next = entries
      .slice(from)
      .find(({ event: { layer, at } }) => layer === event.layer && at > event.at)
    return as(Math.min(most, next ? next.event.at - event.at : most))
  }
  if (what.kind !== 'arms') return as(until(claim.parts))
  // A hand that is held otherwise on its way stops no arm.
  if (!what.R || !what.L) return as(until(what.R ? ['armR'] : what.L ? ['armL'] : claim.parts))
  const ways = { R: tick(until(['armR'])), L: tick(until(['armL'])) }
  const longest = as(Math.max(ways.R, ways.L))
  return ways.R === ways.L ? longest : made(event, { ...longest, ways })
}

const isOpen = ({ kind }: Event['what']): boolean => kind === 'free' || kind === 'stay'

/** Free counts end whatever was danced. */
const isAllFree = ({ what, layer }: Event): boolean => what.kind === 'free' && layer === 'feet'

/** The ticks until one of some parts is needed by a later entry of the layer; at the most all it has. */
function ticksUntil(
  { event, claim }: Entry,
  own: number,
  parts: readonly BodyPart[],
  entries: readonly Entry[],
  from: number,
): number {
  for (let i = from; i < entries.length; i++) {
    const next = entries[i] as Entry
    const ticks = next.event.at - event.at
    if (ticks >= own) break
    if (
      ticks > 0 &&
      // A place is over where its part is needed, whatever layer needs it.
      (isAllFree(next.event) ||
        ((next.event.layer === event.layer || claim.kind === 'place') &&
          (next.claim.kind === 'texture') === (claim.kind === 'texture'))) &&
      !isLevelWord(next.event) &&
      next.claim.parts.some((part) => parts.includes(part))
    )
      return ticks
  }
  return own
}

/** The very same object for the same event in the same time, so that what is worked out of it holds. */
const lasting = remembered(
  (event: Event, { length, isCut }: Lasting): DancedEvent =>
    event.length === length
      ? (event as DancedEvent)
      : made(event, { ...event, length: tick(length), ...(isCut && { isCut: true as const }) }),
  (a, b) => a.length === b.length && a.isCut === b.isCut,
)

/** An event that is over where what leads into something else begins. */
export const overAt = (event: DancedEvent, end: Tick): DancedEvent =>
  event.at + event.length <= end
    ? event
    : made(writtenOf(event), {
        ...event,
        length: tick(end - event.at),
        whole: event.length,
      })

interface Lasting {
  readonly length: number
  readonly isCut: boolean
}

const sources = new WeakMap<DancedEvent, Event>()

function made(event: Event, danced: DancedEvent): DancedEvent {
  sources.set(danced, event)
  return danced
}

/** When something is danced, as it is said: its count alone where that is all that is written of a short one. */
export const whenSaid = (event: DancedEvent, label: PlaceLabel): string =>
  writtenOf(event).length === undefined && event.length <= COUNT
    ? label(event.at)
    : labelOfSpan(event, label)

/** The ticks a place is held for, where its range or its end is written; its way alone where it is not. */
export const heldTicks = (event: DancedEvent): Tick =>
  event.until === undefined
    ? (writtenOf(event).length ?? event.length)
    : tick(event.until - event.at)

/** What stands in the phrase, of what is danced: without a length that nobody wrote. */
export const writtenOf = (danced: DancedEvent): Event => sources.get(danced) ?? danced
