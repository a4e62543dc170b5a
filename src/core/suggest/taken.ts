import type { Combination, Event } from '../combination/combination'

const idsIn = ({ phrases }: Combination): ReadonlySet<string> =>
  new Set(phrases.flatMap(({ events }) => events.map(({ id }) => id)))

/** A combination with only some of what a proposal puts in; what stood there before stays as it is. */
export function withSome(
  before: Combination,
  proposed: Combination,
  isWanted: (event: Event) => boolean,
): Combination {
  const known = idsIn(before)
  return {
    ...proposed,
    phrases: proposed.phrases.map((phrase) => ({
      ...phrase,
      events: phrase.events.filter((event) => known.has(event.id) || isWanted(event)),
    })),
  }
}

/** The layers a proposal puts something on. */
export const layersPut = (
  before: Combination,
  proposed: Combination,
): ReadonlySet<Event['layer']> => {
  const known = idsIn(before)
  return new Set(
    proposed.phrases.flatMap(({ events }) =>
      events.filter(({ id }) => !known.has(id)).map(({ layer }) => layer),
    ),
  )
}

/** A proposal whose new phrases and events have ids nobody has: it may be asked for and taken again. */
export function withNewIds(
  before: Combination,
  proposed: Combination,
  newId: () => string,
): Combination {
  const known = idsIn(before)
  const phrases = new Map(
    proposed.phrases
      .filter(({ id }) => !before.phrases.some((one) => one.id === id))
      .map(({ id }) => [id, newId()]),
  )
  const own = (id: string) => phrases.get(id) ?? id
  return {
    ...proposed,
    order: proposed.order.map((entry) => ({ ...entry, phrase: own(entry.phrase) })),
    phrases: proposed.phrases.map((phrase) => ({
      ...phrase,
      id: own(phrase.id),
      ...(phrase.like && { like: { ...phrase.like, phrase: own(phrase.like.phrase) } }),
      events: phrase.events.map((event) =>
        known.has(event.id) ? event : { ...event, id: newId() },
      ),
    })),
  }
}
