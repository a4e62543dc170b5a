import { type FloorPoint, palmAt } from '../body/places'
import { SIDES, type Side } from '../body/side'
import type { Carried, Prop } from '../combination/carried'
import { loopTick } from '../combination/loop'
import { roundPickup } from '../combination/passes'
import { type House, MODEL_HEIGHT } from '../house/house'
import { isCloth } from '../props/acts'
import { placeOn } from '../props/cloth'
import { facingAt, followProps } from '../props/follow'
import { courseOf } from '../simulate/course'
import { intoRoom, middleOf } from '../simulate/landing'
import { startPlaces } from '../simulate/places'
import { roundEnds, type Simulation } from '../simulate/simulate'
import type { BodyState } from '../simulate/state'

/** A box of the floor in metres, from where the dancer began. */
export interface Area {
  readonly left: number
  readonly right: number
  readonly back: number
  readonly front: number
}

/** Where the dancer is after one thing the feet did, seen in the room. */
export interface PathPoint extends FloorPoint {
  /** From the start of its round. */
  readonly at: number
  readonly facing: number
  readonly state: BodyState
  /** Where its feet stand then, in the room. */
  readonly feet: Readonly<Record<Side, FloorPoint>>
}

/** One round on one side, as it lies on the floor. */
export interface Round {
  readonly side: 'lead' | 'other'
  readonly points: readonly PathPoint[]
}

const widthOf = ({ left, right }: Area): number => right - left
const depthOf = ({ back, front }: Area): number => front - back

/** What of a dance is one round: the first one has the pickup before it, all of them where it is danced each time. */
function roundIn(simulation: Simulation, isFirst: boolean) {
  const { combination, danced, length, start } = simulation
  const { from, to } = roundEnds(simulation)
  const pickup = roundPickup(combination, 'feet')
  const until = length - pickup
  const fromOne = isFirst || pickup > 0
  const loop = loopTick(combination)
  const steps = danced.filter(({ at }) => at < until && (fromOne || at >= loop))
  const last = steps.at(-1)?.after
  return {
    begin: fromOne ? start : from,
    // The weight may settle between the feet behind the last step, and the middle with it.
    bodies: last && last.weight !== to.weight ? [...steps, { at: until, after: to }] : steps,
  }
}

/** The way of the dancer's middle through one round, from a place and a facing of the room. */
function roundFrom(
  simulation: Simulation,
  side: Round['side'],
  from: FloorPoint,
  facing: number,
  { isMirrored, isFirst }: { readonly isMirrored: boolean; readonly isFirst: boolean },
): Round {
  const { landing } = simulation.house
  const { begin: state, bodies } = roundIn(simulation, isFirst)
  const begin = middleOf(state, landing)
  const sign = isMirrored ? -1 : 1
  const turned = facing - sign * state.facing
  const point = (state: BodyState, at: number): PathPoint => {
    const middle = middleOf(state, landing)
    const placed = (point: FloorPoint): FloorPoint => {
      const right = sign * (point.right - begin.right)
      const way = intoRoom(turned, right, point.forward - begin.forward)
      return { right: from.right + way.right, forward: from.forward + way.forward }
    }
    const { R, L } = state.feet
    return {
      ...placed(middle),
      feet: isMirrored
        ? { R: placed(L.place), L: placed(R.place) }
        : { R: placed(R.place), L: placed(L.place) },
      at,
      facing: sign * state.facing + turned,
      state,
    }
  }
  return {
    side,
    points: [
      point(state, Math.min(0, bodies[0]?.at ?? 0)),
      ...bodies.map(({ after, at }) => point(after, at)),
    ],
  }
}

/**
 * Rounds one after another, each from where the one before ended: the sides in turn where
 * the combination switches, else the same side again. Without the other side danced, it is
 * the mirror image of the lead, which it is when nothing is kept.
 */
export function roundsOf(
  lead: Simulation,
  other: Simulation | undefined,
  rounds: number,
  switching: boolean,
): readonly Round[] {
  const list: Round[] = []
  let from: FloorPoint = { right: 0, forward: 0 }
  let facing = lead.start.facing
  for (let i = 0; i < rounds; i++) {
    const side = switching && i % 2 === 1 ? 'other' : 'lead'
    const simulation = side === 'other' && other ? other : lead
    const round = roundFrom(simulation, side, from, facing, {
      isMirrored: side === 'other' && !other,
      isFirst: i === 0,
    })
    list.push(round)
    const last = round.points.at(-1)
    if (last) {
      from = last
      facing = last.facing
    }
  }
  return list
}

