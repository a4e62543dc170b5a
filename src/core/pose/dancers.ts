import type { Dancing } from '../combination/dancing'
import type { Simulation } from '../simulate/simulate'
import { type Dancer, type DancerOptions, dancerOf } from './dancer'

/** The dancer of each dancing. */
export type Dancers = (dancing: Dancing) => Dancer

/** Makes each dancing ready to be seen when it is first asked for: an edit waits for nobody. */
export function dancersOf(
  from: (dancing: Dancing) => Simulation,
  options?: DancerOptions,
): Dancers {
  const made = new Map<string, Dancer>()
  return (dancing) => {
    const key = `${dancing.side} ${dancing.part}`
    const dancer = made.get(key) ?? dancerOf(from(dancing), options)
    made.set(key, dancer)
    return dancer
  }
}
