import type { Between } from '../combination/between'
import type { Pass } from '../combination/passes'
import type { PartId } from '../combination/whose'
import type { Simulation } from './simulate'

/** A meeting as it is danced: which, in which dancing of its phrase, over which ticks. */
export interface DancedMeeting {
  readonly meeting: Between
  readonly pass: Pass
  readonly from: number
  readonly until: number
}

/** One of several dancers: her name on that side, and what she dances. */
export interface Companion {
  readonly part: PartId
  readonly name: string
  readonly simulation: Simulation
}

/** All who dance one side of a piece, and what they do with each other. */
export interface Company {
  readonly dancers: readonly Companion[]
  readonly meetings: readonly DancedMeeting[]
}
