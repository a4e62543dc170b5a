import type { FloorPoint } from '../body/places'
import { SIDES, signOf } from '../body/side'
import { type Hand, isHand, isOfHands, type OfHands } from '../combination/between'
import type { PartId } from '../combination/whose'
import { MODEL_HEIGHT } from '../house/house'
import { remembered } from '../record/remembered'
import type { DancedMeeting } from '../simulate/company'
import { intoRoom } from '../simulate/landing'
import type { Piece, Placed } from './piece'
import { placeAt } from './way'

/** Of a dancer of 1.65 m, in metres: from the chest's middle to a shoulder, how high that is, and how far a palm gets. */
export const BODY = { shoulderAside: 0.165, shoulderUp: 1.39, chestUp: 1.27, arm: 0.582 } as const
/** Places of a body a hand is laid on: how high, and how far from the middle to the side. */
const SPOTS = {
  shoulder: { up: 1.39, aside: 0.165 },
  elbow: { up: 1.12, aside: 0.2 },
  wrist: { up: 0.95, aside: 0.22 },
  waist: { up: 1.05, aside: 0.13 },
  back: { up: 1.2, aside: 0 },
  head: { up: 1.6, aside: 0 },
  hip: { up: 0.92, aside: 0.15 },
} as const
export interface Held extends DancedMeeting {
  readonly what: OfHands
  readonly from_: Placed
  readonly to_: Placed
}

/** Holds and touches, with who is in them; worked out once for a piece. */
export const heldIn = (piece: Piece): readonly Held[] => heldOf(piece, undefined)

const heldOf = remembered(({ meetings, placed }: Piece, _: undefined): readonly Held[] => {
  const of = (id: PartId) => placed.find(({ part }) => part.id === id)
  return meetings.flatMap((one): readonly Held[] => {
    const { what } = one.meeting
    if (!isOfHands(what)) return []
    const [from_, to_] = [of(what.from.part), of(what.to.part)]
    return from_ && to_ ? [{ ...one, what, from_, to_ }] : []
  })
})

const scaleOf = ({ part }: Placed): number => (part.height ?? MODEL_HEIGHT) / MODEL_HEIGHT

export interface Spot3 extends FloorPoint {
  readonly up: number
}

/** A point of a body that stands upright, from her middle: aside to her right, and up. */
export function pointOf(one: Placed, tick: number, aside: number, up: number, forward = 0): Spot3 {
  const { right, forward: ahead, facing } = placeAt(one.way, tick)
  const scale = scaleOf(one)
  const off = intoRoom(facing, aside * scale, forward * scale)
  return { right: right + off.right, forward: ahead + off.forward, up: up * scale }
}

export const shoulderOf = (one: Placed, { side }: Hand, tick: number): Spot3 =>
  pointOf(one, tick, signOf(side) * BODY.shoulderAside, BODY.shoulderUp)

export const apartOf = (a: Spot3, b: Spot3): number =>
  Math.hypot(a.right - b.right, a.forward - b.forward, a.up - b.up)

/** How long what a hand holds at the start is, in metres. */
const longIn = ({ simulation }: Placed, { side }: Hand): number =>
  Math.max(
    0,
    ...(simulation.combination.carried ?? []).flatMap(({ start, size }) =>
      start.hands[side] ? [size.long] : [],
    ),
  )

/** How far two are from reaching each other at a tick, and how far they reach at all. */
export function gapAt(
  { what, from_, to_ }: Held,
  tick: number,
): { readonly apart: number; readonly reach: number } {
  const shoulder = shoulderOf(from_, what.from, tick)
  const arm = BODY.arm * scaleOf(from_)
  if (isHand(what.to)) {
    const strikes = what.kind === 'touch' && what.as === 'strike'
    const beyond = strikes ? longIn(from_, what.from) + longIn(to_, what.to) : 0
    return {
      apart: apartOf(shoulder, shoulderOf(to_, what.to, tick)),
      reach: arm + BODY.arm * scaleOf(to_) + beyond,
    }
  }
  const { on, side } = what.to
  // A knee or a foot is reached by bending down to it: how far that is, nobody wrote.
  if (on === 'knee' || on === 'foot') return { apart: 0, reach: arm }
  const { up, aside } = SPOTS[on]
  const near = SIDES.filter((one) => !side || one === side).map((one) =>
    apartOf(shoulder, pointOf(to_, tick, signOf(one) * aside, up)),
  )
  return { apart: Math.min(...near), reach: arm }
}

/** About where two meet: half way between their shoulders, at a hand's height. */
export function meetingPoint({ what, from_, to_ }: Held, tick: number): Spot3 {
  const a = shoulderOf(from_, what.from, tick)
  if (!isHand(what.to)) {
    const { on } = what.to
    const spot = on === 'knee' || on === 'foot' ? SPOTS.hip : SPOTS[on]
    return pointOf(to_, tick, 0, spot.up)
  }
  const b = shoulderOf(to_, what.to, tick)
  return {
    right: (a.right + b.right) / 2,
    forward: (a.forward + b.forward) / 2,
    up: what.kind === 'hold' && what.height === 'overhead' ? 1.85 : 1.05,
  }
}
