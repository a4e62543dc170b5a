import { isHand, type Meeting } from '../combination/between'
import type { PartId } from '../combination/whose'
import type { DancedMeeting } from '../simulate/company'
import { TICKS_PER_COUNT } from '../time/time'
import type { CountLoad } from './load'

/** What a count asks more on which a hand is taken or let go, and on which weight is carried or a turn is led (h). */
const HAND_CHANGES = 0.5
const CARRIED = 1

/** The loads of one of several dancers, with what she does with the others. */
export function loadsWithPartner(
  loads: readonly CountLoad[],
  meetings: readonly DancedMeeting[],
  part: PartId,
): readonly CountLoad[] {
  const hers = meetings.filter(({ meeting: { what } }) => asksOf(what, part))
  if (hers.length === 0) return loads
  return loads.map((one) => {
    const end = one.at + TICKS_PER_COUNT
    const partner = hers.reduce((sum, met) => sum + asked(met, one.at, end), 0)
    return partner > 0 ? { ...one, partner, total: one.total + partner } : one
  })
}

/** Whether a meeting is work for a part. */
const asksOf = (what: Meeting, part: PartId): boolean => {
  switch (what.kind) {
    case 'hold':
      return what.from.part === part || (isHand(what.to) && what.to.part === part)
    case 'support':
      return what.by === part || what.of === part
    case 'led':
      return what.by.part === part || what.of === part
    default:
      return false
  }
}

/** What a meeting asks on a count that begins and ends at some ticks. */
function asked(
  { meeting: { what }, from, until }: DancedMeeting,
  begin: number,
  end: number,
): number {
  const isIn = (tick: number) => tick >= begin && tick < end
  if (what.kind === 'hold')
    return (isIn(from) ? HAND_CHANGES : 0) + (isIn(until - 1) && !isIn(from) ? HAND_CHANGES : 0)
  return from < end && until > begin ? CARRIED : 0
}
