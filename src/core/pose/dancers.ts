import type { Side } from '../body/side'
import type { Simulation } from '../simulate/simulate'
import { type Dancer, type DancerOptions, dancerOf } from './dancer'

/** The dancers of both sides. */
export type Dancers = Readonly<Record<Side, Dancer>>

/** Makes each side ready to be seen when it is first asked for: an edit waits for nobody. */
export function dancersOf(from: (side: Side) => Simulation, options?: DancerOptions): Dancers {
  const made: Partial<Record<Side, Dancer>> = {}
  const of = (side: Side) => {
    made[side] ??= dancerOf(from(side), options)
    return made[side]
  }
  return {
    get R() {
      return of('R')
    },
    get L() {
      return of('L')
    },
  }
}
