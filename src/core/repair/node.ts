import type { Behaviour } from './behaviours'
import type { Priced } from './feetEdit'
import type { Stance } from './stances'

/** Where a search has come to in the order. */
export interface Node extends Priced {
  /** The price so far and the least that is still to come, in hundredths; what it is sorted by. */
  readonly least: number
  /** The price so far, that of a repeated phrase shared out among its occurrences. */
  readonly paid: number
  /** Occurrences of each phrase that are danced as phrases of their own so far. */
  readonly apart: ReadonlyMap<string, number>
  /** How many passes are danced. */
  readonly pass: number
  readonly lead: Stance
  /** The other side, danced beside it where something is kept. */
  readonly other: Stance
  /** How each phrase is changed that may come again. */
  readonly chosen: ReadonlyMap<string, Behaviour>
  /** Passes still to come that are danced as their mirror twin was. */
  readonly twins: ReadonlyMap<number, Behaviour>
  /** The first pass in which anything is danced, which what follows begins with. */
  readonly opening: Opening | undefined
}
interface Opening {
  readonly phrase: string
  readonly behaviour: Behaviour
  readonly mirrored: boolean
}

/** Where in the whole combination a change is, for the choice of the later one. */
export const placeOf = (pass: number, late: number): number => pass * 1000 + late
