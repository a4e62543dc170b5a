import type { Layer } from '../body/layers'
import { placesBefore } from '../simulate/course'
import { type Simulation, stateBefore } from '../simulate/simulate'
import { type Tick, tick } from '../time/time'
import type { Here } from '../writing/wanted'

/** What decides what fits at a place of a pass. */
export function hereIn(
  simulation: Simulation,
  passIndex: number,
  layer: Layer,
  at: Tick,
  recent: readonly string[] = [],
): Here {
  const { combination, passes } = simulation
  const pass = passes[passIndex]
  const when = tick((pass?.at ?? 0) + at)
  const later = (pass?.events ?? [])
    .filter((event) => event.layer === layer && event.at > at)
    .map((event) => event.at)
  return {
    state: stateBefore(simulation, when),
    places: placesBefore(simulation, when),
    at: when,
    room: Math.min(pass?.length ?? 0, ...later) - at,
    tempo: combination.tempo,
    recent,
  }
}
