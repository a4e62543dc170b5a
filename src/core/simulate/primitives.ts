import { type Contact, type Direction, type FootAction, factsOf, WAY_ANGLES } from '../body/feet'
import type { FloorPoint, Level } from '../body/places'
import { otherSide, SIDES, type Side, signOf } from '../body/side'
import type { Landing } from '../house/house'
import { COUNT, type Tick } from '../time/time'
import {
  asSeen,
  besides,
  distance,
  intoRoom,
  landingOf,
  middleOf,
  pointBeside,
  stanceAround,
  USUAL_LANDING,
} from './landing'
import type { BodyState } from './state'

/** How the weight logic can break; one slip, one fault (model 4). */
export const WEIGHT_FAULTS = ['feet.loaded', 'feet.loaded-touch', 'feet.no-support'] as const
export type WeightFault = (typeof WEIGHT_FAULTS)[number]

export interface Outcome {
  readonly state: BodyState
  readonly fault: WeightFault | undefined
}

/** Dances one thing the feet do. After a fault it goes on as a dancer would save it. */
export function dance(
  before: BodyState,
  action: FootAction,
  at: Tick,
  landing = USUAL_LANDING,
  settles = false,
): Outcome {
  const state = atEase(settledFor(before, action, settles), action)
  const fault = faultOf(state, action)
  const ready = fault ? saved(state, action, fault) : state
  const moved = move(ready, action, at, landing)
  const turned = turn(moved, action, landing)
  return { state: pressedAfter(turned, action), fault }
}

/** A press lasts until the feet do something else: till then the weight may come home by itself. */
function pressedAfter(state: BodyState, { primitive, foot }: FootAction): BodyState {
  if (factsOf(primitive).levelOnly) return state
  const pressed = primitive === 'press' ? foot : undefined
  return pressed === state.pressed ? state : { ...state, pressed }
}

/**
 * The height of a moment ends: a bend and straight knees with the next landing, sway or centre, a
 * rise with one that is not on the ball.
 */
function atEase(state: BodyState, action: FootAction): BodyState {
  const { moment } = state
  if (moment === undefined || !endsMoment(moment, action)) return state
  return { ...state, moment: undefined, level: state.stands }
}

function endsMoment(moment: NonNullable<BodyState['moment']>, action: FootAction): boolean {
  const { primitive } = action
  const { lands, needs } = factsOf(primitive)
  const comesHome = needs === 'both-on-floor' || needs === 'home'
  if (!lands && !comesHome) return false
  if (moment === 'bent') return true
  return moment === 'straight' || !lands || contactOf(action) !== 'ball'
}

/**
 * The weight on both feet, where both stand flat: while the hips or the trunk dance on planted feet
 * it settles there by itself (model 4).
 */
export const settled = (state: BodyState): BodyState =>
  state.weight !== 'both' &&
  state.level !== 'toes' &&
  SIDES.every((side) => state.feet[side].contact === 'flat')
    ? { ...state, weight: 'both' }
    : state

/** The body before a step that the weight may have settled for: a hop or a pivot goes on over the foot that carries. */
export function settledFor(
  state: BodyState,
  { primitive }: FootAction,
  settles: boolean,
): BodyState {
  const { needs } = factsOf(primitive)
  return settles && (needs === 'free' || needs === 'free-touch' || needs === 'home')
    ? settled(state)
    : state
}

function faultOf(state: BodyState, { primitive, foot }: FootAction): WeightFault | undefined {
  const inTheAir = SIDES.some((side) => state.feet[side].contact === 'air')
  switch (factsOf(primitive).needs) {
    case 'free':
      return state.weight === foot ? 'feet.loaded' : undefined
    case 'free-touch':
      return state.weight === foot ? 'feet.loaded-touch' : undefined
    case 'home':
      return state.weight === foot && state.pressed === undefined ? 'feet.loaded' : undefined
    case 'loaded':
      return state.weight === foot ? undefined : 'feet.no-support'
    case 'both-on-floor':
      return inTheAir ? 'feet.no-support' : undefined
    case 'support':
    case 'nothing':
      return undefined
  }
}

/** Both feet on their balls: nothing holds them to the floor. */
export const isOnToes = (state: BodyState): boolean =>
  state.level === 'toes' || SIDES.every((side) => state.feet[side].contact === 'ball')

