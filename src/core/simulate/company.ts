import type { Between } from '../combination/between'
import type { PartId } from '../combination/whose'
import type { Simulation } from './simulate'

/** One of several dancers: her name on that side, and what she dances. */
export interface Companion {
  readonly part: PartId
  readonly name: string
  readonly simulation: Simulation
}

/** All who dance one side of a piece, and what they do with each other from which tick. */
export interface Company {
  readonly dancers: readonly Companion[]
  readonly meetings: readonly { readonly meeting: Between; readonly from: number }[]
}
