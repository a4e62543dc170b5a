import { otherSide, type Side } from '../body/side'
import type { Combination } from './combination'

/** The id of a part: what one of several dancers dances of a combination. */
export type PartId = string

/** The part of a combination that is for one dancer alone. */
export const ONLY_PART: PartId = 'alone'

/** One dancing of a combination: a part of it, from one of its two sides. */
export interface Dancing {
  readonly part: PartId
  readonly side: Side
}

/** A combination for one dancer, from a side. */
export const aloneFrom = (side: Side): Dancing => ({ part: ONLY_PART, side })

/** The same part from the other side. */
export const otherDancing = ({ part, side }: Dancing): Dancing => ({ part, side: otherSide[side] })

/** Whether two dancings are the same. */
export const isSameDancing = (one: Dancing, other: Dancing): boolean =>
  one.part === other.part && one.side === other.side

/**
 * What a part dances, as a combination for one dancer, with the start and the lead side of that
 * part: who judges, plans or draws a dance reads it from here. There is one part as yet.
 */
export const partOf = <T extends Combination>(combination: T, _part: PartId): T => combination

/** The dancing of a part as it is written. */
export const leadOf = (combination: Combination, part: PartId = ONLY_PART): Dancing => ({
  part,
  side: partOf(combination, part).lead,
})

/** Both dancings of a part, the one that is written first. */
export function bothOf(combination: Combination, part: PartId = ONLY_PART): readonly Dancing[] {
  const lead = leadOf(combination, part)
  return [lead, otherDancing(lead)]
}

/** Whether a dancing is the one that is written, not its other side. */
export const isLead = (combination: Combination, { part, side }: Dancing): boolean =>
  side === partOf(combination, part).lead
