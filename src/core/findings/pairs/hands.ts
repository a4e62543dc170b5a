import { palmAt } from '../../body/places'
import { type Hand, isHand, type Met } from '../../combination/between'
import type { House } from '../../house/house'
import { type ArmTold, handsIn, toldTo, toldWithin } from '../../piece/hands'
import type { Placed } from '../../piece/piece'
import {
  apartOf,
  BODY,
  gapAt,
  type Held,
  heldIn,
  meetingPoint,
  pointOf,
  type Spot3,
  shoulderOf,
} from '../../piece/reach'
import { bendsIn, placeAt } from '../../piece/way'
import { heldAt } from '../../props/held'
import type { DancedMeeting } from '../../simulate/company'
import { TICKS_PER_COUNT } from '../../time/time'
import { secondsBetween } from '../../time/timeMap'
import { type FoundBetween, lastCount, type PairRule, spotBetween } from './pairRule'

/** A hand that is sent no farther than this from where it is held stays there, in metres (h). */
const STAYS = 0.35

/** The ticks of a meeting at which somebody's way bends, from its first to its last. */
function ticksOf({ from, until, from_, to_ }: Held): readonly number[] {
  const last = until - 0.5
  const bends = [...bendsIn(from_.way, from, last), ...bendsIn(to_.way, from, last)]
  return [from, ...new Set(bends), last].sort((a, b) => a - b)
}

/** Hands that do not reach each other, or only with locked arms. */
export const reach: PairRule = function* (piece) {
  for (const held of heldIn(piece)) {
    const [worst] = ticksOf(held)
      .map((tick) => ({ tick, ...gapAt(held, tick) }))
      .sort((a, b) => b.apart / b.reach - a.apart / a.reach)
    if (!worst) continue
    const share = worst.apart / worst.reach
    if (share <= piece.house.limits['pair.armLocked']) continue
    yield {
      code: 'pair.reach',
      ...naming(held),
      on: spotWords(held.what.to),
      metres: worst.apart,
      reach: worst.reach,
      severity: share > 1 ? 'fault' : 'snag',
      ...about(held, worst.tick),
    }
  }
}

const naming = ({ from_, to_ }: Pick<Held, 'from_' | 'to_'>) => ({
  a: from_.part.name,
  b: to_.part.name,
})

const spotWords = (met: Met): string => (isHand(met) ? '' : met.on)

const about = (held: Held, tick: number): Pick<FoundBetween, 'whose' | 'spot' | 'events'> => ({
  whose: [held.from_.part.id, held.to_.part.id],
  spot: spotBetween(held.pass, Math.floor(tick), 'arms'),
  events: [held.meeting.id],
})

/** A hand that is to be in two places: held twice, or sent elsewhere by its own line. */
export const handBusy: PairRule = function* (piece) {
  const all = heldIn(piece)
  for (const [i, held] of all.entries()) {
    const severity = held.what.kind === 'hold' ? 'fault' : 'snag'
    for (const hand of handsIn(held.what)) {
      const placed = hand.part === held.from_.part.id ? held.from_ : held.to_
      const other = all.find(
        (one, k) =>
          k < i &&
          one.from < held.until &&
          one.until > held.from &&
          handsIn(one.what).some((also) => also.part === hand.part && also.side === hand.side),
      )
      const sent = sentAway(held, hand, placed, piece.house)
      const full = held.what.kind === 'hold' && isFull(placed, hand, held.from)
      if (!other && !sent && !full) continue
      yield {
        code: 'pair.hand-busy',
        a: placed.part.name,
        hand: hand.side,
        by: other ? 'held' : full ? 'prop' : 'sent',
        severity: other || full ? 'fault' : severity,
        ...about(held, Math.max(held.from, other?.from ?? sent?.from ?? held.from)),
        events: [(full ? undefined : sent?.event.id) ?? held.meeting.id],
      }
    }
  }
}

/** Whether a hand has something in it that leaves no finger free. */
const isFull = ({ simulation }: Placed, { side }: Hand, tick: number): boolean =>
  heldAt(simulation, tick).some(([, { hands }]) => {
    const on = hands[side]
    return on !== undefined && on.grip !== 'hook'
  })

/**
 * What sends a held hand away from where it is held. The first one's line leads both hands, so long as
 * the other one's says nothing else; a hand that stays near stays held.
 */
function sentAway(held: Held, hand: Hand, placed: Placed, house: House): ArmTold | undefined {
  const { what, from_, to_ } = held
  const told = toldWithin(toldTo(placed.simulation, hand.side), held)
  if (told.length === 0) return undefined
  const isSecond = isHand(what.to) && hand.part === what.to.part
  const firstTold =
    isHand(what.to) && toldWithin(toldTo(from_.simulation, what.from.side), held).length > 0
  // Whose line leads is not sent away by it; with both told the second one's has to lead to the same place.
  if (isHand(what.to) && (!isSecond || !firstTold)) return undefined
  return told.find((one) => {
    const here = palmPoint(placed, hand, one, house)
    if (!here) return !isHand(what.to)
    const [other] = isHand(what.to)
      ? toldWithin(toldTo(from_.simulation, what.from.side), held).toReversed()
      : []
    const there = other
      ? palmPoint(from_, what.from, other, house)
      : shoulderOf(to_, what.from, one.until - 0.5)
    return !there || apartOf(here, there) > STAYS
  })
}