/** The floor all of these rounds take, by the dancer's middle. */
export function areaOf(rounds: readonly Round[]): Area {
  let [left, right, back, front] = [0, 0, 0, 0]
  for (const { points } of rounds)
    for (const point of points) {
      left = Math.min(left, point.right)
      right = Math.max(right, point.right)
      back = Math.min(back, point.forward)
      front = Math.max(front, point.forward)
    }
  return { left, right, back, front }
}

/** The floor one round takes by the dancer's middle, without drawing its way: asked after every edit. */
export function areaOfOne(simulation: Simulation): Area {
  const { house } = simulation
  const { begin: stance, bodies } = roundIn(simulation, true)
  const begin = middleOf(stance, house.landing)
  let [left, right, back, front] = [0, 0, 0, 0]
  for (const { after } of bodies) {
    const middle = middleOf(after, house.landing)
    const [x, y] = [middle.right - begin.right, middle.forward - begin.forward]
    if (x < left) left = x
    if (x > right) right = x
    if (y < back) back = y
    if (y > front) front = y
  }
  return { left, right, back, front }
}

/**
 * How far from where it began a round ends, in metres of the room: after one round, or after both
 * sides where it switches, which takes back what went to the side.
 */
export function endsAway(simulation: Simulation, switches: boolean): FloorPoint {
  const { landing } = simulation.house
  const { from: begin, to: end } = roundEnds(simulation)
  const [from, to] = [middleOf(begin, landing), middleOf(end, landing)]
  const once = { right: to.right - from.right, forward: to.forward - from.forward }
  if (!switches) return once
  // The other side is the mirror image as the dancer sees it, whatever wall that begins on.
  const own = intoRoom(-begin.facing, once.right, once.forward)
  const back = intoRoom(end.facing, 0 - own.right, own.forward)
  return { right: once.right + back.right, forward: once.forward + back.forward }
}

/** The floor of the tallest dancer: longer legs take longer steps. */
export const scaledArea = (area: Area, { heights }: House): Area => {
  const by = heights.tallest / MODEL_HEIGHT
  return {
    left: area.left * by,
    right: area.right * by,
    back: area.back * by,
    front: area.front * by,
  }
}

/** How far the palms get from the middle, in metres, seen in the room, with when that is. */
export interface ArmReach {
  readonly sideways: number
  readonly deep: number
  /** The events of the arms that reach farthest. */
  readonly sidewaysEvent: number
  readonly deepEvent: number
}

/** How far a thing goes beyond the hand that swings it, in metres: a stick from where it is held, half the depth of a cloth. */
function beyondHand({ kind, size }: Prop, { hands }: Carried): number {
  // A skirt is worn: its hem goes no farther than the arm that swings it.
  if (kind === 'skirt') return 0
  if (isCloth(kind)) return size.deep / 2
  const at = [hands.R, hands.L].flatMap((on) => on?.at ?? [])
  const free = at.map((feature) => {
    const [along] = placeOn(size, feature)
    return Math.max(along, size.long - along)
  })
  return Math.max(0, ...free)
}

/** The farthest palms of one round, with the margin of air beyond them (model 8). */
export function armReach(simulation: Simulation): ArmReach {
  const { house, combination, danced } = simulation
  const tall = house.heights.tallest / MODEL_HEIGHT
  const margin = house.limits['space.armMargin']
  const runs = courseOf(simulation).filter(({ event }) => event.layer === 'arms')
  const best = { sideways: 0, deep: 0, sidewaysEvent: -1, deepEvent: -1 }
  type Arms = ReturnType<typeof startPlaces>['arms']
  const look = (
    arms: Arms,
    facing: number,
    event: number,
    beyond = 0,
    hands: readonly Side[] = SIDES,
  ) => {
    for (const side of hands) {
      const palm = palmAt(side, arms[side], house.palms)
      const seen = intoRoom(facing, palm.right, palm.forward)
      const far = 1 + beyond / (Math.hypot(palm.right, palm.forward) || 1)
      const [sideways, deep] = [Math.abs(seen.right) * far, Math.abs(seen.forward) * far]
      if (sideways > best.sideways) Object.assign(best, { sideways, sidewaysEvent: event })
      if (deep > best.deep) Object.assign(best, { deep, deepEvent: event })
    }
  }
  let facing = simulation.start.facing
  let step = 0
  look(startPlaces(combination.start).arms, facing, -1)
  for (const [i, run] of runs.entries()) {
    const until = runs[i + 1]?.at ?? simulation.length
    for (; (danced[step]?.at ?? Infinity) <= run.at; step++)
      facing = danced[step]?.after.facing ?? facing
    look(run.after.arms, facing, i)
    for (let j = step; (danced[j]?.at ?? Infinity) < until; j++) {
      const turned = danced[j]?.after.facing ?? facing
      if (turned !== facing) look(run.after.arms, turned, i)
    }
  }
  // What is swung or thrown goes farther than the hand.
  for (const { act, prop, hand, before, from } of followProps(simulation).acts) {
    if (act.act !== 'swish' && act.act !== 'throw') continue
    const last = runs.findLastIndex(({ at }) => at <= from)
    const arms = runs[last]?.after.arms ?? startPlaces(combination.start).arms
    const hands = hand ? [hand] : SIDES.filter((side) => before.hands[side])
    look(arms, facingAt(simulation, from), last, beyondHand(prop, before), hands)
  }
  return {
    ...best,
    sideways: best.sideways * tall + margin,
    deep: best.deep * tall + margin,
  }
}

