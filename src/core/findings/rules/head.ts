import { nameOf } from '../../combination/names'
import type { Move } from '../../moves/move'
import { courseOf, type Run } from '../../simulate/course'
import { TICKS_PER_COUNT } from '../../time/time'
import { type Rule, spotOf } from '../rule'

const WINDOW = 8 * TICKS_PER_COUNT
/** Degrees of nodding from which it is a whip and no nod. */
const WHIP = 30

/** Whether a move rolls or throws the head. */
const rollsHead = ({ layer, motion }: Move): boolean =>
  layer === 'head' &&
  motion.some(
    (item) =>
      item.verb === 'arc' ||
      (item.verb === 'circle' && item.size !== 'small') ||
      (item.verb === 'peak' && item.channel === 'head.nod' && Math.abs(item.amount) >= WHIP),
  )

/** Rolls and whips of the head in a turn, or too many of them (model 8). */
export const head: Rule = {
  id: 'head',
  *check({ simulation, house }) {
    const rolls = courseOf(simulation).filter(({ move }) => move && rollsHead(move))
    if (rolls.length === 0) return
    const most = house.limits['head.rolls']
    const starts: { at: number; run: Run }[] = []
    for (const run of rolls) {
      const where = { spot: spotOf(run.pass, run.event), events: [run.event.id] }
      const move = nameOf(run.event, simulation.vocabulary)
      let before = Number.NEGATIVE_INFINITY
      const turns = simulation.danced.some(({ at, action }) => {
        const overlaps = at > run.at && before < run.end
        before = at
        return overlaps && action.turn
      })
      if (turns) yield { code: 'head.turning', move, ...where }
      for (let at = run.at; at < run.end; at += every(run)) starts.push({ at, run })
    }
    for (const [i, { at, run }] of starts.entries()) {
      const first = starts[i - most]
      if (!first || at - first.at >= WINDOW) continue
      yield {
        code: 'head.turning',
        move: nameOf(run.event, simulation.vocabulary),
        times: starts.filter((one) => one.at > at - WINDOW && one.at <= at).length,
        most,
        spot: spotOf(run.pass, run.event),
        events: [run.event.id],
      }
      return
    }
  },
}

const every = ({ event, move }: Run): number =>
  event.what.kind === 'move' && event.what.every
    ? event.what.every
    : move?.kind === 'path'
      ? event.length
      : (move?.length ?? event.length)
