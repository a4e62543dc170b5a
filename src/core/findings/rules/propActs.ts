import { SIDES } from '../../body/side'
import { actRow } from '../../props/acts'
import { armsBefore } from '../../props/arms'
import { alongBetween, apart, lagOf, palmsAt } from '../../props/cloth'
import { type DoneAct, facingAt, followProps, type Hindrance } from '../../props/follow'
import { isAtOnce } from '../../props/held'
import { intoRoom } from '../../simulate/landing'
import { tick } from '../../time/time'
import { secondsBetween, ticksFrom } from '../../time/timeMap'
import type { Fact, Found } from '../finding'
import { type Danceable, type Rule, spotIn } from '../rule'

/** Where something done with a thing is, and that it is about it. */
const about = ({ act, pass, from }: DoneAct): Pick<Found, 'spot' | 'events'> => ({
  spot: spotIn(pass, tick(from), 'arms'),
  events: [act.id],
})

function factOf(one: DoneAct, hindrance: Hindrance): Fact {
  const { prop, act } = one
  const named = { prop: prop.name, act: act.act }
  switch (hindrance.why) {
    case 'full':
      return { code: 'prop.full', ...named, hand: hindrance.hand, holds: hindrance.holds }
    case 'empty':
      return { code: 'prop.empty', ...named, ...(hindrance.hand && { hand: hindrance.hand }) }
    case 'two-hands':
      return { code: 'prop.two-hands', ...named }
    case 'drape':
      return { code: 'prop.drape', ...named, is: hindrance.is, from: hindrance.from }
    case 'kind':
      return { code: 'prop.drape', ...named, is: one.before.drape, from: [] }
    case 'unready':
      return { code: 'prop.unready', ...named, ready: hindrance.ready }
    case 'no-turn':
      return { code: 'prop.no-turn', ...named }
  }
}

const isFault = ({ why }: Hindrance): boolean => why !== 'unready' && why !== 'no-turn'

/** What can't be done with a thing as it is held, and what is thrown and not caught. */
export const propFaults: Rule = {
  id: 'prop-faults',
  *check(danceable) {
    const { acts } = followProps(danceable.simulation)
    for (const one of acts)
      for (const hindrance of one.hindrances)
        if (isFault(hindrance)) yield { ...factOf(one, hindrance), ...about(one) }
    yield* inTheAir(acts, danceable)
    yield* oneHandTwice(acts)
  },
}

/** Two things one hand is to do at once. */
function* oneHandTwice(acts: readonly DoneAct[]): Generator<Found> {
  for (const [i, one] of acts.entries()) {
    const other = acts
      .slice(i + 1)
      .find(
        (next) =>
          next.from < one.until &&
          next.pass.index === one.pass.index &&
          busyHands(one).some((hand) => busyHands(next).includes(hand)),
      )
    if (!other) continue
    yield {
      code: 'layer.clash',
      first: actRow(one.act.act).name,
      second: actRow(other.act.act).name,
      parts: busyHands(one)
        .filter((hand) => busyHands(other).includes(hand))
        .map((hand) => `arm${hand}` as const),
      severity: 'fault',
      ...about(other),
      events: [other.act.id, one.act.id],
    }
  }
}

/** The hands something is done with; none for what asks nothing of them. */
function busyHands({ act, hand, before }: DoneAct) {
  if (act.act === 'ready' || act.act === 'carry' || act.act === 'round') return []
  return hand ? [hand] : SIDES.filter((side) => before.hands[side])
}

/** Throws that nobody catches, in no time, or where they do not come down. */
function* inTheAir(acts: readonly DoneAct[], { simulation, house }: Danceable): Generator<Found> {
  const { limits } = house
  for (const [i, one] of acts.entries()) {
    if (one.act.act !== 'throw' || one.after.drape !== 'air') continue
    const found = (why: 'lost' | 'short' | 'long' | 'far', by: number): Found => ({
      code: 'prop.air',
      prop: one.prop.name,
      why,
      by,
      ...about(one),
    })
    const next = acts.slice(i + 1).find(({ prop }) => prop.id === one.prop.id)
    if (next?.act.act !== 'catch') {
      yield found('lost', 0)
      continue
    }
    const seconds = secondsBetween(simulation.time, one.from, next.from)
    const most = limits[one.prop.kind === 'stick' ? 'prop.airStick' : 'prop.airCloth']
    if (seconds < limits['prop.airLeast']) yield found('short', seconds)
    else if (seconds > most + 1e-9) yield found('long', seconds)
    const metres = missedBy(one, next, { simulation, house })
    if (metres > limits['prop.landing']) yield found('far', metres)
  }
}

