import { isHand, type Meeting } from '../../combination/between'
import type { PartId } from '../../combination/whose'
import type { Piece } from '../../piece/piece'
import type { Checked } from '../checked'
import type { Finding } from '../finding'

/** What is not so while a partner carries her, or holds the hand. */
const CARRIED: ReadonlySet<string> = new Set(['balance.long', 'move.needs'])

/** What is said of one part without what her partners take from her: weight that is carried, a hand that is held. */
export function withoutMet(checked: Checked, { meetings, placed }: Piece, part: PartId): Checked {
  const hers = meetings.filter(({ meeting: { what } }) => isHers(what, part))
  const own = placed.find((one) => one.part.id === part)
  if (hers.length === 0 || !own) return checked
  const { passes } = own.simulation
  const isMet = ({ code, events, spot }: Finding): boolean => {
    const [id] = events
    const pass = passes[spot.pass]
    const event = pass?.events.find((one) => one.id === id)
    if (!pass || !event) return false
    const from = pass.at + event.at
    const until = from + event.length
    return hers.some((one) => {
      const { what } = one.meeting
      const isThen = one.from < until && one.until > from
      return (
        isThen &&
        (what.kind === 'support'
          ? CARRIED.has(code) && event.supported === true
          : code === 'arms.far')
      )
    })
  }
  const findings = checked.findings.filter((one) => !isMet(one))
  if (findings.length === checked.findings.length) return checked
  // Written out: a spread would dance the other side at once.
  const { lead, joins, left, level, house } = checked
  return {
    lead,
    get other() {
      return checked.other
    },
    joins,
    findings,
    left,
    level,
    house,
    get loads() {
      return checked.loads
    },
  }
}

/** Whether somebody carries her, or holds her hand. */
const isHers = (what: Meeting, part: PartId): boolean =>
  what.kind === 'support'
    ? what.of === part
    : what.kind === 'hold' &&
      (what.from.part === part || (isHand(what.to) && what.to.part === part))
