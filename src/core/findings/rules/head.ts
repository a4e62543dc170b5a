import { factsOf } from '../../body/feet'
import { nameOf } from '../../combination/names'
import { asksMuch, safeForm } from '../../moves/easing'
import type { Move } from '../../moves/move'
import { courseOf, type Run } from '../../simulate/course'
import { seenAt } from '../../simulate/looks'
import type { Simulation } from '../../simulate/simulate'
import { TICKS_PER_COUNT } from '../../time/time'
import { secondsBetween } from '../../time/timeMap'
import type { Found } from '../finding'
import { type Danceable, type Rule, spotOf } from '../rule'
import { tooMany } from '../withinEight'

/** Degrees of nodding from which it is a whip and no nod. */
const WHIP = 30
/** After so much turning in two counts the head is left alone for one. */
const DIZZY_DEGREES = 180
const DIZZY_WINDOW = 2 * TICKS_PER_COUNT

/** Whether a move rolls the head, or throws it. */
function headWay({ layer, motion }: Move): 'roll' | 'half-roll' | 'whip' | undefined {
  if (layer !== 'head') return undefined
  for (const item of motion) {
    if (item.verb === 'arc') return 'half-roll'
    if (item.verb === 'circle' && item.size !== 'small') return 'roll'
    if (item.verb === 'peak' && item.channel === 'head.nod' && Math.abs(item.amount) >= WHIP)
      return 'whip'
  }
  return undefined
}

/** Rolls and whips of the head in or right after a turn, too quick or too many of them (model 8). */
export const head: Rule = {
  id: 'head',
  *check(danceable) {
    const { simulation } = danceable
    const rolls = courseOf(simulation).filter(({ move }) => move && headWay(move))
    if (rolls.length > 0) {
      const turns = turnsOf(simulation)
      for (const run of rolls)
        if (isInTurn(run, turns))
          yield {
            code: 'head.turning',
            move: nameOf(run.event, simulation.vocabulary),
            ...where(run),
          }
      yield* quick(danceable, rolls)
      yield* many(danceable, rolls)
    }
    if (danceable.level === 'new') yield* beyondNew(danceable)
    yield* behind(danceable)
  },
}

/** Looks at the audience or a partner that no head makes from where one faces. */
function* behind({ simulation, house }: Danceable): Generator<Found> {
  for (const run of courseOf(simulation)) {
    const { what } = run.event
    if (what.kind !== 'look' || (what.gaze !== 'audience' && what.gaze !== 'partner')) continue
    const degrees = seenAt(simulation, run.end, what.gaze)
    if (Math.abs(degrees) > house.limits['head.behind'])
      yield {
        code: 'look.behind',
        degrees,
        ...(what.gaze === 'partner' && { who: 'partner' }),
        ...where(run),
      }
  }
}

const where = ({ pass, event }: Run): Pick<Found, 'spot' | 'events'> => ({
  spot: spotOf(pass, event),
  events: [event.id],
})

/** When a body turns, and how far. */
interface Turn {
  readonly from: number
  readonly to: number
  readonly degrees: number
}

/**
 * A step turns in the count before it lands, from the last landing on; a pivot a count to either
 * side, as far as no foot lands; over a written range it takes all of it.
 */
function turnsOf({ danced }: Simulation): readonly Turn[] {
  const turns: Turn[] = []
  let landed = Number.NEGATIVE_INFINITY
  for (const [i, step] of danced.entries()) {
    const { at, action, event } = step
    const { lands } = factsOf(action.primitive)
    if (action.turn) {
      const from = Math.max(landed, at - TICKS_PER_COUNT)
      const isRange = event.what.kind === 'foot' && !event.isCut && event.length > TICKS_PER_COUNT
      if (lands) turns.push({ from, to: at, degrees: action.turn })
      else if (isRange) turns.push({ from: at, to: at + event.length, degrees: action.turn })
      else {
        const next = danced.slice(i + 1).find((one) => factsOf(one.action.primitive).lands)
        const to = Math.min(next?.at ?? Number.POSITIVE_INFINITY, at + TICKS_PER_COUNT)
        turns.push({ from, to, degrees: action.turn })
      }
    }
    if (lands) landed = at
  }
  return turns
}

function isInTurn({ at, end }: Run, turns: readonly Turn[]): boolean {
  if (turns.some(({ from, to }) => from < end && to > at)) return true
  // What turned last, and ended on its first tick or within the count before it.
  const last = turns.findLast(({ to }) => to <= at)
  if (!last || at - last.to > TICKS_PER_COUNT) return false
  const before = turns.filter(({ to }) => to <= at && to > at - DIZZY_WINDOW)
  return Math.abs(before.reduce((sum, { degrees }) => sum + degrees, 0)) >= DIZZY_DEGREES
}

/** New dancers and improvers: a roll or a whip they have little time for, once a phrase. */
function* quick({ simulation, house, level }: Danceable, rolls: readonly Run[]): Generator<Found> {
  if (level !== 'new' && level !== 'improver') return
  for (const run of rolls) {
    const way = run.move && headWay(run.move)
    if (way !== 'roll' && way !== 'whip') continue
    const least = house.limits[way === 'roll' ? 'head.quickRoll' : 'head.quickWhip']
    const seconds = secondsBetween(
      simulation.time,
      run.at,
      run.at + Math.min(every(run), run.end - run.at),
    )
    if (seconds < least - 1e-9)
      yield {
        code: 'head.quick',
        move: nameOf(run.event, simulation.vocabulary),
        seconds,
        ...where(run),
      }
  }
}

function* many({ simulation, house }: Danceable, rolls: readonly Run[]): Generator<Found> {
  const most = house.limits['head.rolls']
  const starts = rolls.flatMap((run) => {
    const list: { at: number; run: Run }[] = []
    for (let at = run.at; at < run.end; at += every(run)) list.push({ at, run })
    return list
  })
  for (const { run, times } of tooMany(starts, most)) {
    yield {
      code: 'head.turning',
      move: nameOf(run.event, simulation.vocabulary),
      times,
      most,
      ...where(run),
    }
    return
  }
}

/** What asks more of neck or back than a new dancer has, with the form that does not. */
function* beyondNew({ simulation }: Danceable): Generator<Found> {
  const { vocabulary } = simulation
  for (const run of courseOf(simulation)) {
    const { move } = run
    if (!move || !asksMuch(move)) continue
    const form = safeForm(move, vocabulary)
    yield {
      code: 'head.level',
      move: nameOf(run.event, vocabulary),
      ...(form && { easier: form.name.toLowerCase() }),
      ...where(run),
    }
  }
}

/** Ticks of each. */
const every = ({ event, move }: Run): number =>
  event.what.kind === 'move' && event.what.every
    ? event.what.every
    : move?.kind === 'path'
      ? event.length
      : (move?.length ?? event.length)
