import { factsOf } from '../../body/feet'
import { COUNT_IN_TICKS } from '../../simulate/course'
import type { DancedStep } from '../../simulate/simulate'
import { secondsOfTicks, tempoFor } from '../../time/tempo'
import { spotIn } from '../rule'
import type { TempoLimit, TempoRule } from '../tempoRule'

/** Turns of more than one support carries, or faster than a level can (model 8). */
export const fastTurns: TempoRule = {
  id: 'fast-turns',
  *tempoLimits({ simulation, house, level }, below) {
    const mostDegrees = house.limits[`turn.oneSupport.${level}`]
    const mostSpeed = house.limits[`turn.speed.${level}`]
    /** From one landing to the next: what turns in between, and the largest part of it. */
    let from = -COUNT_IN_TICKS
    let degrees = 0
    let largest: DancedStep | undefined
    const close = (to: number): TempoLimit | undefined => {
      const turned = largest
      if (!turned) return undefined
      const place = { spot: spotIn(turned.pass, turned.at, 'feet'), events: [turned.event.id] }
      const [sum, ticks] = [degrees, to - from]
      if (sum > mostDegrees)
        return {
          at: turned.at,
          most: 0,
          found: () => ({
            code: 'turn.too-fast',
            degrees: sum,
            most: mostDegrees,
            level,
            ...place,
          }),
        }
      return {
        at: turned.at,
        most: tempoFor(ticks, sum / mostSpeed),
        found: (tempo) => ({
          code: 'turn.too-fast',
          degrees: sum,
          speed: sum / secondsOfTicks(ticks, tempo),
          most: mostSpeed,
          level,
          ...place,
        }),
      }
    }
    for (const danced of simulation.danced) {
      const turn = Math.abs(danced.action.turn ?? 0)
      if (turn > 0) {
        degrees += turn
        if (turn > Math.abs(largest?.action.turn ?? 0)) largest = danced
      }
      if (!factsOf(danced.action.primitive).lands) continue
      const limit = close(danced.at)
      if (limit && limit.most < below(limit.at)) yield limit
      from = danced.at
      degrees = 0
      largest = undefined
    }
    const limit = close(simulation.length)
    if (limit && limit.most < below(limit.at)) yield limit
  },
}
