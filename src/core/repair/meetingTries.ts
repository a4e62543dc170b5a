import type { Between } from '../combination/between'
import type { Combination } from '../combination/combination'
import type { PartId } from '../combination/whose'
import { addBetween, betweenOf, changeBetween, removeBetween } from '../edits/between'
import type { Edit } from '../edits/edit'
import { TICKS_PER_COUNT, tick } from '../time/time'

/** One thing that may put a finding between two right. */
export interface PairTry {
  readonly label: string
  readonly make: Edit
}

/** The id of something that is added, by what it is for. */
export const idFor = (what: string, { id }: { readonly id: string }): string => `${what} ${id}`

export const addTo =
  (phraseId: string, one: Between): Edit =>
  (combination) =>
    betweenOf(combination, one.id) ? combination : addBetween(phraseId, one)(combination)

/** A hold of the hands that are next to each other, over the ticks of what needs it. */
export function holdFor(meeting: Between, combination: Combination): readonly PairTry[] {
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

export const leaveOut = ({ id, what }: Between): PairTry => ({
  label: `leave the ${what.kind} out`,
  make: removeBetween(id),
})

/** Taken a count later, to the same end. */
export const later = ({ id, at, length }: Between): readonly PairTry[] =>
  [1, 2]
    .map((counts) => counts * TICKS_PER_COUNT)
    .filter((by) => length - by >= TICKS_PER_COUNT / 2)
    .map((by) => ({
      label: `begin ${by / TICKS_PER_COUNT === 1 ? 'a count' : '2 counts'} later`,
      make: changeBetween(id, { at: tick(at + by), length: tick(length - by) }),
    }))

/** Let go a count earlier. */
export const sooner = ({ id, length }: Between): readonly PairTry[] =>
  [1, 2, 4]
    .map((counts) => counts * TICKS_PER_COUNT)
    .filter((by) => length - by >= TICKS_PER_COUNT)
    .map((by) => ({
      label: `end ${by / TICKS_PER_COUNT === 1 ? 'a count' : `${by / TICKS_PER_COUNT} counts`} sooner`,
      make: changeBetween(id, { length: tick(length - by) }),
    }))

/** A place has more counts to be reached in, to the end of its phrase. */
export function longer({ id, at, length }: Between, { phrases }: Combination): readonly PairTry[] {
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
export function asItIs({ id, what }: Between): readonly PairTry[] {
  if (what.kind !== 'place' || (what.rel !== 'facing' && what.rel !== 'back-to-back')) return []
  const rel = what.rel === 'facing' ? 'before' : 'behind'
  return [
    { label: `only ${rel} her, as she faces`, make: changeBetween(id, { what: { ...what, rel } }) },
  ]
}

export function through(
  { id, what }: Between,
  way: 'over' | 'round',
  label: string,
): readonly PairTry[] {
  return what.kind === 'hold'
    ? [{ label, make: changeBetween(id, { what: { ...what, through: way } }) }]
    : []
}

/** The other hand of the one who has a hand free. */
export function otherHand({ id, what }: Between): readonly PairTry[] {
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
export function oneWay({ id, what }: Between, away: PartId | undefined): readonly PairTry[] {
  if (what.kind !== 'look' || what.oneWay || away === undefined) return []
  const [a, b] = what.a === away ? [what.b, what.a] : [what.a, what.b]
  return [
    {
      label: 'only the other one looks',
      make: changeBetween(id, { what: { kind: 'look', a, b, oneWay: true } }),
    },
  ]
}
