import type { Contact } from '../body/feet'
import type { FloorPoint } from '../body/places'
import { otherSide, SIDES, type Side, signOf } from '../body/side'
import { asSeen } from '../simulate/landing'
import type { DancedStep, Simulation } from '../simulate/simulate'
import type { BodyState } from '../simulate/state'
import { countUpTo } from '../time/countUpTo'
import { eased, radians, type Track, trackThrough, valueAt } from './curve'
import { airWord, footKeyOf, type Key } from './footKeys'

/** The feet at a moment: floor point of each ankle, its height over the floor, its pitch. */
export interface FeetNow {
  readonly at: Record<
    Side,
    { right: number; forward: number; up: number; pitch: number; contact: Contact }
  >
  /** Where the pelvis is over, and how high. */
  over: { right: number; forward: number }
  height: number
  facing: number
  /** Share of the weight on the right foot. */
  onRight: number
}

/** One foot's way to a key, seen from a point it goes round with the body. */
interface Way {
  /** The foot stays where it stands, and only turns. */
  readonly stays: boolean
  readonly from: FloorPoint
  readonly to: FloorPoint
  readonly up: readonly [number, number]
  readonly pitch: readonly [number, number]
  /** How high it is lifted on the way, in metres. */
  readonly lift: number
  /** How much nearer it comes to what it goes round, half way. */
  readonly drawn: number
  /** It comes from behind the standing foot to the front of it, or back: past it quickly, round it slowly. */
  readonly isRound: boolean
  /** How far it bows out half way, so that it goes round the standing foot and not through it. */
  readonly bow: FloorPoint
}

/** The way from one key to the next. */
interface Travel {
  readonly start: number
  readonly end: number
  readonly centre: readonly [FloorPoint, FloorPoint]
  readonly ways: Readonly<Record<Side, Way>>
  /** How high the whole body leaves the floor, in metres. */
  readonly flight: number
}

/** A step leaves the floor at most so long before it lands, and the body turns as long, in ticks. */
const LONGEST_STEP = 9
/** For half a turn; a whole one may take twice as long. */
const LONGEST_TURN = 12
/** A foot that goes round with the body is drawn in by this much on its way. */
const DRAWN_IN = 0.5
/** So far the body turns over a foot that is not lifted, in degrees: legs wind round each other no further. */
const MOST_WOUND = 180
/** A foot passes the standing one at this distance at least, in metres, and bows out no more than that. */
const PASSES_AT = 0.17
/** How much of its way forward a foot that goes round leaves to the middle of it. */
const ROUND_FIRST = 0.3
const MOST_BOW = 0.32
/** A kick comes back from its height in so many ticks. */
const KICK_BACK = 7
const LIFTED_LEAST = 0.025
const LIFTED_SHARE = 0.1
const FLIGHT: Readonly<Record<string, number>> = { hop: 0.06, jump: 0.09, leap: 0.05 }
/** Everything the feet and the middle of the body do, ready to be asked for any tick. */
export interface Steps {
  readonly keys: readonly Key[]
  readonly times: Float64Array
  readonly travels: readonly Travel[]
  readonly over: readonly [Track, Track]
  readonly height: Track
  readonly facing: Track
  readonly onRight: Track
}

/** Of the weight, what a pressed foot takes for the moment. */
const PRESSED = 0.5

function shareOnRight({ weight, pressed }: BodyState): number {
  if (weight === 'both') return 0.5
  const away = pressed && pressed !== weight ? PRESSED : 0
  return weight === 'R' ? 1 - away : away
}

/** Whether the feet really move or turn; a hold does neither. */
const isStill = ({ action }: DancedStep): boolean => action.primitive === 'hold'

