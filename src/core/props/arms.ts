import type { ArmPlace } from '../body/places'
import type { Side } from '../body/side'
import { remembered } from '../record/remembered'
import { courseSlices } from '../simulate/course'
import { startPlaces } from '../simulate/places'
import type { Simulation } from '../simulate/simulate'

/** Where both arms are. */
type Arms = Readonly<Record<Side, ArmPlace>>

interface Moment {
  readonly at: number
  readonly arms: Arms
}

/** A pass is over a little before the tick it ends on. */
const JUST = 0.25

/** Every moment the arms are sent somewhere, in order of time; looked through once for a dance. */
const momentsIn = remembered((simulation: Simulation, _: undefined): readonly Moment[] => {
  const { passes } = simulation
  return courseSlices(simulation).flatMap(({ runs, returns, exit }, i) => {
    const pass = passes[i]
    const own = [...returns, ...runs]
      .map(({ at, after }): Moment => ({ at, arms: after.arms }))
      .sort((a, b) => a.at - b.at)
    const end = pass ? [{ at: pass.at + pass.length - JUST, arms: exit.places.arms }] : []
    return [...own.filter(({ at }) => at < (end[0]?.at ?? Number.POSITIVE_INFINITY)), ...end]
  })
})

/** Where the arms are just before a tick, by all that began before it: as the course has it, found by halves. */
export function armsBefore(simulation: Simulation, tick: number): Arms {
  const moments = momentsIn(simulation, undefined)
  let low = 0
  let high = moments.length
  while (low < high) {
    const middle = (low + high) >> 1
    if ((moments[middle]?.at ?? 0) < tick) low = middle + 1
    else high = middle
  }
  return moments[low - 1]?.arms ?? startPlaces(simulation.combination.start).arms
}
