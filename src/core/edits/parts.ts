import { partsIn } from '../combination/between'
import type { PropAct } from '../combination/carried'
import type { Combination, Event, Option, Phrase, WrittenFacing } from '../combination/combination'
import { mirrorEvent } from '../combination/mirror'
import { MOST_PARTS, type Part } from '../combination/part'
import { partIds, partOf } from '../combination/partOf'
import type { Remark } from '../combination/remark'
import { isShared, type PartId, SOLO, type Who } from '../combination/whose'
import { UserError } from '../errors'
import type { Edit } from './edit'
import { ownId } from './forPart'

/** Metres between two dancers who stand beside each other. */
const APART = 1

/** Where a row of dancers stands, a metre apart round the middle. */
const inARow = (index: number, of: number): Part['at'] => [
  { right: (index - (of - 1) / 2) * APART, forward: 0 },
]

/** A combination for one becomes one for several, who dance all of it together until something is made to differ. */
export const makeForSeveral =
  (names: readonly string[]): Edit =>
  (combination) =>
    combination.parts
      ? combination
      : {
          ...combination,
          parts: names.map((name, i) => ({ id: `${i + 1}`, name, at: inARow(i, names.length) })),
        }

/** One dancer more, at the end of the row; she dances what all do. */
export const addPart =
  (name: string): Edit =>
  (combination) => {
    const { parts = [] } = combination
    if (parts.length === 0) return makeForSeveral(['One', name])(combination)
    if (parts.length === MOST_PARTS)
      throw new UserError(
        `There are ${MOST_PARTS} parts at the most.`,
        'Let several dancers dance one of them: give it more places.',
      )
    let id = parts.length + 1
    while (parts.some((one) => one.id === `${id}`)) id++
    const right = Math.max(...parts.flatMap(({ at }) => at.map((one) => one.right))) + APART
    const forward = parts.at(-1)?.at[0]?.forward ?? 0
    return { ...combination, parts: [...parts, { id: `${id}`, name, at: [{ right, forward }] }] }
  }

export type PartChange = { readonly [K in keyof Omit<Part, 'id'>]?: Part[K] | undefined }

/** Changes what is said of a part; what is undefined goes away. */
export const changePart =
  (id: PartId, change: PartChange): Edit =>
  (combination) => ({
    ...combination,
    ...(combination.parts && {
      parts: combination.parts.map((part) =>
        part.id === id
          ? (Object.fromEntries(
              Object.entries({ ...part, ...change }).filter(([, value]) => value !== undefined),
            ) as Part)
          : part,
      ),
    }),
  })

/**
 * Takes a part out, with what only she dances and what she does with others. Where one is left,
 * the combination is hers alone.
 */
export const removePart =
  (id: PartId): Edit =>
  (combination) => {
    const { parts = [] } = combination
    const left = parts.filter((part) => part.id !== id)
    if (left.length === parts.length) return combination
    const [only] = left
    if (left.length === 1 && only) return plainAlone(partOf(combination, only.id))
    const { swapRoles: _, carried, ...rest } = combination
    const gone = new Set(carried?.flatMap((prop) => (prop.part === id ? [prop.id] : [])))
    return {
      ...rest,
      parts: left,
      ...(carried &&
        carried.length > gone.size && { carried: carried.filter((one) => !gone.has(one.id)) }),
      phrases: combination.phrases.map((phrase) => withoutPart(phrase, { id, gone })),
    }
  }

/** What a part dances as a combination to be kept: nothing in it is anybody's in particular any more. */
export const plainAlone = (combination: Combination): Combination => ({
  ...combination,
  phrases: combination.phrases.map(
    ({ remarks, facings, options, props, ...phrase }): Phrase => ({
      ...phrase,
      events: phrase.events.map(withoutWho),
      ...(remarks && { remarks: remarks.map(withoutWho) }),
      ...(props && { props: props.map(withoutWho) }),
      ...(facings && { facings: facings.map(withoutWho) }),
      ...(options && {
        options: options.map(
          (option): Option => ({
            ...option,
            events: option.events.map(withoutWho),
          }),
        ),
      }),
    }),
  ),
})