/** The steps of a simulation, as keys with the ways between them. */
export function stepsOf(simulation: Simulation): Steps {
  const { start, danced } = simulation
  const air: Record<Side, string> = { R: 'hang', L: 'hang' }
  const keys: Key[] = [footKeyOf(Number.NEGATIVE_INFINITY, start, air)]
  const travels: Travel[] = []
  const wound: Record<Side, number> = { R: 0, L: 0 }
  const go = (key: Key, actions: readonly DancedStep[]) => {
    const before = keys.at(-1)
    if (!before) return
    const turn = key.state.facing - before.state.facing
    for (const side of SIDES) wound[side] += turn
    const travel = travelTo(before, key, actions, wound)
    for (const side of SIDES) if (!travel.ways[side].stays) wound[side] = 0
    travels.push(travel)
    keys.push(key)
  }
  for (let i = 0; i < danced.length; ) {
    const first = danced[i]
    if (!first) break
    let next = i + 1
    while (danced[next]?.at === first.at) next++
    const together = danced.slice(i, next).filter((one) => !isStill(one))
    const last = danced[next - 1]
    i = next
    if (together.length === 0 || !last) continue
    for (const side of SIDES) {
      const lifted = together.findLast(({ action }) => action.foot === side)
      if (last.after.feet[side].contact !== 'air') air[side] = 'hang'
      else if (lifted) air[side] = airWord(lifted)
    }
    go(footKeyOf(first.at, last.after, air), together)
    const kicked = together.find(({ action }) => ['kick', 'brush'].includes(action.primitive))
    const foot = kicked?.action.foot
    const until = danced.find(({ at }, j) => j >= next && at > first.at)?.at ?? Infinity
    if (foot && last.after.feet[foot].contact === 'air' && until - first.at > KICK_BACK + 1) {
      air[foot] = 'hang'
      go(footKeyOf(first.at + KICK_BACK, last.after, air), [])
    }
  }
  return withTracks(keys, travels)
}

function withTracks(keys: readonly Key[], travels: readonly Travel[]): Steps {
  const [first] = keys
  const through = (value: (key: Key) => number) =>
    trackThrough([
      [-1e6, first ? value(first) : 0],
      ...travels.flatMap(({ start, end }, i): [number, number][] => {
        const from = keys[i]
        const to = keys[i + 1]
        return from && to
          ? [
              [start, value(from)],
              [end, value(to)],
            ]
          : []
      }),
    ])
  return {
    keys,
    times: Float64Array.from(keys.slice(1), ({ time }) => time),
    travels,
    over: [through(({ over }) => over.right), through(({ over }) => over.forward)],
    height: through(({ height }) => height),
    facing: through(({ state }) => state.facing),
    onRight: through(({ state }) => shareOnRight(state)),
  }
}

/** @param wound degrees the body has turned over each foot since that was set down */
function travelTo(
  before: Key,
  key: Key,
  actions: readonly DancedStep[],
  wound: Readonly<Record<Side, number>>,
): Travel {
  const turn = key.state.facing - before.state.facing
  const longest =
    turn === 0 ? LONGEST_STEP : LONGEST_TURN * Math.min(2, Math.max(1, Math.abs(turn) / 180))
  const start = Math.max(before.time, key.time - longest)
  const jump = actions.find(({ action }) => action.primitive === 'jump')
  const flight = Math.max(0, ...actions.map(({ action }) => FLIGHT[action.primitive] ?? 0))
  // What the feet go round: the foot that stands, or the point between them.
  const standing = jump || key.state.weight === 'both' ? undefined : supportOf(before, key)
  const centre: [FloorPoint, FloorPoint] = standing
    ? [before.feet[standing].place, key.feet[standing].place]
    : [middle(before), middle(key)]
  const way = (side: Side): Way => {
    const from = before.feet[side]
    const to = key.feet[side]
    const far = Math.hypot(to.place.right - from.place.right, to.place.forward - from.place.forward)
    const named = actions.some(({ action }) => action.foot === side)
    const stays =
      !jump &&
      far < 1e-9 &&
      from.up === to.up &&
      (side === standing || Math.abs(wound[side]) <= MOST_WOUND)
    const drags = actions.some(
      ({ action }) => action.foot === side && ['drag', 'sweep', 'sway'].includes(action.primitive),
    )
    const landsAgain = named && !drags && side !== standing
    const lifts = !stays || (landsAgain && from.up === 0)
    const [wayFrom, wayTo] = [
      asSeen(before.state.facing, centre[0], from.place),
      asSeen(key.state.facing, centre[1], to.place),
    ]
    return {
      stays: stays && !(landsAgain && far > 0),
      from: wayFrom,
      to: wayTo,
      isRound: standing !== undefined && side !== standing && goesRound(wayFrom, wayTo, side),
      bow: standing && side !== standing ? bowRound(wayFrom, wayTo, side) : STRAIGHT,
      up: [from.up, to.up],
      pitch: [from.pitch, to.pitch],
      lift: drags || !lifts ? 0 : LIFTED_LEAST + LIFTED_SHARE * far,
      drawn: Math.abs(turn) > 180 ? DRAWN_IN : 0,
    }
  }
  return { start, end: key.time, centre, ways: { R: way('R'), L: way('L') }, flight }
}

