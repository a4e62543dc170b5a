import type { DoneAct } from '../../core/props/follow'
import type { CarriedLane } from '../../core/props/lane'
import { SIZE } from './geometry'

/** A thing as it is carried through a line, by one of several where it is hers. */
export interface LineProp {
  readonly lane: CarriedLane
  readonly by: string | undefined
}

/** Rows in which nothing that is done lies over anything else. */
export function actRows({ acts }: CarriedLane): readonly (readonly DoneAct[])[] {
  const rows: DoneAct[][] = []
  for (const one of acts) {
    const free = rows.find((row) =>
      row.every(({ from, until }) => until <= one.from || from >= one.until),
    )
    if (free) free.push(one)
    else rows.push([one])
  }
  return rows
}

/** How tall the row of a thing is, in pixels. */
export const heightOf = ({ lane }: LineProp): number =>
  SIZE.prop + Math.max(0, actRows(lane).length - 1) * SIZE.row
