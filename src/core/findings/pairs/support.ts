import { factsOf } from '../../body/feet'
import type { MeetingOf } from '../../combination/between'
import { nameOf } from '../../combination/names'
import type { Piece, Placed } from '../../piece/piece'
import type { DancedMeeting } from '../../simulate/company'
import { distance } from '../../simulate/landing'
import { type DancedStep, stateAt } from '../../simulate/simulate'
import { TICKS_PER_COUNT } from '../../time/time'
import type { Fact } from '../finding'
import { type FoundBetween, type PairRule, spotBetween } from './pairRule'

const placedOf = ({ placed }: Piece, id: string): Placed | undefined =>
  placed.find(({ part }) => part.id === id)

const overlaps = (
  a: DancedMeeting,
  b: { readonly from: number; readonly until: number },
): boolean => a.from < b.until && a.until > b.from

/** A turn led by a hand that is not there, or that is no turn. */
export const led: PairRule = function* (piece) {
  for (const one of piece.meetings) {
    const { what } = one.meeting
    if (what.kind !== 'led') continue
    const [own, by] = [placedOf(piece, what.of), placedOf(piece, what.by.part)]
    if (!own || !by) continue
    const hasHand = piece.meetings.some(({ meeting: { what: other }, ...rest }) => {
      if (other.kind !== 'hold' && other.kind !== 'touch') return false
      const ends = [other.from, other.to]
      return (
        overlaps({ ...rest, meeting: one.meeting }, one) &&
        ends.some(
          (end) =>
            'side' in end &&
            !('on' in end) &&
            end.part === what.by.part &&
            end.side === what.by.side,
        ) &&
        ends.some((end) => end.part === what.of)
      )
    })
    const turns = own.simulation.danced.some(
      (step) => step.at >= one.from && step.at < one.until && (step.action.turn ?? 0) !== 0,
    )
    if (hasHand && turns) continue
    yield {
      code: 'pair.led',
      a: own.part.name,
      b: by.part.name,
      lacks: hasHand ? 'turn' : 'hand',
      whose: [what.of, what.by.part],
      spot: spotBetween(one.pass, one.from, 'feet'),
      events: [one.meeting.id],
    }
  }
}

/** Who carries another one, and does not stand for it; or with no hand on her. */
export const support: PairRule = function* (piece) {
  for (const one of piece.meetings) {
    const { what } = one.meeting
    if (what.kind !== 'support') continue
    const [by, of] = [placedOf(piece, what.by), placedOf(piece, what.of)]
    if (!by || !of) continue
    const about = {
      a: by.part.name,
      b: of.part.name,
      whose: [what.by, what.of],
      spot: spotBetween(one.pass, one.from, 'feet'),
      events: [one.meeting.id],
    }
    const why = unfit(by, one, piece)
    if (why) yield { code: 'pair.support-stance', ...about, why }
    const isHeld = piece.meetings.some(
      (other) => overlaps(other, one) && touches(other.meeting.what, what),
    )
    if (!isHeld) yield { code: 'pair.support-hold', ...about }
  }
}

/** Once a piece, wherever somebody leans on somebody: to be warm, and to agree on a word. */
export function* supportCare({ meetings, placed }: Piece): Generator<FoundBetween> {
  const all = meetings.filter(({ meeting: { what } }) => what.kind === 'support')
  const [first] = all
  if (!first) return
  yield {
    code: 'pair.support',
    times: all.length,
    whose: placed.map(({ part }) => part.id),
    spot: spotBetween(first.pass, first.from, 'torso'),
    events: [first.meeting.id],
  }
}

const touches = (
  other: DancedMeeting['meeting']['what'],
  { by, of }: MeetingOf<'support'>,
): boolean =>
  (other.kind === 'hold' || other.kind === 'touch') &&
  [other.from.part, other.to.part].every((id) => id === by || id === of)

type Why = Extract<Fact, { code: 'pair.support-stance' }>['why']

/** Why somebody can't carry another one over some ticks, and from a count before. */
function unfit(
  { simulation }: Placed,
  { from, until }: DancedMeeting,
  { house }: Piece,
): Why | undefined {
  const begin = Math.max(0, from - TICKS_PER_COUNT)
  const steps = simulation.danced.filter(({ at }) => at >= begin && at < until)
  const states = [stateAt(simulation, begin), ...steps.map(({ after }) => after)]
  // What lands on the count before is the stance itself: only what moves later takes it away.
  const moves = (step: DancedStep) =>
    step.at > begin && (factsOf(step.action.primitive).lands || (step.action.turn ?? 0) !== 0)
  if (states.some(({ weight }) => weight !== 'both')) return 'one-foot'
  if (steps.some(moves)) return 'moves'
  const apart = (state: (typeof states)[number]) => distance(state.feet.R.place, state.feet.L.place)
  if (states.some((state) => apart(state) < house.limits['pair.stance'])) return 'narrow'
  if (
    states.some(
      ({ level, moment }) => level === 'tall' || level === 'toes' || moment === 'straight',
    )
  )
    return 'high'
  return undefined
}

/** What leans on somebody while nobody carries her. */
export const supportMissing: PairRule = function* (piece, pass) {
  for (const one of piece.placed)
    for (const event of one.simulation.passes[pass.index]?.events ?? []) {
      if (!event.supported) continue
      const from = pass.at + event.at
      const span = { from, until: from + event.length }
      const isCarried = piece.meetings.some(
        (other) =>
          other.meeting.what.kind === 'support' &&
          other.meeting.what.of === one.part.id &&
          overlaps(other, span),
      )
      if (isCarried) continue
      yield {
        code: 'pair.support-missing',
        a: one.part.name,
        move: nameOf(event, one.simulation.vocabulary),
        whose: [one.part.id],
        spot: spotBetween(pass, from, event.layer),
        events: [event.id],
      }
    }
}