/** Metres from which on a foot is in front of the standing one, or behind it. */
const BEHIND = 0.04
const STRAIGHT: FloorPoint = { right: 0, forward: 0 }

/** How a way bows out round the foot that stands in the middle of its numbers. */
function bowRound(from: FloorPoint, to: FloorPoint, side: Side): FloorPoint {
  const bow = bowInRound(shortened(from), shortened(to), side)
  return bow === STRAIGHT ? bow : { right: bow.right, forward: bow.forward / LONG_AS_WIDE }
}

/** How far out a foot is, and after which share of its way, as it goes from behind the standing one to its front, or back. */
function ownAt(
  from: FloorPoint,
  to: FloorPoint,
  side: Side,
): { readonly far: number; readonly share: number } | undefined {
  if (from.forward * to.forward >= -BEHIND * BEHIND) return undefined
  const share = from.forward / (from.forward - to.forward)
  return { far: (from.right + (to.right - from.right) * share) * signOf(side), share }
}

/** Whether it goes so from the other side of the standing foot, or to it. */
const goesRound = (from: FloorPoint, to: FloorPoint, side: Side): boolean =>
  (ownAt(from, to, side)?.far ?? PASSES_AT) < PASSES_AT &&
  Math.min(from.right * signOf(side), to.right * signOf(side)) < 0

/** A foot is longer than it is wide: before and behind it as much more room is needed. */
const LONG_AS_WIDE = 0.46
const shortened = ({ right, forward }: FloorPoint): FloorPoint => ({
  right,
  forward: forward * LONG_AS_WIDE,
})

/** The same where a foot is as long as it is wide. */
function bowInRound(from: FloorPoint, to: FloorPoint, side: Side): FloorPoint {
  const way = { right: to.right - from.right, forward: to.forward - from.forward }
  const long = way.right ** 2 + way.forward ** 2
  if (long < 1e-9) return STRAIGHT
  const own = ownAt(from, to, side)
  // From behind the standing leg to the front of it, or back, it goes round on its own side.
  if (own !== undefined && own.far < PASSES_AT) {
    const by = Math.min(MOST_BOW, (PASSES_AT - own.far) / (4 * own.share * (1 - own.share)))
    return { right: by * signOf(side), forward: 0 }
  }
  const t = -(from.right * way.right + from.forward * way.forward) / long
  // It only passes where it is nearest on its way, not where it begins or ends.
  if (t <= 0.08 || t >= 0.92) return STRAIGHT
  const near = { right: from.right + way.right * t, forward: from.forward + way.forward * t }
  const far = Math.hypot(near.right, near.forward)
  if (far >= PASSES_AT) return STRAIGHT
  const by = Math.min(MOST_BOW, (PASSES_AT - far) / (4 * t * (1 - t)))
  // Across the way: away from the standing foot, else in front or behind as it lands, else outside.
  const across = { right: -way.forward / Math.sqrt(long), forward: way.right / Math.sqrt(long) }
  const wanted =
    far > 0.02
      ? near
      : {
          right: signOf(side) * 0.2,
          forward: Math.abs(to.forward) > 0.02 ? to.forward : from.forward,
        }
  const sign = across.right * wanted.right + across.forward * wanted.forward < 0 ? -1 : 1
  return { right: across.right * by * sign, forward: across.forward * by * sign }
}

