import { dequal } from 'dequal'
import { factsOf } from '../body/feet'
import type { Between } from '../combination/between'
import type { Combination } from '../combination/combination'
import { mirrorWhat } from '../combination/mirror'
import type { Part } from '../combination/part'
import { phraseOf } from '../combination/partOf'
import { isOwnOf, isShared, type PartId } from '../combination/whose'
import { addBetween, betweenOf, changeBetween, removeBetween } from '../edits/between'
import type { Edit } from '../edits/edit'
import { changeEvent, removeEvents } from '../edits/edits'
import { changePart, danceBy } from '../edits/parts'
import { writeVoice } from '../edits/voices'
import type { Finding } from '../findings/finding'
import { COUNT, TICKS_PER_COUNT, tick } from '../time/time'

/** One thing that may put a finding between two right. */
export interface PairTry {
  readonly label: string
  readonly make: Edit
}

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

/** Who follows comes in early enough to dance all of it. */
function inTimeForAll(
  { spot, whose: [part] }: Finding,
  { phrases, parts = [] }: Combination,
): readonly PairTry[] {
  const phrase = phrases.find(({ name }) => name === spot.phrase)
  const voice = phrase?.voices?.find((one) => one.part === part)
  const leader = parts.find(({ id }) => id === voice?.of)
  if (!phrase || !voice || !leader) return []
  const last = Math.max(...phraseOf(phrase, leader, parts).events.map(({ at }) => at))
  const room = phrase.counts * TICKS_PER_COUNT - 1 - last
  const counts = Math.floor(room / TICKS_PER_COUNT)
  return counts < 1
    ? []
    : [
        {
          label: `come in ${counts === 1 ? 'a count' : `${counts} counts`} later, not more`,
          make: writeVoice(phrase.id, { ...voice, by: tick(counts * TICKS_PER_COUNT) }),
        },
      ]
}

/** The id of something that is added, by what it is for. */
const idFor = (what: string, { id }: { readonly id: string }): string => `${what} ${id}`

const addTo =
  (phraseId: string, one: Between): Edit =>
  (combination) =>
    betweenOf(combination, one.id) ? combination : addBetween(phraseId, one)(combination)

/** A hold of the hands that are next to each other, over the ticks of what needs it. */
function holdFor(meeting: Between, combination: Combination): readonly PairTry[] {
  const { what } = meeting
  const phrase = phraseIdOf(combination, meeting)
  if ((what.kind !== 'support' && what.kind !== 'led') || !phrase) return []
  const [by, of] = what.kind === 'support' ? [what.by, what.of] : [what.by.part, what.of]
  const [first, second] = [by, of].map((id) => combination.parts?.find((part) => part.id === id))
  const isLeft = (first?.at[0]?.right ?? 0) <= (second?.at[0]?.right ?? 0)
  const side = what.kind === 'led' ? what.by.side : isLeft ? 'R' : 'L'
  const hold: Between = {
    id: idFor('hold', meeting),
    at: meeting.at,
    length: meeting.length,
    what: {
      kind: 'hold',
      from: { part: by, side },
      to: { part: of, side: isLeft ? 'L' : 'R' },
      grip: what.kind === 'led' ? 'fingers' : 'wrist',
      ...(what.kind === 'led' ? { through: 'over' as const } : { height: 'waist' as const }),
    },
  }
  return [{ label: 'hold hands for it', make: addTo(phrase, hold) }]
}

const phraseIdOf = ({ phrases }: Combination, { id }: Between): string | undefined =>
  phrases.find(({ between = [] }) => between.some((one) => one.id === id))?.id

/** Somebody who carries her for as long as she leans, or a lean that needs nobody. */
function supportFor(
  { events, whose }: Finding,
  { phrases, parts = [] }: Combination,
): readonly PairTry[] {
  const [id] = events
  const phrase = phrases.find((one) => one.events.some((event) => event.id === id))
  const event = phrase?.events.find((one) => one.id === id)
  const [of] = whose
  const by = parts.find((part) => part.id !== of)
  if (!phrase || !event || of === undefined || !by) return []
  const support: Between = {
    id: idFor('support', event),
    at: event.at,
    length: event.length ?? COUNT,
    what: { kind: 'support', by: by.id, of, share: 20 },
  }
  return [
    { label: `${by.name} carries her`, make: addTo(phrase.id, support) },
    { label: 'dance it without leaning', make: changeEvent(event.id, { supported: undefined }) },
  ]
}