/** How a class stands in a room. */
export interface ClassFit {
  /** Dancers that have room to dance all of it. */
  readonly fit: number
  readonly columns: number
  readonly rows: number
}

/** Metres a group takes by itself where it stands: nothing for one dancer. */
interface Standing {
  readonly width: number
  readonly depth: number
}

const ALONE: Standing = { width: 0, depth: 0 }

/**
 * How many dancers, in rows, can dance something that takes this much floor (model 8); how many
 * groups, where several dance it together.
 * @param group what one of them takes from its first dancer to its last
 */
export function classFit(area: Area, house: House, group: Standing = ALONE): ClassFit {
  const { room, staggered, limits } = house
  const along = (size: number, taken: number, apart: number) =>
    taken > size ? 0 : Math.floor((size - taken) / apart + 1e-9) + 1
  const across = limits['space.sideways'] + group.width
  const columns = along(room.width, widthOf(area), across)
  const rows = along(room.depth, depthOf(area), limits['space.deep'] + group.depth)
  if (columns === 0 || rows === 0) return { fit: 0, columns: 0, rows: 0 }
  // A staggered row stands half a place further; without the room for that it loses one.
  const shifted = along(room.width - across / 2, widthOf(area), across)
  const second = staggered ? shifted : columns
  const fit = Math.ceil(rows / 2) * columns + Math.floor(rows / 2) * second
  return { fit, columns, rows }
}

/** Where the dancers of a class stand in the room, from its middle: rows from the front, as full as they go. */
export function classPlaces(house: House): readonly FloorPoint[] {
  const { room, dancers, staggered, limits } = house
  const [apart, deep] = [limits['space.sideways'], limits['space.deep']]
  const across = Math.max(1, Math.floor(room.width / apart))
  const rows = Math.ceil(dancers / across)
  const perRow = Math.ceil(dancers / rows)
  return Array.from({ length: dancers }, (_, i) => {
    const row = Math.floor(i / perRow)
    const shift = staggered && row % 2 === 1 ? apart / 2 : 0
    return {
      right: ((i % perRow) - (perRow - 1) / 2) * apart + shift,
      forward: ((rows - 1) / 2 - row) * deep,
    }
  })
}

const SMALLEST_STEPS = 0.3

/** The largest step size, 1 being as written, at which the whole class fits; absent where none does. */
export function stepSizeThatFits(area: Area, house: House): number | undefined {
  for (let percent = 100; percent >= SMALLEST_STEPS * 100; percent -= 5) {
    const by = percent / 100
    const smaller = {
      left: area.left * by,
      right: area.right * by,
      back: area.back * by,
      front: area.front * by,
    }
    if (classFit(smaller, house).fit >= house.dancers) return by
  }
  return undefined
}

/** How far each phrase carries the dancer, in metres of the room, by its pass. */
export function travelByPass(simulation: Simulation): readonly FloorPoint[] {
  const { landing } = simulation.house
  let before = middleOf(simulation.opening, landing)
  return simulation.passes.map((pass) => {
    const last = simulation.danced.findLast((danced) => danced.pass.index === pass.index)
    const now = last ? middleOf(last.after, landing) : before
    const travel = { right: now.right - before.right, forward: now.forward - before.forward }
    before = now
    return travel
  })
}

export const sizeOf = (area: Area): { width: number; depth: number } => ({
  width: widthOf(area),
  depth: depthOf(area),
})
