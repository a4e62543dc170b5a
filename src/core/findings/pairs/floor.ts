import { factsOf } from '../../body/feet'
import type { FloorPoint } from '../../body/places'
import { SIDES } from '../../body/side'
import { carries, plus } from '../../piece/drawn'
import { nearestIn } from '../../piece/near'
import type { Piece } from '../../piece/piece'
import { placeGoal } from '../../piece/piece'
import { turnBetween } from '../../piece/relation'
import type { DancedMeeting } from '../../simulate/company'
import { type DancedStep, stateBefore } from '../../simulate/simulate'
import { type Area, classFit, scaledArea, sizeOf } from '../../space/space'
import {
  type Body,
  bodiesOf,
  type FoundBetween,
  lastCount,
  type PairRule,
  pairsOf,
  spotBetween,
} from './pairRule'

/** Two who come nearer than their bodies allow. */
export const collision: PairRule = function* (piece, pass) {
  const { house, meetings } = piece
  for (const [a, b] of pairsOf(bodiesOf(piece))) {
    const held = meetings.filter((one) => isHeldBy(one, a, b))
    let worst: { readonly share: number; readonly found: FoundBetween } | undefined
    const end = pass.at + pass.length
    for (const { from, to, isHeld } of stretches(pass.at, end, held)) {
      const { at, apart, touch } = nearestIn(a.way, b.way, { from, to }, house)
      const allowed = touch * (isHeld ? house.limits['pair.held'] : 1)
      const share = apart / allowed
      if (share >= 1 || (worst && worst.share <= share)) continue
      const severity = share < house.limits['pair.collision'] ? 'fault' : 'snag'
      worst = {
        share,
        found: {
          code: 'pair.collision',
          a: a.part.name,
          b: b.part.name,
          apart,
          touch: allowed,
          severity,
          whose: [a.part.id, b.part.id],
          spot: spotBetween(pass, Math.min(Math.floor(at), end - 1), 'feet'),
          events: [],
        },
      }
    }
    if (worst) yield worst.found
  }
}

const isHeldBy = ({ meeting: { what } }: DancedMeeting, a: Body, b: Body): boolean =>
  what.kind === 'hold' &&
  [what.from.part, what.to.part].every((id) => id === a.part.id || id === b.part.id)

/** Ticks parted where a hand is taken or let go. */
function stretches(from: number, to: number, held: readonly DancedMeeting[]) {
  const borders = [from, ...held.flatMap((one) => [one.from, one.until]), to]
    .filter((at) => at >= from && at <= to)
    .sort((a, b) => a - b)
  return borders.slice(1).flatMap((end, i) => {
    const begin = borders[i] ?? from
    const isHeld = held.some((one) => begin >= one.from && end <= one.until)
    return end > begin ? [{ from: begin, to: end, isHeld }] : []
  })
}

/** A foot that comes down on or close beside a standing foot of somebody else. */
export const tread: PairRule = function* ({ placed, house }, pass) {
  const least = house.limits['pair.tread']
  for (const one of placed)
    for (const step of one.simulation.slices[pass.index]?.danced ?? []) {
      const { foot, primitive } = step.action
      if (!factsOf(primitive).lands || !foot) continue
      for (const other of placed) {
        if (other === one) continue
        const state = stateBefore(other.simulation, step.at + 0.5)
        for (const side of SIDES) {
          if (state.weight !== side && state.weight !== 'both') continue
          const metres = closest(
            step.after.feet[foot].place,
            one.at,
            state.feet[side].place,
            other.at,
          )
          if (metres >= least) continue
          yield {
            code: 'pair.tread',
            a: one.part.name,
            b: other.part.name,
            metres,
            whose: [one.part.id, other.part.id],
            spot: spotBetween(step.pass, step.at, 'feet'),
            events: [step.event.id],
          }
          break
        }
      }
    }
}

/** The least between a place of any dancer of one part and of any of another. */
const closest = (
  a: FloorPoint,
  as: readonly FloorPoint[],
  b: FloorPoint,
  bs: readonly FloorPoint[],
): number => {
  let least = Number.POSITIVE_INFINITY
  for (const one of as)
    for (const other of bs) {
      const [p, q] = [plus(a, one), plus(b, other)]
      least = Math.min(least, Math.hypot(p.right - q.right, p.forward - q.forward))
    }
  return least
}

/** What the ways of all of them take together, and how many such groups a class is and its room has place for. */
export function formationOf(piece: Piece) {
  const { house } = piece
  const bodies = bodiesOf(piece)
  const taken = scaledArea(boxOf(bodies.map(({ way }) => way)), house)
  const stance = sizeOf(boxOf(bodies.map(({ way }) => way.slice(0, 1))))
  const groups = Math.max(1, Math.floor(house.dancers / bodies.length))
  const { fit } = classFit(taken, house, stance)
  return { ...sizeOf(taken), groups, fit, group: bodies.length }
}

/** A class of such groups that has no place in its room. */
export function* formation(piece: Piece): Generator<FoundBetween> {
  const [first] = piece.placed
  const pass = first?.simulation.passes[0]
  if (!first || !pass) return
  const { width, depth, groups, fit, group } = formationOf(piece)
  if (fit >= groups) return
  yield {
    code: 'space.room',
    width,
    depth,
    dancers: groups,
    fit,
    group,
    whose: piece.placed.map(({ part }) => part.id),
    spot: spotBetween(pass, pass.at, 'feet'),
    events: [],
  }
}

function boxOf(ways: readonly (readonly FloorPoint[])[]): Area {
  const far = Number.POSITIVE_INFINITY
  const box = { left: far, right: -far, back: far, front: -far }
  for (const way of ways)
    for (const { right, forward } of way) {
      box.left = Math.min(box.left, right)
      box.right = Math.max(box.right, right)
      box.back = Math.min(box.back, forward)
      box.front = Math.max(box.front, forward)
    }
  return box
}

/** A place that is not reached, or reached with another facing. */
export const places: PairRule = function* (piece) {
  const { placed, meetings, house } = piece
  const partOf = (id: string) => placed.find(({ part }) => part.id === id)
  for (const one of meetings) {
    const { what } = one.meeting
    const found = placeGoal(one, partOf, meetings, house)
    if ((what.kind !== 'place' && what.kind !== 'orbit') || !found) continue
    const { goal, is } = found
    const own = partOf(what.of)
    const other = partOf(what.kind === 'place' ? what.to : what.round)
    const about = {
      a: own?.part.name ?? '',
      b: other?.part.name ?? 'the middle',
      rel: what.kind === 'place' ? what.rel : ('round' as const),
      whose: [what.of],
      spot: spotBetween(one.pass, lastCount(one), 'feet'),
      events: [one.meeting.id],
    }
    const metres = Math.hypot(goal.right - is.right, goal.forward - is.forward)
    if (metres > house.limits['pair.place']) {
      const steps = own?.simulation.danced.filter(within(one)).length ?? 0
      const needed = Math.ceil(metres / house.limits['pair.drawStep'])
      yield { code: 'pair.place', ...about, metres, more: Math.max(1, needed - steps) }
    }
    if (goal.facing === undefined) continue
    const degrees = turnBetween(goal.facing, is.facing)
    if (degrees > house.limits['pair.facing']) yield { code: 'pair.facing', ...about, degrees }
  }
}

const within =
  ({ from, until }: DancedMeeting) =>
  (step: DancedStep): boolean =>
    carries(step) && step.at >= from && step.at < until