/** What two dance alike is written once, for all. */
function shareIt(
  { events, whose, spot }: Finding,
  { phrases, parts = [] }: Combination,
): readonly PairTry[] {
  const [id] = events
  const phrase = phrases.find(({ name }) => name === spot.phrase)
  const event = phrase?.events.find((one) => one.id === id)
  if (!phrase || !event || parts.length !== whose.length) return []
  const same = phrase.events.filter(
    (one) =>
      one !== event &&
      one.layer === event.layer &&
      one.who !== undefined &&
      Math.abs(one.at - event.at) <= TICKS_PER_COUNT / 2 &&
      dequal(one.what, event.what),
  )
  return [
    {
      label: 'write it once, for all',
      make: (combination) =>
        danceBy([event.id], whose)(removeEvents(same.map((one) => one.id))(combination)),
    },
  ]
}

/** What one dances of her own as the other one does, later or as its image, becomes a voice. */
function followIt(
  { whose, spot, by: how }: Extract<Finding, { code: 'pair.unison' }>,
  { phrases, parts = [] }: Combination,
): readonly PairTry[] {
  const phrase = phrases.find(({ name }) => name === spot.phrase)
  const [a, b] = whose.map((id) => parts.find((part) => part.id === id))
  // A voice is all she dances in the phrase.
  if (!phrase || !a || !b || phrase.events.some(isShared)) return []
  const [ofA = [], ofB = []] = [a, b].map(({ id }) =>
    phrase.events.filter((one) => isOwnOf(one, id)),
  )
  const late = (ofB[0]?.at ?? 0) - (ofA[0]?.at ?? 0)
  const [leader, follower, led, following] = late < 0 ? [b, a, ofB, ofA] : [a, b, ofA, ofB]
  const by = tick(Math.abs(late))
  const isMirrored = how === 'image'
  const isVoice =
    led.length === following.length &&
    led.every(({ at, layer, what, length }, i) => {
      const own = following[i]
      return (
        own?.at === at + by &&
        own.layer === layer &&
        own.length === length &&
        dequal(own.what, isMirrored ? mirrorWhat(what) : what)
      )
    })
  if (!isVoice) return []
  const voice = {
    part: follower.id,
    of: leader.id,
    by,
    ...(isMirrored && { mirrored: true as const }),
  }
  return [
    {
      label: `${follower.name} follows ${leader.name}`,
      make: (combination) =>
        writeVoice(phrase.id, voice)(removeEvents(following.map(({ id }) => id))(combination)),
    },
  ]
}

/** Time between two rounds to come back to where each begins. */
const rests = ({ rest = 0 }: Combination): readonly PairTry[] =>
  [1, 2, 4].map((counts) => ({
    label: `${counts === 1 ? 'a count' : `${counts} counts`} of rest between two rounds`,
    make: (combination: Combination) => ({ ...combination, rest: rest + counts }),
  }))

/** The last step of her own before all dance on turns her back to where the other one faces. */
function turnsBack(
  { whose, spot, degrees = 0 }: Extract<Finding, { code: 'pair.rejoin' }>,
  { phrases, parts = [] }: Combination,
): readonly PairTry[] {
  const phrase = phrases.find(({ name }) => name === spot.phrase)
  if (!phrase) return []
  return whose.flatMap((id) => {
    const name = parts.find((part) => part.id === id)?.name ?? ''
    const last = phrase.events.findLast(
      (one) =>
        one.layer === 'feet' &&
        one.at < spot.at &&
        isOwnOf(one, id) &&
        one.what.kind === 'foot' &&
        factsOf(one.what.action.primitive).lands,
    )
    if (last?.what.kind !== 'foot') return []
    const { what } = last
    return [-1, 1].map((sign) => {
      const turn = (what.action.turn ?? 0) + sign * Math.round(degrees)
      const { turn: _, ...action } = what.action
      return {
        label: `${name} turns back on her last step${sign < 0 ? '' : ', the other way'}`,
        make: changeEvent(last.id, {
          what: { ...what, action: turn === 0 ? action : { ...action, turn } },
        }),
      }
    })
  })
}

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

