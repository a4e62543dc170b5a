import { otherSide, type Side } from '../body/side'
import type { Combination } from './combination'
import { partIds, partOf, partWith } from './partOf'
import { ONLY_PART, type PartId } from './whose'

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

/** The dancing of a part as it is written; of the first one where it is none of the combination's. */
export const leadOf = (combination: Combination, part: PartId = ONLY_PART): Dancing => ({
  part: partWith(combination, part)?.id ?? ONLY_PART,
  side: partOf(combination, part).lead,
})

/** All that dance at once on the side of one of them: each part as it is written, or all from the other side. */
export function dancingTogether(combination: Combination, dancing: Dancing): readonly Dancing[] {
  const isWritten = isLead(combination, dancing)
  return partIds(combination).map((part) => {
    const lead = leadOf(combination, part)
    return isWritten ? lead : otherDancing(lead)
  })
}

/** Both dancings of a part, the one that is written first. */
export function bothOf(combination: Combination, part: PartId = ONLY_PART): readonly Dancing[] {
  const lead = leadOf(combination, part)
  return [lead, otherDancing(lead)]
}

/** Whether a dancing is the one that is written, not its other side. */
export const isLead = (combination: Combination, { part, side }: Dancing): boolean =>
  side === partOf(combination, part).lead
