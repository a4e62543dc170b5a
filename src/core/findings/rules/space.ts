import { courseOf } from '../../simulate/course'
import {
  areaOfOne,
  armReach,
  classFit,
  scaledArea,
  sizeOf,
  stepSizeThatFits,
} from '../../space/space'
import { tick } from '../../time/time'
import { type Rule, spotIn, spotOf } from '../rule'

/** Half a centimetre or two over the line is no dancer's arm length. */
const TOLERANCE = 0.02

/** Paths that leave the room, and arms that reach into the next dancer's place (model 8). */
export const space: Rule = {
  id: 'space',
  *check({ simulation, house }) {
    const first = simulation.passes[0]
    if (!first) return
    // One round: how far several carry the class is a note of the joins, and on the floor map.
    const area = scaledArea(areaOfOne(simulation), house)
    const { fit } = classFit(area, house)
    if (fit < house.dancers) {
      const steps = stepSizeThatFits(area, house)
      yield {
        code: 'space.room',
        ...sizeOf(area),
        dancers: house.dancers,
        fit,
        ...(steps !== undefined && { steps }),
        spot: spotIn(first, tick(first.at), 'feet'),
        events: [],
      }
    }
    const reach = armReach(simulation)
    const arms = courseOf(simulation).filter(({ event }) => event.layer === 'arms')
    for (const way of ['sideways', 'deep'] as const) {
      const half = house.limits[`space.${way}`] / 2
      if (house.dancers < 2 || reach[way] <= half + TOLERANCE) continue
      const run = arms[reach[`${way}Event`]]
      yield {
        code: 'space.neighbour',
        way,
        reach: reach[way],
        half,
        spot: run ? spotOf(run.pass, run.event) : spotIn(first, tick(first.at), 'arms'),
        events: run ? [run.event.id] : [],
      }
    }
  },
}
