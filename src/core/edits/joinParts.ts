import { dequal } from 'dequal'
import type { PropAct } from '../combination/carried'
import type { Combination, Event, Phrase, WrittenFacing } from '../combination/combination'
import type { Remark } from '../combination/remark'
import type { PartId } from '../combination/whose'
import { UserError } from '../errors'
import { stableText } from '../record/stable'
import type { Edit } from './edit'

const [FIRST, SECOND] = ['1', '2'] as const

/** What may be both's, or one's own. */
type Own = Event | Remark | PropAct

/**
 * Lays another combination over this one, as what a second dancer dances to the same counts: what is the
 * same on a tick is written once for both, the rest is each one's own.
 * @throws UserError where their phrases are not danced in the same order, one is for several already,
 * or both call different moves the same
 */
export const joinAsParts =
  (other: Combination): Edit =>
  (combination) => {
    if (combination.parts || other.parts)
      throw new UserError(
        'One of the two is for several dancers already.',
        'Join two that are each for one.',
      )
    const pairs = pairsIn(combination, other)
    const clashing = combination.moves?.find((move) =>
      other.moves?.some((one) => one.id === move.id && !dequal(one, move)),
    )
    if (clashing)
      throw new UserError(
        `Each of the two has a move ${clashing.id} of its own, and they are not the same.`,
        'Nothing was changed. Give one of them another id first.',
      )
    const carried = [
      ...(combination.carried ?? []).map((prop) => ({ ...prop, part: FIRST })),
      ...(other.carried ?? []).map((prop) => ({ ...prop, id: `${prop.id}-2`, part: SECOND })),
    ]
    const moves = [
      ...new Map(
        [...(other.moves ?? []), ...(combination.moves ?? [])].map((move) => [move.id, move]),
      ).values(),
    ]
    const { start, lead } = other
    return {
      ...combination,
      title: `${combination.title} and ${other.title}`,
      parts: [
        { id: FIRST, name: nameFrom(combination.title, 'One'), at: [{ right: -0.5, forward: 0 }] },
        {
          id: SECOND,
          name: nameFrom(other.title, 'Two'),
          at: [{ right: 0.5, forward: 0 }],
          ...(lead !== combination.lead && { lead }),
          ...(!dequal(start, combination.start) && { start }),
        },
      ],
      ...(carried.length > 0 && { carried }),
      ...(moves.length > 0 && { moves }),
      phrases: combination.phrases.map((phrase) => {
        const theirs = pairs.get(phrase.id)
        return theirs ? joined(phrase, theirs) : phrase
      }),
    }
  }

/** A dancer is called by what she danced alone. */
const nameFrom = (title: string, otherwise: string): string => title || otherwise

/** Which phrase of the other one is danced with each of this one's. */
function pairsIn(combination: Combination, other: Combination): ReadonlyMap<string, Phrase> {
  const pairs = new Map<string, Phrase>()
  const [mine, theirs] = [combination, other].map(({ phrases, order }) =>
    order.map((entry) => ({ ...entry, phrase: phrases.find(({ id }) => id === entry.phrase) })),
  )
  const refuse = (what: string): never => {
    throw new UserError(
      `“${other.title}” can’t be laid over this one: ${what}.`,
      'Nothing was changed. Give both the same phrases in the same order first.',
    )
  }
  if (mine?.length !== theirs?.length)
    refuse(`it has ${theirs?.length} phrases in a row, and this one ${mine?.length}`)
  for (const [i, entry] of (mine ?? []).entries()) {
    const with_ = theirs?.[i]
    if (!entry.phrase || !with_?.phrase) continue
    if (entry.phrase.counts !== with_.phrase.counts)
      refuse(`phrase ${i + 1} has ${with_.phrase.counts} counts, and here ${entry.phrase.counts}`)
    const known = pairs.get(entry.phrase.id)
    if (entry.mirrored !== with_.mirrored || (known && known !== with_.phrase))
      refuse(`its phrases come again otherwise, at phrase ${i + 1}`)
    pairs.set(entry.phrase.id, with_.phrase)
  }
  return pairs
}

/** Two phrases on the same counts as one. */
function joined(own: Phrase, other: Phrase): Phrase {
  const idOf = (id: string) => `${id}@${SECOND}`
  const both = <T extends Own>(
    mine: readonly T[] = [],
    theirs: readonly T[] = [],
  ): readonly T[] => {
    const left = new Map<string, T[]>()
    for (const one of theirs) {
      const key = textOf(one)
      left.set(key, [...(left.get(key) ?? []), one])
    }
    const here = mine.map((one) => (left.get(textOf(one))?.shift() ? one : hers(one, FIRST)))
    const there = [...left.values()]
      .flat()
      .map((one) => ({ ...hers(one, SECOND), id: idOf(one.id) }))
    return [...here, ...there].sort((a, b) => a.at - b.at)
  }
  const remarks = both(own.remarks, other.remarks)
  // What is carried is each one's own, and so is what is done with it.
  const props = [
    ...(own.props ?? []).map((one) => hers(one, FIRST)),
    ...(other.props ?? []).map((one) => ({
      ...hers(one, SECOND),
      id: idOf(one.id),
      prop: `${one.prop}-2`,
    })),
  ].sort((a, b) => a.at - b.at)
  const facings: readonly WrittenFacing[] = dequal(own.facings, other.facings)
    ? (own.facings ?? [])
    : [
        ...(own.facings ?? []).map((one) => ({ ...one, who: [FIRST] })),
        ...(other.facings ?? []).map((one) => ({ ...one, who: [SECOND] })),
      ]
  const taken = new Set(own.options?.map(({ name }) => name))
  const options = [
    ...(own.options ?? []).map((option) => ({
      ...option,
      events: option.events.map((one) => hers(one, FIRST)),
    })),
    ...(other.options ?? []).map((option) => ({
      ...option,
      name: taken.has(option.name) ? `${option.name}-2` : option.name,
      events: option.events.map((one) => ({ ...hers(one, SECOND), id: idOf(one.id) })),
    })),
  ]
  // What nobody could read of either is kept.
  const unread = [
    ...new Map(
      [...(own.unread ?? []), ...(other.unread ?? [])].map((one) => [stableText(one), one]),
    ).values(),
  ]
  return {
    ...own,
    events: both(own.events, other.events),
    ...(remarks.length > 0 && { remarks }),
    ...(props.length > 0 && { props }),
    ...(facings.length > 0 && { facings }),
    ...(options.length > 0 && { options }),
    ...(unread.length > 0 && { unread }),
  }
}

const textOf = ({ id: _, ...one }: Own): string => stableText(one)

const hers = <T extends Own>(one: T, part: PartId): T => ({ ...one, who: [part] })
