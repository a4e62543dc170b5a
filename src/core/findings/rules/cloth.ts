import { factsOf } from '../../body/feet'
import type { ArmPlace, FloorPoint } from '../../body/places'
import { SIDES, type Side } from '../../body/side'
import type { Carried, Prop } from '../../combination/carried'
import { claimOf } from '../../combination/claims'
import type { DancedEvent } from '../../combination/lengths'
import { nameOf } from '../../combination/names'
import type { Pass } from '../../combination/passes'
import { armsBefore } from '../../props/arms'
import { alongBetween, apart, type OnFloor, onFloor, palmsAt } from '../../props/cloth'
import { followProps } from '../../props/follow'
import { heldAt } from '../../props/held'
import { courseOf, endPlaces } from '../../simulate/course'
import { intoRoom, middleOf } from '../../simulate/landing'
import { beforeStep, type DancedStep } from '../../simulate/simulate'
import type { BodyState } from '../../simulate/state'
import type { Found } from '../finding'
import { type Danceable, type Rule, spotIn, spotOf } from '../rule'
import { handsNeeded } from './props'

/** Arm holds that are holds of something, and of what. */
export const HOLDS: ReadonlyMap<string, Prop['kind']> = new Map([
  ['veil-frame', 'veil'],
  ['veil-wrap-hold', 'veil'],
])

/** What arms and feet do with a thing in the hands: pulled too far, clapped with, wound in, trodden on. */
export const cloth: Rule = {
  id: 'cloth',
  *check(danceable) {
    if (!danceable.simulation.combination.carried) return
    yield* inArms(danceable)
    yield* underfoot(danceable)
  },
}

function* inArms(danceable: Danceable): Generator<Found> {
  const { simulation, vocabulary, house } = danceable
  for (const { pass, event, at, end, after } of courseOf(simulation)) {
    if (event.layer !== 'arms') continue
    for (const [prop, carried] of heldAt(simulation, at + 0.5)) {
      yield* handsTold(pass, event, prop, carried, danceable)
      const wanted = event.what.kind === 'move' && HOLDS.get(event.what.move)
      const isHeld = SIDES.every((side) => carried.hands[side])
      if (wanted === prop.kind && !isHeld)
        yield {
          code: 'prop.two-hands',
          prop: prop.name,
          act: undefined,
          move: nameOf(event, vocabulary),
          spot: spotOf(pass, event),
          events: [event.id],
        }
      yield* wrapped(pass, event, prop, carried, danceable)
    }
    for (const [prop, { hands }] of heldAt(simulation, end)) {
      if (prop.kind === 'skirt' || !hands.R || !hands.L) continue
      const palms = palmsAt(after.arms, house.palms)
      const metres = apart(palms.R, palms.L)
      const most = alongBetween(prop.size, hands.R.at, hands.L.at)
      if (metres <= most * house.limits['prop.handsApart']) continue
      yield {
        code: 'prop.hands-apart',
        prop: prop.name,
        metres,
        most,
        isPass: false,
        spot: spotOf(pass, event),
        events: [event.id],
      }
    }
  }
}

/** A hand that is to clap, to lie on the other one or behind the head, and holds something. */
function* handsTold(
  pass: Pass,
  event: DancedEvent,
  prop: Prop,
  { hands }: Carried,
  { vocabulary }: Danceable,
): Generator<Found> {
  const [hand, both] = handsNeeded(event, vocabulary).filter(
    (side) => hands[side] && hands[side].grip !== 'hook',
  )
  if (hand)
    yield {
      code: 'prop.clap',
      prop: prop.name,
      ...(!both && { hand }),
      move: nameOf(event, vocabulary),
      spot: spotOf(pass, event),
      events: [event.id],
    }
}

/** An arm that is wrapped in cloth and told to go somewhere; rolling in and out has its own arms. */
function* wrapped(
  pass: Pass,
  event: DancedEvent,
  prop: Prop,
  { drape, wound }: Carried,
  { vocabulary, simulation }: Danceable,
): Generator<Found> {
  const side = drape === 'wrap-R' ? 'R' : drape === 'wrap-L' ? 'L' : undefined
  if (!side || wound === 0 || !claimOf(event, vocabulary).parts.includes(`arm${side}`)) return
  if (event.what.kind === 'move' && HOLDS.has(event.what.move)) return
  const from = pass.at + event.at
  const isUnrolled = followProps(simulation).acts.some(
    (one) =>
      one.prop.id === prop.id &&
      one.act.act === 'unroll' &&
      one.from < from + event.length &&
      one.until > from,
  )
  if (isUnrolled) return
  yield {
    code: 'prop.wound',
    prop: prop.name,
    halves: wound,
    move: nameOf(event, vocabulary),
    spot: spotOf(pass, event),
    events: [event.id],
  }
}

/** Feet that come down on cloth; also in the next round, for as long as it lies there as it was left. */
function* underfoot(danceable: Danceable): Generator<Found> {
  const { simulation, joins } = danceable
  const { slices, combination } = simulation
  for (const slice of slices)
    for (const [i, step] of slice.danced.entries()) {
      const arms = armsBefore(simulation, step.at)
      yield* under(step, beforeStep(slice, i), heldAt(simulation, step.at), arms, danceable)
    }
  const [first] = slices
  if (!first || combination.once || !joins.repeats) return
  const { acts, ends } = followProps(simulation)
  const changed = Math.min(...acts.map(({ from }) => from), Number.POSITIVE_INFINITY)
  const moved = courseOf(simulation).find(({ event }) => event.layer === 'arms')?.at ?? changed
  const left = (combination.carried ?? []).map(
    (prop) => [prop, ends.get(prop.id) ?? prop.start] as const,
  )
  for (const [i, step] of first.danced.entries())
    if (step.at >= 0 && step.at <= Math.min(changed, moved))
      yield* under(step, beforeStep(first, i), left, endPlaces(simulation).arms, danceable)
}

function* under(
  { action, after, at, pass, event }: DancedStep,
  before: BodyState,
  held: readonly (readonly [Prop, Carried])[],
  arms: Readonly<Record<Side, ArmPlace>>,
  { house }: Danceable,
): Generator<Found> {
  const { foot, primitive } = action
  if (!foot || !factsOf(primitive).lands) return
  for (const [prop, carried] of held) {
    const lies = onFloor(prop, carried, palmsAt(arms, house.palms), house)
    if (!lies) continue
    const middle = middleOf(before, house.landing)
    const place = after.feet[foot].place
    const seen = intoRoom(
      -before.facing,
      place.right - middle.right,
      place.forward - middle.forward,
    )
    if (farFrom(seen, lies) > lies.reach) continue
    yield {
      code: 'prop.underfoot',
      prop: prop.name,
      metres: lies.over,
      foot,
      spot: spotIn(pass, at, 'feet'),
      events: [event.id],
    }
  }
}

/** How far a point is from where a cloth lies. */
function farFrom(point: FloorPoint, { from, to }: OnFloor): number {
  const way = { right: to.right - from.right, forward: to.forward - from.forward }
  const long = way.right ** 2 + way.forward ** 2
  const share =
    long === 0
      ? 0
      : Math.min(
          1,
          Math.max(
            0,
            ((point.right - from.right) * way.right +
              (point.forward - from.forward) * way.forward) /
              long,
          ),
        )
  return Math.hypot(
    point.right - from.right - way.right * share,
    point.forward - from.forward - way.forward * share,
  )
}
