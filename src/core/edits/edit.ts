import {
  type Combination,
  type Event,
  lengthOf,
  MOST_COUNTS,
  type Phrase,
} from '../combination/combination'
import { optionWith } from '../combination/optionWith'
import { ownPickup, pickupTicks } from '../combination/passes'
import { UserError } from '../errors'
import { MOST_PHRASE_COUNTS, TICKS_PER_COUNT, tick } from '../time/time'

/** A change to a combination: pure, and the combination it was given stays as it was. */
export type Edit = (combination: Combination) => Combination

/** What an edit makes; undefined where it refuses. */
export function madeBy(edit: Edit, combination: Combination): Combination | undefined {
  try {
    return edit(combination)
  } catch (error) {
    if (error instanceof UserError) return undefined
    throw error
  }
}

export const changePhrase =
  (id: string, change: (phrase: Phrase) => Phrase): Edit =>
  (combination) => ({
    ...combination,
    phrases: combination.phrases.map((phrase) => (phrase.id === id ? change(phrase) : phrase)),
  })

export const changeEvents =
  (
    ids: ReadonlySet<string>,
    change: (event: Event, phrase: Phrase, earliest: number) => Event,
  ): Edit =>
  (combination) => ({
    ...combination,
    phrases: combination.phrases.map((phrase) =>
      phrase.events.some((event) => ids.has(event.id))
        ? {
            ...phrase,
            events: inOrder(
              phrase.events.map((e) =>
                ids.has(e.id) ? change(e, phrase, earliestIn(combination, phrase.id)) : e,
              ),
            ),
          }
        : phrase,
    ),
  })

export const inOrder = (events: readonly Event[]): readonly Event[] =>
  [...events].sort((a, b) => a.at - b.at)

export const clamp = (value: number, low: number, high: number) =>
  Math.min(high, Math.max(low, value))

/** Where a phrase begins: before count 1 when a pickup leads into it. */
export function earliestIn(combination: Combination, phraseId: string): number {
  if (combination.order[0]?.phrase === phraseId) return 0 - pickupTicks(combination)
  const phrase = combination.phrases.find(({ id }) => id === phraseId)
  return phrase ? 0 - ownPickup(phrase) : 0
}

export const countsOf = ({ phrases }: Combination, id: string): number | undefined =>
  phrases.find((phrase) => phrase.id === id)?.counts

/** Refuses what would make a phrase or the whole too long, or leave a phrase without counts. */
export function needRoom(
  combination: Combination,
  id: string,
  counts: number,
  dancedMore = 0,
): void {
  if (counts < 1)
    throw new UserError(
      'A phrase needs at least one count.',
      'Take the whole phrase out instead, from its name in the margin.',
    )
  if (counts > MOST_PHRASE_COUNTS)
    throw new UserError(
      `That makes ${counts} counts; a phrase has ${MOST_PHRASE_COUNTS} at the most.`,
      'Add another phrase for the rest.',
    )
  const total = combination.order.reduce(
    (sum, { phrase }) => sum + (phrase === id ? counts : (countsOf(combination, phrase) ?? 0)),
    dancedMore,
  )
  if (total > MOST_COUNTS)
    throw new UserError(
      `That makes ${total} counts; a combination has ${MOST_COUNTS} at the most.`,
      'Take a phrase out first, or make it a combination of its own.',
    )
}

/**
 * The pickup before the very first count leads into whatever is danced first: its events go with
 * it, unless that has a pickup of its own; and it is never longer than the phrase it takes its
 * counts from.
 */
export function withPickupFirst(before: Combination, after: Combination): Combination {
  const { pickup } = before
  const first = after.phrases.find(({ id }) => id === after.order[0]?.phrase)
  const led = before.order[0]?.phrase
  if (!first) return after
  if (!pickup) return withoutLongPickups(after)
  const counts = Math.min(pickup.counts, first.counts)
  if (first.id !== led && ownPickup(first) > 0)
    return withoutLongPickups({ ...after, pickup: { ...pickup, counts } })
  const isLed = ({ id }: Phrase) => id === led || id === first.id
  const early = after.phrases
    .filter(isLed)
    .flatMap(({ events }) => events.filter(({ at }) => at < 0))
    .filter(({ at }) => at >= -counts * TICKS_PER_COUNT)
    .map((event) => ({
      ...event,
      ...(event.length !== undefined && {
        length: tick(Math.min(event.length, first.counts * TICKS_PER_COUNT - event.at)),
      }),
    }))
  return withoutLongPickups({
    ...after,
    pickup: { ...pickup, counts },
    phrases: after.phrases.map((phrase) => {
      if (!isLed(phrase)) return phrase
      const own = phrase.events.filter(({ at }) => at >= 0)
      const { remarks, ...rest } = phrase
      const said =
        phrase === first
          ? remarks?.filter(({ at }) => at >= -counts * TICKS_PER_COUNT)
          : remarks?.filter(({ at }) => at >= 0)
      const events = phrase === first ? inOrder([...early, ...own]) : own
      const same = events.length === phrase.events.length && phrase !== first
      return same && said?.length === remarks?.length
        ? phrase
        : { ...rest, events, ...(said && said.length > 0 && { remarks: said }) }
    }),
  })
}

/** No pickup is longer than its phrase. */
const withoutLongPickups = (combination: Combination): Combination => ({
  ...combination,
  phrases: combination.phrases.map((phrase) => {
    const early = (phrase.options ?? []).flatMap(({ events, without = [] }) => [
      ...events,
      ...without,
    ])
    const isLong = early.some(({ at }) => at + lengthOf(phrase) < 0)
    if (ownPickup(phrase) <= lengthOf(phrase) && !isLong) return phrase
    const isWithin = ({ at }: { readonly at: number }) => at + lengthOf(phrase) >= 0
    const { remarks, ...rest } = phrase
    const said = remarks?.filter(isWithin) ?? []
    return {
      ...rest,
      ...(phrase.options && {
        options: phrase.options.map((one) => optionWith(one, (list) => list.filter(isWithin))),
      }),
      events: phrase.events.filter(isWithin),
      ...(said.length > 0 && { remarks: said }),
    }
  }),
})