const leaveOut = ({ id, what }: Between): PairTry => ({
  label: `leave the ${what.kind} out`,
  make: removeBetween(id),
})

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
        make: (combination: Combination) => ({
          ...combination,
          phrases: combination.phrases.map((one) =>
            one.id === phrase.id ? { ...one, between: [...(one.between ?? []), wait] } : one,
          ),
        }),
      },
    ]
  })
}

/** Taken a count later, to the same end. */
const later = ({ id, at, length }: Between): readonly PairTry[] =>
  [1, 2]
    .map((counts) => counts * TICKS_PER_COUNT)
    .filter((by) => length - by >= TICKS_PER_COUNT / 2)
    .map((by) => ({
      label: `begin ${by / TICKS_PER_COUNT === 1 ? 'a count' : '2 counts'} later`,
      make: changeBetween(id, { at: tick(at + by), length: tick(length - by) }),
    }))

/** Let go a count earlier. */
const sooner = ({ id, length }: Between): readonly PairTry[] =>
  [1, 2, 4]
    .map((counts) => counts * TICKS_PER_COUNT)
    .filter((by) => length - by >= TICKS_PER_COUNT)
    .map((by) => ({
      label: `end ${by / TICKS_PER_COUNT === 1 ? 'a count' : `${by / TICKS_PER_COUNT} counts`} sooner`,
      make: changeBetween(id, { length: tick(length - by) }),
    }))

/** A place has more counts to be reached in, to the end of its phrase. */
function longer({ id, at, length }: Between, { phrases }: Combination): readonly PairTry[] {
  const phrase = phrases.find(({ between = [] }) => between.some((one) => one.id === id))
  const end = (phrase?.counts ?? 0) * TICKS_PER_COUNT
  return [1, 2, 4]
    .map((counts) => counts * TICKS_PER_COUNT)
    .flatMap((by) => [
      ...(at + length + by <= end
        ? [
            {
              label: `give it ${by / TICKS_PER_COUNT === 1 ? 'a count' : `${by / TICKS_PER_COUNT} counts`} more`,
              make: changeBetween(id, { length: tick(length + by) }),
            },
          ]
        : []),
      ...(at - by >= 0
        ? [
            {
              label: `begin ${by / TICKS_PER_COUNT === 1 ? 'a count' : `${by / TICKS_PER_COUNT} counts`} sooner`,
              make: changeBetween(id, { at: tick(at - by), length: tick(length + by) }),
            },
          ]
        : []),
    ])
}

/** A place without the facing that it can't have: where she stands is enough. */
function asItIs({ id, what }: Between): readonly PairTry[] {
  if (what.kind !== 'place' || (what.rel !== 'facing' && what.rel !== 'back-to-back')) return []
  const rel = what.rel === 'facing' ? 'before' : 'behind'
  return [
    { label: `only ${rel} her, as she faces`, make: changeBetween(id, { what: { ...what, rel } }) },
  ]
}

function through({ id, what }: Between, way: 'over' | 'round', label: string): readonly PairTry[] {
  return what.kind === 'hold'
    ? [{ label, make: changeBetween(id, { what: { ...what, through: way } }) }]
    : []
}

/** The other hand of the one who has a hand free. */
function otherHand({ id, what }: Between): readonly PairTry[] {
  if (what.kind !== 'hold' && what.kind !== 'touch') return []
  const from = { ...what.from, side: what.from.side === 'R' ? ('L' as const) : ('R' as const) }
  const tries: PairTry[] = [
    { label: 'take it with the other hand', make: changeBetween(id, { what: { ...what, from } }) },
  ]
  if (!('on' in what.to)) {
    const to = { ...what.to, side: what.to.side === 'R' ? ('L' as const) : ('R' as const) }
    tries.push({ label: 'take her other hand', make: changeBetween(id, { what: { ...what, to } }) })
  }
  return tries
}

/** Only the one who can looks. */
function oneWay({ id, what }: Between, away: PartId | undefined): readonly PairTry[] {
  if (what.kind !== 'look' || what.oneWay || away === undefined) return []
  const [a, b] = what.a === away ? [what.b, what.a] : [what.a, what.b]
  return [
    {
      label: 'only the other one looks',
      make: changeBetween(id, { what: { kind: 'look', a, b, oneWay: true } }),
    },
  ]
}