/** The foot that carries on the way to a key: the one that does not move. */
function supportOf(before: Key, key: Key): Side | undefined {
  const isAt = (side: Side) => {
    const a = before.feet[side]
    const b = key.feet[side]
    return (
      Math.hypot(a.place.right - b.place.right, a.place.forward - b.place.forward) < 1e-9 &&
      b.up === 0
    )
  }
  const { weight } = key.state
  if (weight === 'both') return undefined
  const from = before.state.weight
  // A step goes onto the foot that moves, so the other one has carried it there.
  if (from !== 'both' && isAt(from)) return from
  if (isAt(otherSide[weight])) return otherSide[weight]
  return isAt(weight) ? weight : undefined
}

const middle = ({ feet: { R, L } }: Key): FloorPoint => ({
  right: (R.place.right + L.place.right) / 2,
  forward: (R.place.forward + L.place.forward) / 2,
})

export const feetNow = (): FeetNow => ({
  at: {
    R: { right: 0, forward: 0, up: 0, pitch: 0, contact: 'flat' },
    L: { right: 0, forward: 0, up: 0, pitch: 0, contact: 'flat' },
  },
  over: { right: 0, forward: 0 },
  height: 0,
  facing: 0,
  onRight: 0.5,
})

/** Writes where the feet are at a tick. */
export function feetAt(steps: Steps, tick: number, now: FeetNow): void {
  const index = countUpTo(steps.times, tick)
  const travel = steps.travels[index]
  const key = steps.keys[index] as Key
  now.facing = valueAt(steps.facing, tick)
  now.over.right = valueAt(steps.over[0], tick)
  now.over.forward = valueAt(steps.over[1], tick)
  now.height = valueAt(steps.height, tick)
  now.onRight = valueAt(steps.onRight, tick)
  if (!travel || tick <= travel.start) {
    for (const side of SIDES) {
      const held = key.feet[side]
      const foot = now.at[side]
      foot.right = held.place.right
      foot.forward = held.place.forward
      foot.up = held.up
      foot.pitch = held.pitch
      foot.contact = key.state.feet[side].contact
    }
    return
  }
  const passed = (tick - travel.start) / (travel.end - travel.start)
  const e = eased(passed)
  const arc = 4 * e * (1 - e)
  const angle = radians(now.facing)
  const cos = Math.cos(angle)
  const sin = Math.sin(angle)
  const [from, to] = travel.centre
  const right = from.right + (to.right - from.right) * e
  const forward = from.forward + (to.forward - from.forward) * e
  for (const side of SIDES) {
    const way = travel.ways[side]
    const foot = now.at[side]
    if (way.stays) {
      const { place } = key.feet[side]
      foot.right = place.right
      foot.forward = place.forward
    } else {
      const near = 1 - way.drawn * arc
      const past = way.isRound ? e - ROUND_FIRST * Math.sin(2 * Math.PI * e) : e
      const own =
        (way.from.right + (way.to.right - way.from.right) * e) * near + way.bow.right * arc
      const ahead =
        (way.from.forward + (way.to.forward - way.from.forward) * past) * near +
        way.bow.forward * arc
      foot.right = right + own * cos + ahead * sin
      foot.forward = forward + ahead * cos - own * sin
    }
    // Round another foot it is up until it is past that.
    const high = way.bow !== STRAIGHT ? 1 - (2 * e - 1) ** 6 : arc
    foot.up = way.up[0] + (way.up[1] - way.up[0]) * e + way.lift * high + travel.flight * arc
    foot.contact = way.lift + travel.flight + foot.up > 0 ? 'air' : key.state.feet[side].contact
    // Under way the toes hang; on the floor the foot is as its contact says.
    foot.pitch =
      way.pitch[0] +
      (way.pitch[1] - way.pitch[0]) * e +
      (way.lift > 0 ? arc * (1 - Math.max(way.pitch[0], way.pitch[1]) / 60) * 18 : 0)
  }
  now.height += travel.flight * arc
}