/** How far a catching hand is from where the thing comes down: where the hand was, over the same floor. */
function missedBy(
  thrown: DoneAct,
  caught: DoneAct,
  { simulation, house }: Pick<Danceable, 'simulation' | 'house'>,
): number {
  const from = thrown.hand ?? SIDES.find((side) => thrown.before.hands[side])
  if (!from || !caught.hand) return 0
  const arms = (at: number) => palmsAt(armsBefore(simulation, at + 0.5), house.palms)
  const [left, there] = [arms(thrown.from)[from], arms(caught.from)[caught.hand]]
  const turned = facingAt(simulation, caught.from) - facingAt(simulation, thrown.from)
  // It comes down over the floor she goes along with; a turn leaves it where it was.
  const down = intoRoom(-turned, left.right, left.forward)
  return Math.hypot(down.right - there.right, down.forward - there.forward)
}

/** What is not ready, has no time, or comes while the cloth is still on its way. */
export const propActs: Rule = {
  id: 'prop-acts',
  *check({ simulation, house }) {
    const { acts } = followProps(simulation)
    for (const one of acts) {
      for (const hindrance of one.hindrances)
        if (!isFault(hindrance)) yield { ...factOf(one, hindrance), ...about(one) }
      const { seconds, least } = timeOf(one, { simulation, house })
      if (seconds < least - 1e-6)
        yield {
          code: 'prop.late',
          prop: one.prop.name,
          act: one.act.act,
          seconds,
          least,
          ...about(one),
        }
      if (NEEDS_STILL.has(one.act.act)) {
        const degrees = behindBy(one, one.from, { simulation, house })
        if (degrees > house.limits['prop.lag'])
          yield {
            code: 'prop.lag',
            prop: one.prop.name,
            act: one.act.act,
            degrees,
            counts: countsToSettle(one, { simulation, house }),
            ...about(one),
          }
      }
      if (one.act.act === 'roll-in' && one.after.wound > house.limits['prop.wound'])
        yield { code: 'prop.wound', prop: one.prop.name, halves: one.after.wound, ...about(one) }
      if (one.act.act === 'pass' && one.hand) {
        const palms = palmsAt(armsBefore(simulation, one.until), house.palms)
        const metres = apart(palms.R, palms.L)
        const most = house.limits['prop.passApart']
        if (metres > most)
          yield {
            code: 'prop.hands-apart',
            prop: one.prop.name,
            metres,
            most,
            isPass: true,
            ...about(one),
          }
      }
    }
  },
}

/** What asks for a cloth that hangs still. */
const NEEDS_STILL: ReadonlySet<string> = new Set(['over', 'under', 'frame', 'roll-in'])

type Seen = Pick<Danceable, 'simulation' | 'house'>

/** The seconds something has, and those it takes. */
function timeOf(one: DoneAct, seen: Seen): { readonly seconds: number; readonly least: number } {
  const { act, prop, before, from, until } = one
  const seconds = secondsBetween(seen.simulation.time, from, until)
  const row = actRow(act.act)
  if (act.act === 'round') return { seconds, least: (behindBy(one, from, seen) / 90) * 0.5 }
  if (act.act !== 'slide') return { seconds, least: isAtOnce(one) ? 0 : row.seconds }
  const slid = SIDES.map((side) =>
    alongBetween(prop.size, before.hands[side]?.at ?? [], one.after.hands[side]?.at ?? []),
  )
  return { seconds, least: row.seconds * Math.max(...slid) }
}

/** Degrees a cloth is behind her turn at a tick. */
function behindBy({ prop, before }: DoneAct, at: number, { simulation, house }: Seen): number {
  const seconds = lagOf(prop, before.drape, house)
  if (seconds === 0) return 0
  // What lands on its first tick belongs to what is done.
  const here = at - 0.5
  const then = here + ticksFrom(simulation.time, here, -seconds)
  return Math.abs(facingAt(simulation, here) - facingAt(simulation, then))
}

/** Counts until a cloth hangs still again. */
const countsToSettle = ({ prop, before }: DoneAct, { simulation, house }: Seen): number =>
  (lagOf(prop, before.drape, house) * simulation.combination.tempo) / 60