function saved(state: BodyState, { foot }: FootAction, fault: WeightFault): BodyState {
  switch (fault) {
    case 'feet.loaded':
      return state // the step itself puts the weight where it was written
    case 'feet.loaded-touch':
      // The foot that takes over may be in the air: it comes down first.
      return foot ? { ...standing(state, otherSide[foot]), weight: otherSide[foot] } : state
    case 'feet.no-support':
      return SIDES.filter((side) => state.feet[side].contact === 'air').reduce(
        (down, side) => put(down, side, down.feet[side].place, 'flat'),
        state,
      )
  }
}

const standing = (state: BodyState, foot: Side): BodyState =>
  state.feet[foot].contact === 'air' ? put(state, foot, state.feet[foot].place, 'flat') : state

function put(state: BodyState, foot: Side, place: FloorPoint, contact: Contact): BodyState {
  const { R, L } = state.feet
  const placed = { place, contact }
  // Written out, since this runs for every step and a computed key is slow.
  return { ...state, feet: foot === 'R' ? { R: placed, L } : { R, L: placed } }
}

function move(state: BodyState, action: FootAction, at: Tick, landing: Landing): BodyState {
  const { primitive, foot } = action
  const lands = factsOf(primitive).lands
  const landed = lands ? { ...state, lastLanding: at } : state
  switch (primitive) {
    case 'step':
    case 'close':
    case 'leap':
      return foot
        ? {
            ...place(
              action.shared ? standing(landed, otherSide[foot]) : landed,
              state,
              action,
              foot,
              at,
              landing,
            ),
            weight: action.shared ? 'both' : foot,
          }
        : state
    case 'recover':
      return foot ? recovered(state, foot, at) : state
    case 'press':
    case 'touch':
    case 'heel':
    case 'stamp':
    case 'sweep':
    case 'drag':
      return foot
        ? { ...place(landed, state, action, foot, at, landing), weight: otherSide[foot] }
        : state
    case 'brush':
    case 'kick':
    case 'lift':
      return foot
        ? { ...put(state, foot, state.feet[foot].place, 'air'), weight: otherSide[foot] }
        : state
    case 'sway':
      return foot ? { ...grounded(state, foot), weight: foot } : state
    case 'centre':
      return { ...SIDES.reduce(grounded, state), weight: 'both' }
    case 'hop':
      return foot ? hopped(landed, action, foot, landing) : state
    case 'jump':
      return jumped(landed, action, landing)
    case 'rise':
      return { ...state, level: 'toes', moment: 'risen' }
    case 'lower':
    case 'up':
      return stands(state, 'soft')
    case 'low':
    case 'deep':
    case 'tall':
    case 'toes':
      return stands(state, primitive)
    case 'straighten':
      return { ...state, level: 'tall', moment: 'straight' }
    case 'bend':
      return { ...state, level: action.size === 'large' ? 'deep' : 'low', moment: 'bent' }
    case 'free':
      return { ...stands(SIDES.reduce(grounded, state), 'soft'), weight: 'both' }
    case 'pivot':
    case 'hold':
      return state
  }
}

/** A height that lasts. */
const stands = (state: BodyState, level: Level): BodyState => ({
  ...state,
  level,
  stands: level,
  moment: undefined,
})

/** The weight comes home onto a foot: only one that was in the air lands. */
function recovered(state: BodyState, foot: Side, at: Tick): BodyState {
  const comesDown = state.feet[foot].contact === 'air'
  return { ...grounded(state, foot), weight: foot, ...(comesDown && { lastLanding: at }) }
}

/** The foot that carries springs from where it stands, and the other one goes along. */
function hopped(landed: BodyState, action: FootAction, foot: Side, landing: Landing): BodyState {
  const down = put(landed, foot, landed.feet[foot].place, contactIn(landed, action))
  if (!action.direction) return { ...down, weight: foot }
  const size = action.size ? landing[action.size] : 1
  const way = wayOf(action.direction, landing.hop * size, foot)
  return { ...shifted(down, intoRoom(down.facing, way.right, way.forward)), weight: foot }
}

