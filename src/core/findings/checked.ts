import type { DancerLevel } from '../combination/combination'
import type { House } from '../house/house'
import type { FootJoins } from '../joins/joins'
import type { CountLoad } from '../load/load'
import type { Simulation } from '../simulate/simulate'
import type { Finding } from './finding'

/** A finding that is left as it is, with the instructor's reason. */
export type LeftFinding = Finding & { readonly because: string }

/** All the tool can say about a combination, danced on both sides. */
export interface Checked {
  readonly lead: Simulation
  /** Danced when it is first asked for: many edits only show one side. */
  readonly other: Simulation
  readonly joins: FootJoins
  readonly findings: readonly Finding[]
  readonly left: readonly LeftFinding[]
  readonly level: DancerLevel
  readonly house: House
  /** The load of each count on the lead side, at the combination's tempo. */
  readonly loads: readonly CountLoad[]
}