const withoutWho = <T extends { readonly who?: Who | undefined }>({ who: _, ...one }: T): T =>
  one as T

interface Gone {
  readonly id: PartId
  /** What only she carried. */
  readonly gone: ReadonlySet<string>
}

function withoutPart(phrase: Phrase, { id, gone }: Gone): Phrase {
  const { remarks, facings, between, voices, props, options, ...rest } = phrase
  const left = <T extends Event | Remark | WrittenFacing | PropAct>(
    list: readonly T[],
  ): readonly T[] =>
    list.flatMap((one) => {
      if (isShared(one) || !one.who?.includes(id)) return [one]
      const who = one.who.filter((part) => part !== id && part !== SOLO)
      return who.length === 0 ? [] : [{ ...one, who: one.who.filter((part) => part !== id) }]
    })
  const said = left(remarks ?? [])
  const faced = left(facings ?? [])
  const done = left(props ?? []).filter(({ prop }) => !gone.has(prop))
  const followers = voices?.filter(({ part, of }) => part !== id && of !== id)
  const met = (between ?? []).flatMap((one) => {
    const { what } = one
    if (what.kind === 'wait') {
      const of = what.of.filter((part) => part !== id)
      return of.length > 0 ? [{ ...one, what: { ...what, of } }] : []
    }
    const isGone = partsIn(what).includes(id) || (what.kind === 'pass' && gone.has(what.prop))
    return isGone ? [] : [one]
  })
  return {
    ...rest,
    events: left(phrase.events),
    ...(said.length > 0 && { remarks: said }),
    ...(faced.length > 0 && { facings: faced }),
    ...(met.length > 0 && { between: met }),
    ...(followers && followers.length > 0 && { voices: followers }),
    ...(done.length > 0 && { props: done }),
    ...(options && {
      options: options.map((option): Option => ({ ...option, events: left(option.events) })),
    }),
  }
}

/**
 * Gives events to some parts: to all of them it is what all dance. Who dances the others' image goes
 * on seeing it so: she gets an event of her own.
 */
export const danceBy =
  (ids: readonly string[], wanted: readonly PartId[]): Edit =>
  (combination) => {
    const { parts = [] } = combination
    const chosen = new Set(ids)
    const all = partIds(combination)
    const who = all.filter((id) => wanted.includes(id))
    if (who.length === 0 || parts.length === 0) return combination
    const taken = new Set(combination.phrases.flatMap(({ events }) => events.map(({ id }) => id)))
    const given = (event: Event): readonly Event[] => {
      const { who: _, ...plain } = event
      if (who.length === all.length) return [plain]
      if (!isShared(event)) return [{ ...event, who }]
      const images = parts.filter(({ id, mirrored }) => mirrored && who.includes(id))
      const others = who.filter((id) => !images.some((part) => part.id === id))
      return [
        ...(others.length > 0 ? [{ ...event, who: others }] : []),
        ...images.map(({ id }, i): Event => {
          const image = mirrorEvent(event)
          let own = i === 0 && others.length === 0 ? event.id : ownId(event.id, id)
          while (own !== event.id && taken.has(own)) own = `${own}+`
          taken.add(own)
          return { ...image, id: own, who: [id] }
        }),
      ]
    }
    return {
      ...combination,
      phrases: combination.phrases.map((phrase) =>
        phrase.events.some(({ id }) => chosen.has(id))
          ? {
              ...phrase,
              events: phrase.events.flatMap((event) =>
                chosen.has(event.id) ? given(event) : [event],
              ),
            }
          : phrase,
      ),
    }
  }

/** The parts that dance an event. */
export const dancersOf = (
  { who }: Pick<Event, 'who'>,
  combination: Combination,
): readonly PartId[] =>
  who ? partIds(combination).filter((id) => who.includes(id)) : partIds(combination)

/** Whether on the other side each of two dances the other one's part. */
export const withSwappedRoles =
  (swaps: boolean): Edit =>
  ({ swapRoles: _, ...combination }) => ({ ...combination, ...(swaps && { swapRoles: true }) })
