import { SIDES } from '../../body/side'
import { nameOf } from '../../combination/names'
import { courseOf } from '../../simulate/course'
import { stateAt } from '../../simulate/simulate'
import { type Rule, spotOf } from '../rule'

/** Places that no hand gets to while one stands upright on straight or soft knees. */
const DOWN: ReadonlySet<string> = new Set(['knee', 'floor'])

/** Hands that are sent lower than they get while one stands upright (model 8). */
export const arms: Rule = {
  id: 'arms',
  *check({ simulation }) {
    const runs = courseOf(simulation)
    for (const { event, pass, end } of runs) {
      const { what } = event
      if (what.kind !== 'arms') continue
      const place = SIDES.map((side) => what[side]).find((one) => one && DOWN.has(one))
      if (!place) continue
      const { level } = stateAt(simulation, end)
      // A trunk that does something may be what brings the hand down.
      const bends = runs.some(
        (run) => run.event.layer === 'torso' && run.at <= end && run.end >= end - 1,
      )
      if (level === 'low' || level === 'deep' || bends) continue
      yield {
        code: 'arms.low',
        name: nameOf(event, simulation.vocabulary),
        place,
        spot: spotOf(pass, event),
        events: [event.id],
      }
    }
  },
}
