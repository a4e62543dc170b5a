import type { Layer } from '../body/layers'
import { placesWords } from '../combination/names'
import type { Pass } from '../combination/passes'
import { secondsBetween } from '../time/timeMap'
import { courseOf, ticksLostAtMost } from './course'
import type { Simulation } from './simulate'

/** The way to a start that nobody wrote, in ticks of the phrase. */
export interface UnwrittenWay {
  readonly layer: Layer
  readonly from: number
  readonly to: number
  /** There is less time than the way takes. */
  readonly late: boolean
  readonly words: string
}

/** The ways a pass takes that nobody wrote. */
export function unwrittenWays(simulation: Simulation, pass: Pass): readonly UnwrittenWay[] {
  const { time } = simulation
  return courseOf(simulation)
    .filter((run) => run.pass === pass)
    .flatMap((run) => {
      const { event, reach } = run
      if (!reach) return []
      const from = Math.min(reach.from, reach.to)
      const has = secondsBetween(time, from, reach.to + ticksLostAtMost(run))
      return {
        layer: event.layer,
        from: Math.max(0, reach.from - pass.at),
        to: event.at,
        late: has + 1e-9 < reach.seconds,
        words: `on the way to ${placesWords(reach.needs)}`,
      }
    })
}
