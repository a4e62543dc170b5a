import type { Between } from '../combination/between'
import type { Combination } from '../combination/combination'
import type { Part } from '../combination/part'
import type { PartId } from '../combination/whose'
import { betweenOf } from '../edits/between'
import type { Edit } from '../edits/edit'
import { removeEvents } from '../edits/edits'
import { changePart } from '../edits/parts'
import type { Finding } from '../findings/finding'
import { COUNT, TICKS_PER_COUNT, tick } from '../time/time'
import {
  addTo,
  asItIs,
  holdFor,
  idFor,
  later,
  leaveOut,
  longer,
  oneWay,
  otherHand,
  type PairTry,
  sooner,
  through,
} from './meetingTries'
import { followIt, inTimeForAll, shareIt, supportFor, turnsBack } from './ownTries'

/** How much nearer or further apart they are tried to stand, nearest to what is written first. */
const NEARER = [0.9, 0.8, 0.7, 0.6] as const
const FURTHER = [1.15, 1.3, 1.5, 1.8] as const

/** What may put a finding between dancers right, the smallest change first. */
export function pairTries(finding: Finding, combination: Combination): readonly PairTry[] {
  const { whose } = finding
  const [first] = whose
  const meeting =
    finding.events[0] === undefined ? undefined : betweenOf(combination, finding.events[0])
  switch (finding.code) {
    case 'pair.collision':
    case 'pair.tread':
      return [...standing(combination, whose, FURTHER), ...waits(combination, finding)]
    case 'pair.reach':
      return [
        ...standing(combination, whose, NEARER),
        ...(meeting ? [...later(meeting), ...sooner(meeting), leaveOut(meeting)] : []),
      ]
    case 'pair.hand-late':
      return meeting ? [...later(meeting), leaveOut(meeting)] : []
    case 'pair.hand-busy':
      return meeting
        ? [...otherHand(meeting), ...later(meeting), ...sooner(meeting), leaveOut(meeting)]
        : finding.events[0] === undefined
          ? []
          : [{ label: 'leave its own line out', make: removeEvents([finding.events[0]]) }]
    case 'pair.turn-held':
      return meeting
        ? [
            ...through(meeting, 'over', 'turn under the raised hands'),
            ...through(meeting, 'round', 'with the arm round her'),
            ...sooner(meeting),
            leaveOut(meeting),
          ]
        : []
    case 'pair.crossed':
      return meeting ? [...sooner(meeting), leaveOut(meeting)] : []
    case 'pair.place':
    case 'pair.facing':
      return meeting ? [...longer(meeting, combination), ...asItIs(meeting), leaveOut(meeting)] : []
    case 'pair.eyes':
      return meeting
        ? [...oneWay(meeting, first), ...later(meeting), ...sooner(meeting), leaveOut(meeting)]
        : finding.events[0] === undefined
          ? []
          : [{ label: 'leave her own look out', make: removeEvents([finding.events[0]]) }]
    case 'pair.support-stance':
      return meeting ? [...later(meeting), ...sooner(meeting), leaveOut(meeting)] : []
    case 'pair.support-hold':
      return meeting ? [...holdFor(meeting, combination), leaveOut(meeting)] : []
    case 'pair.support-missing':
      return supportFor(finding, combination)
    case 'pair.led':
      return meeting
        ? [...(finding.lacks === 'hand' ? holdFor(meeting, combination) : []), leaveOut(meeting)]
        : []
    case 'pair.unison':
      return [
        ...(finding.by === 'image' ? [] : shareIt(finding, combination)),
        ...followIt(finding, combination),
      ]
    case 'pair.cut':
      return inTimeForAll(finding, combination)
    case 'pair.join':
      return [...placeAtEnd(finding, combination), ...rests(combination)]
    case 'pair.rejoin':
      return finding.differs === 'facing' ? turnsBack(finding, combination) : []
    default:
      return []
  }
}

/** Time between two rounds to come back to where each begins. */
const rests = ({ rest = 0 }: Combination): readonly PairTry[] =>
  [1, 2, 4].map((counts) => ({
    label: `${counts === 1 ? 'a count' : `${counts} counts`} of rest between two rounds`,
    make: (combination: Combination) => ({ ...combination, rest: rest + counts }),
  }))

/** A place at the end of the last phrase, as she stood to another one at the start. */
function placeAtEnd(
  { whose }: Finding,
  { phrases, order, parts = [] }: Combination,
): readonly PairTry[] {
  const last = phrases.find(({ id }) => id === order.at(-1)?.phrase)
  const own = parts.find(({ id }) => id === whose[0])
  const other = parts.find((part) => part !== own)
  const [from, to] = [own?.at[0], other?.at[0]]
  if (!last || !own || !other || !from || !to) return []
  const [right, forward] = [from.right - to.right, from.forward - to.forward]
  const rel =
    Math.abs(right) >= Math.abs(forward)
      ? right > 0
        ? ('right' as const)
        : ('left' as const)
      : forward > 0
        ? ('before' as const)
        : ('behind' as const)
  const counts = Math.min(4, last.counts)
  const apart = Math.max(0.2, Math.round(Math.hypot(right, forward) * 100) / 100)
  const place: Between = {
    id: idFor('place', last),
    at: tick((last.counts - counts) * TICKS_PER_COUNT),
    length: tick(counts * TICKS_PER_COUNT),
    what: { kind: 'place', of: own.id, rel, to: other.id, apart },
  }
  return [{ label: `${own.name} comes back to her place`, make: addTo(last.id, place) }]
}

/** Both stand nearer to the point between them, or further from it. */
function standing(
  { parts = [] }: Combination,
  whose: readonly PartId[],
  shares: readonly number[],
): readonly PairTry[] {
  const [a, b] = whose.map((id) => parts.find((part) => part.id === id))
  const [from, to] = [a?.at[0], b?.at[0]]
  if (!a || !b || !from || !to) return []
  const middle = { right: (from.right + to.right) / 2, forward: (from.forward + to.forward) / 2 }
  const apart = Math.hypot(from.right - to.right, from.forward - to.forward)
  const rounded = (metres: number) => Math.round(metres * 100) / 100 + 0
  const moved = (part: Part, share: number): Edit => {
    const [first = middle] = part.at
    const by = {
      right: (middle.right - first.right) * (1 - share),
      forward: (middle.forward - first.forward) * (1 - share),
    }
    return changePart(part.id, {
      at: part.at.map(({ right, forward }) => ({
        right: rounded(right + by.right),
        forward: rounded(forward + by.forward),
      })),
    })
  }
  return shares.map((share) => ({
    label: `stand ${rounded(apart * share)} m apart at the start`,
    make: (combination) => moved(b, share)(moved(a, share)(combination)),
  }))
}

/** One of the two lets the other pass: she waits through the count. */
function waits({ parts = [], phrases }: Combination, { spot, whose }: Finding): readonly PairTry[] {
  const phrase = phrases.find(({ name }) => name === spot.phrase)
  if (!phrase) return []
  const at = Math.max(0, Math.floor(spot.at / TICKS_PER_COUNT) * TICKS_PER_COUNT)
  return whose.flatMap((id) => {
    const part = parts.find((one) => one.id === id)
    if (!part) return []
    const wait: Between = {
      id: `wait ${id} ${phrase.id} ${at}`,
      at: tick(at),
      length: COUNT,
      what: { kind: 'wait', of: [id] },
    }
    return [
      {
        label: `${part.name} waits for a count`,
        make: addTo(phrase.id, wait),
      },
    ]
  })
}