/** Where a palm is when it has come to the place it is told; undefined for what is no place. */
function palmPoint(
  placed: Placed,
  { side }: Hand,
  { event, until }: ArmTold,
  house: House,
): Spot3 | undefined {
  const place = event.what.kind === 'arms' ? event.what[side] : undefined
  if (!place) return undefined
  const { right, up, forward } = palmAt(side, place, house.palms)
  return pointOf(placed, until - 0.5, right, BODY.chestUp + up, forward)
}

/** A hand that has to be there sooner than it can come from where its own line left it. */
export const handLate: PairRule = function* (piece) {
  const { limits } = piece.house
  for (const held of heldIn(piece)) {
    for (const hand of handsIn(held.what)) {
      const placed = hand.part === held.from_.part.id ? held.from_ : held.to_
      const last = toldTo(placed.simulation, hand.side).findLast(({ from }) => from < held.from)
      const palm = last && palmPoint(placed, hand, last, piece.house)
      if (!last || !palm || last.until > held.from) continue
      const other = placed === held.from_ ? held.to_ : held.from_
      const there = meetingPoint(held, held.from)
      const metres = Math.max(0, apartOf(palm, there))
      // Hands take each other within the first half of the time they have, a count at the most.
      const room = Math.min((held.until - held.from) / 2, TICKS_PER_COUNT)
      const seconds = secondsBetween(placed.simulation.time, last.until, held.from + room)
      if (metres <= limits['pair.handSpeed'] * seconds) continue
      yield {
        code: 'pair.hand-late',
        a: placed.part.name,
        b: other.part.name,
        hand: hand.side,
        metres,
        seconds,
        ...about(held, held.from),
      }
    }
  }
}

/** Turns that a hold has no way for. */
export const turnHeld: PairRule = function* (piece) {
  for (const held of heldIn(piece)) {
    const { what, from_, to_, from, until } = held
    if (what.kind !== 'hold') continue
    const most =
      what.through === 'over' ? Number.POSITIVE_INFINITY : what.through === 'round' ? 360 : 180
    const facingAt = (tick: number) =>
      placeAt(from_.way, tick).facing - placeAt(to_.way, tick).facing
    const begin = facingAt(from)
    const turned = ticksOf(held).map((tick) => ({
      tick,
      degrees: Math.abs(facingAt(tick) - begin),
    }))
    const over = turned.find(({ degrees }) => degrees > most + 0.5)
    if (over)
      yield {
        code: 'pair.turn-held',
        ...naming(held),
        degrees: Math.max(...turned.map(({ degrees }) => degrees)),
        most,
        ...about(held, over.tick),
      }
    // Both hands held, and an odd number of half turns under them at the end.
    const second = heldIn(piece).some(
      (one) =>
        one !== held &&
        one.what.kind === 'hold' &&
        one.from < until &&
        one.until > from &&
        one.meeting.id > held.meeting.id &&
        [one.from_, one.to_].every((placed) => placed === from_ || placed === to_),
    )
    const halves = Math.round(Math.abs(facingAt(until - 0.5) - begin) / 180)
    if (second && halves % 2 === 1)
      yield { code: 'pair.crossed', ...naming(held), ...about(held, lastCount(held)) }
  }
}

/** Eyes that are to meet and can't: she is behind, or her head is told to look elsewhere. */
export const eyes: PairRule = function* (piece) {
  const most = piece.house.limits['pair.eyes']
  for (const one of piece.meetings) {
    const { what } = one.meeting
    if (what.kind !== 'look') continue
    const looking = what.oneWay
      ? [[what.a, what.b]]
      : [
          [what.a, what.b],
          [what.b, what.a],
        ]
    for (const [from, to] of looking) {
      const [a, b] = [from, to].map((id) => piece.placed.find(({ part }) => part.id === id))
      if (!a || !b) continue
      const away = ticksWithin(one, a, b)
        .map((tick) => ({ tick, degrees: degreesTo(a, b, tick) }))
        .find(({ degrees }) => degrees > most)
      const elsewhere = headTold(a, one)
      if (!away && !elsewhere) continue
      yield {
        code: 'pair.eyes',
        a: a.part.name,
        b: b.part.name,
        ...(away && { degrees: away.degrees }),
        whose: [a.part.id],
        spot: spotBetween(one.pass, Math.floor(away?.tick ?? elsewhere?.at ?? one.from), 'head'),
        events: [away ? one.meeting.id : (elsewhere?.id ?? one.meeting.id)],
      }
    }
  }
}

/** The ticks of a look at which somebody lands; behind the last one she is on her way to what follows. */
const ticksWithin = ({ from, until }: DancedMeeting, a: Placed, b: Placed): readonly number[] =>
  [from, ...bendsIn(a.way, from, until), ...bendsIn(b.way, from, until)].sort((x, y) => x - y)

/** Degrees from where a chest faces to where somebody is, 0 to 180. */
function degreesTo(a: Placed, b: Placed, tick: number): number {
  const [from, to] = [placeAt(a.way, tick), placeAt(b.way, tick)]
  const way = (Math.atan2(to.right - from.right, to.forward - from.forward) * 180) / Math.PI
  const off = (((way - from.facing) % 360) + 360) % 360
  return Math.min(off, 360 - off)
}

/** What her own head line says within a look at somebody: anything but to look at her partner. */
function headTold({ simulation }: Placed, { from, until }: DancedMeeting) {
  for (const pass of simulation.passes) {
    if (pass.at >= until || pass.at + pass.length <= from) continue
    for (const event of pass.events) {
      const at = pass.at + event.at
      const { what } = event
      if (event.layer !== 'head' || at < from || at >= until) continue
      if (what.kind === 'look' && what.gaze !== 'partner') return { at, id: event.id }
    }
  }
  return undefined
}
