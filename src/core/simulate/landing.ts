import type { Direction, FootAction } from '../body/feet'
import type { FloorPoint } from '../body/places'
import { otherSide, type Side, signOf } from '../body/side'
import { type Landing, USUAL_HOUSE } from '../house/house'
import type { BodyState } from './state'

/** Where a foot lands unless a studio says otherwise (model 4). */
export const USUAL_LANDING: Landing = USUAL_HOUSE.landing

const radians = (degrees: number) => (degrees * Math.PI) / 180

/** A step in the dancer's own frame, turned into the room's. */
export function intoRoom(facing: number, right: number, forward: number): FloorPoint {
  // Most of a dance faces front, and then there is nothing to turn.
  if (facing === 0) return { right, forward }
  const angle = radians(facing)
  return {
    right: right * Math.cos(angle) + forward * Math.sin(angle),
    forward: forward * Math.cos(angle) - right * Math.sin(angle),
  }
}

/** The way from one point of the room to another as the dancer sees it. */
export function asSeen(facing: number, from: FloorPoint, to: FloorPoint): FloorPoint {
  return intoRoom(-facing, to.right - from.right, to.forward - from.forward)
}

export const distance = (a: FloorPoint, b: FloorPoint): number =>
  Math.hypot(a.right - b.right, a.forward - b.forward)

const add = (a: FloorPoint, b: FloorPoint): FloorPoint => ({
  right: a.right + b.right,
  forward: a.forward + b.forward,
})

/**
 * Where a foot comes down (model 4).
 * @param small whether it is a small one though no size is written.
 */
export function landingOf(
  state: BodyState,
  action: FootAction,
  small: boolean,
  landing: Landing,
): FloorPoint {
  const foot = action.foot
  if (!foot) throw new Error(`${action.primitive} lands no single foot`)
  const direction: Direction = action.direction ?? 'together'
  if (direction === 'in-place') return state.feet[foot].place
  const support = state.feet[otherSide[foot]].place
  const size = action.size ? landing[action.size] : small ? landing.small : 1
  const turning = Math.abs(action.turn ?? 0) >= 45 || state.turnedOnStep
  const [own, forward] = ownSideAndForward(direction, size, turning, landing)
  const level = state.crossed && (direction === 'side' || direction === 'together')
  const lands = {
    right: own * signOf(foot),
    // Out of a cross the foot comes back to its old line, or the figure would creep.
    forward: level ? asSeen(state.facing, support, state.feet[foot].place).forward : forward,
  }
  return add(support, intoRoom(state.facing, lands.right, lands.forward))
}

/** A crossing step is never shorter than this share of one, or the foot would come down on the other. */
const LEAST_CROSS = 0.85

/** To the foot's own side, and forward of the supporting foot. */
function ownSideAndForward(
  direction: Exclude<Direction, 'in-place'>,
  size: number,
  turning: boolean,
  landing: Landing,
): readonly [number, number] {
  const { side, together, ahead, diagonal, crossAhead, crossPast } = landing
  const ownSide = turning ? 0 : landing.ownSide
  // However small it is, a foot that crosses must come past the other one.
  const past = crossPast * Math.max(1, size)
  const beyond = crossAhead * Math.max(LEAST_CROSS, size)
  switch (direction) {
    case 'together':
      return [together, 0]
    case 'side':
      return [side * size, 0]
    case 'forward':
      return [ownSide, ahead * size]
    case 'back':
      return [ownSide, -ahead * size]
    case 'diag-forward':
      return [diagonal * size, diagonal * size]
    case 'diag-back':
      return [diagonal * size, -diagonal * size]
    case 'cross-front':
      return [-past, beyond]
    case 'cross-behind':
      return [-past, -beyond]
  }
}

/** The point the dancer's body is over: half way between the feet, or just inside the standing one. */
export function middleOf(state: BodyState, landing = USUAL_LANDING): FloorPoint {
  const { R, L } = state.feet
  if (state.weight === 'both')
    return {
      right: (R.place.right + L.place.right) / 2,
      forward: (R.place.forward + L.place.forward) / 2,
    }
  return pointBeside(
    state.feet[state.weight].place,
    state.facing,
    -signOf(state.weight) * landing.middle,
  )
}

/** Where a foot stands with its heel beside the other one's. */
export const besides = (state: BodyState, foot: Side, landing: Landing): FloorPoint =>
  pointBeside(state.feet[otherSide[foot]].place, state.facing, signOf(foot) * landing.together)

/** A point this far to the dancer's right of another one. */
export const pointBeside = (from: FloorPoint, facing: number, right: number): FloorPoint =>
  add(from, intoRoom(facing, right, 0))

/** Both feet around a point of the room, this far apart. */
export function stanceAround(
  middle: FloorPoint,
  facing: number,
  apart: number,
): Readonly<Record<Side, FloorPoint>> {
  return {
    R: pointBeside(middle, facing, apart / 2),
    L: pointBeside(middle, facing, -apart / 2),
  }
}
