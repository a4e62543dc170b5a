import { isHand, type Meeting } from '../../combination/between'
import type { PartId } from '../../combination/whose'
import type { CountLoad } from '../../load/load'
import { loadsWithPartner } from '../../load/withPartner'
import type { Piece } from '../../piece/piece'
import type { Simulation } from '../../simulate/simulate'
import { tick } from '../../time/time'
import type { Checked } from '../checked'
import { type Finding, inOrder } from '../finding'
import { spotIn } from '../rule'

/** What is not so while a partner carries her, or holds the hand. */
const CARRIED: ReadonlySet<string> = new Set(['balance.long', 'move.needs'])

/**
 * What is said of one part among the others: without what they take from her, weight that is carried
 * or a hand that is held, and with what it asks of her to do it with them.
 */
export function amongOthers(checked: Checked, { meetings, placed }: Piece, part: PartId): Checked {
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
          ? what.of === part && CARRIED.has(code) && event.supported === true
          : what.kind === 'hold' && code === 'arms.far')
      )
    })
  }
  let loads: readonly CountLoad[] | undefined
  const loaded = () => {
    loads ??= loadsWithPartner(checked.loads, meetings, part)
    return loads
  }
  const high = highAmong(checked, own.simulation, loaded)
  const findings = inOrder([...checked.findings.filter((one) => !isMet(one)), ...high])
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
      return loaded()
    },
  }
}

/** Counts that only what is done with a partner makes too hard, pass by pass; what is hard alone is said already. */
function highAmong(
  { loads: alone, level, house, findings, left }: Checked,
  { passes }: Simulation,
  loaded: () => readonly CountLoad[],
): readonly Finding[] {
  const limit = house.limits[`load.limit.${level}`]
  const isHigh = ({ total }: CountLoad) => total > limit * house.limits['load.over'] + 1e-9
  // Nothing a partner asks makes a light dance too hard.
  if (!alone.some(({ total }) => total + MOST_ASKED > limit)) return []
  const isSaid = new Set(
    [...findings, ...left].flatMap(({ code, spot }) => (code === 'load.high' ? [spot.pass] : [])),
  )
  return passes.flatMap((pass): readonly Finding[] => {
    const over = loaded().filter((one) => one.pass === pass.index && isHigh(one))
    const [worst] = [...over].sort((a, b) => b.total - a.total)
    if (!worst || isSaid.has(pass.index)) return []
    return [
      {
        code: 'load.high',
        load: worst.total,
        limit,
        level,
        counts: over.length,
        side: 'lead',
        whose: [],
        spot: spotIn(pass, tick(worst.at), 'arms'),
        events: [],
      },
    ]
  })
}

/** As much as several meetings of one count may ask together. */
const MOST_ASKED = 4

/** Whether she carries or is carried, leads or is led, or her hand is held. */
const isHers = (what: Meeting, part: PartId): boolean =>
  what.kind === 'support'
    ? what.of === part || what.by === part
    : what.kind === 'led'
      ? what.of === part || what.by.part === part
      : what.kind === 'hold' &&
        (what.from.part === part || (isHand(what.to) && what.to.part === part))