/** Both feet moved over the floor by the same way. */
function shifted(state: BodyState, by: FloorPoint): BodyState {
  const moved = ({ place, contact }: BodyState['feet']['R']) => ({
    contact,
    place: { right: place.right + by.right, forward: place.forward + by.forward },
  })
  return { ...state, feet: { R: moved(state.feet.R), L: moved(state.feet.L) } }
}

/** Where a spring of so many metres goes, as the dancer sees it. */
function wayOf(direction: Direction | undefined, metres: number, foot: Side): FloorPoint {
  const angle = direction && WAY_ANGLES[direction]
  return angle === undefined ? { right: 0, forward: 0 } : intoRoom(signOf(foot) * angle, 0, metres)
}

/** While one stands on the toes every foot that comes down does so on its ball. */
const contactIn = (state: BodyState, action: FootAction): Contact => {
  const contact = contactOf(action)
  return state.stands === 'toes' && action.contact === undefined && contact === 'flat'
    ? 'ball'
    : contact
}

const contactOf = (action: FootAction): Contact =>
  action.contact ?? factsOf(action.primitive).contact ?? 'flat'

/** A foot that takes weight again without moving stands flat. */
const grounded = (state: BodyState, foot: Side): BodyState =>
  put(state, foot, state.feet[foot].place, state.stands === 'toes' ? 'ball' : 'flat')

function place(
  landed: BodyState,
  before: BodyState,
  action: FootAction,
  foot: Side,
  at: Tick,
  landing: Landing,
): BodyState {
  const quick = before.lastLanding !== undefined && at - before.lastLanding < COUNT
  const small = action.primitive === 'step' && quick
  const to = landingOf(before, action, small, landing)
  const way = crossWay(action)
  const stays = action.direction === 'in-place'
  return {
    ...put(landed, foot, to, contactIn(before, action)),
    crossed: way ? { foot, way } : stays ? before.crossed : undefined,
  }
}

function crossWay({ direction }: FootAction): 'front' | 'behind' | undefined {
  if (direction === 'cross-front') return 'front'
  return direction === 'cross-behind' ? 'behind' : undefined
}

function jumped(state: BodyState, action: FootAction, landing: Landing): BodyState {
  const apart = Math.abs(asSeen(state.facing, state.feet.L.place, state.feet.R.place).right)
  const middle = middleOf(state, landing)
  const aside = action.jump === 'R' || action.jump === 'L' ? signOf(action.jump) : 0
  const size = action.size ? landing[action.size] : 1
  const way = wayOf(action.direction, landing.jump * size, 'R')
  const from = intoRoom(state.facing, way.right, way.forward)
  const start = { right: middle.right + from.right, forward: middle.forward + from.forward }
  const contact = state.stands === 'toes' ? 'ball' : 'flat'
  const to = stanceAround(
    pointBeside(start, state.facing, aside * landing.jumpOut),
    state.facing,
    jumpWidth(action, apart, landing),
  )
  return {
    ...put(put(state, 'R', to.R, contact), 'L', to.L, contact),
    weight: 'both',
    crossed: undefined,
  }
}

function jumpWidth({ jump }: FootAction, apart: number, landing: Landing): number {
  if (jump === 'out') return landing.jumpOut
  if (jump === 'in') return landing.together
  const fits = jump === 'both' && apart >= landing.together && apart <= landing.jumpOut
  return fits ? apart : landing.stance
}

/** Turns the facing, and draws a free foot in that the turn has left behind. */
function turn(state: BodyState, action: FootAction, landing: Landing): BodyState {
  const degrees = action.turn ?? 0
  const steps = action.primitive === 'step'
  const turnedOnStep = steps ? Math.abs(degrees) >= 45 : state.turnedOnStep
  if (degrees === 0) return turnedOnStep === state.turnedOnStep ? state : { ...state, turnedOnStep }
  const turned = { ...state, facing: state.facing + degrees, turnedOnStep }
  if (turned.weight === 'both') return turned
  const free = otherSide[turned.weight]
  const [standing, hanging] = [turned.feet[turned.weight].place, turned.feet[free].place]
  const own = asSeen(turned.facing, standing, hanging).right * signOf(free)
  const leftBehind = own < -landing.wrongSide || distance(standing, hanging) > landing.tooFar
  return leftBehind
    ? put(turned, free, besides(turned, free, landing), turned.feet[free].contact)
    : turned
}
