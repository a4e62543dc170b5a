import type { CarriedLane } from '../../core/props/lane'
import { SIZE } from './geometry'
import { rowsWithout } from './rowsWithout'

/** A thing as it is carried through a line, by one of several where it is hers. */
export interface LineProp {
  readonly lane: CarriedLane
  readonly by: string | undefined
}

/** Rows in which nothing that is done lies over anything else. */
export const actRows = ({ acts }: CarriedLane) =>
  rowsWithout(acts, (one, other) => one.from < other.until && other.from < one.until)

/** How tall the row of a thing is, in pixels. */
export const heightOf = ({ lane }: LineProp): number =>
  SIZE.prop + Math.max(0, actRows(lane).length - 1) * SIZE.row
