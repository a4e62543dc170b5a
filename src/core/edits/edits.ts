import { otherSide, type Side } from '../body/side'
import { type Combination, type Event, lengthOf, type Phrase } from '../combination/combination'
import { mirrorWhat } from '../combination/mirror'
import { sideOf } from '../combination/names'
import { TICKS_PER_COUNT, type Tick, tick } from '../time/time'

/** A change to a combination: pure, and the combination it was given stays as it was. */
export type Edit = (combination: Combination) => Combination

const changePhrase =
  (id: string, change: (phrase: Phrase) => Phrase): Edit =>
  (combination) => ({
    ...combination,
    phrases: combination.phrases.map((phrase) => (phrase.id === id ? change(phrase) : phrase)),
  })

const changeEvents =
  (ids: ReadonlySet<string>, change: (event: Event, phrase: Phrase) => Event): Edit =>
  (combination) => ({
    ...combination,
    phrases: combination.phrases.map((phrase) =>
      phrase.events.some((event) => ids.has(event.id))
        ? {
            ...phrase,
            events: inOrder(phrase.events.map((e) => (ids.has(e.id) ? change(e, phrase) : e))),
          }
        : phrase,
    ),
  })

const inOrder = (events: readonly Event[]): readonly Event[] =>
  [...events].sort((a, b) => a.at - b.at)

const clamp = (value: number, low: number, high: number) => Math.min(high, Math.max(low, value))

/** Keeps an event inside its phrase: first moved in, then cut. */
function fitted(event: Event, phrase: Phrase): Event {
  const length = clamp(event.length, 1, lengthOf(phrase))
  return { ...event, at: tick(clamp(event.at, 0, lengthOf(phrase) - length)), length: tick(length) }
}

export const placeEvent = (phraseId: string, event: Event): Edit =>
  changePhrase(phraseId, (phrase) => ({
    ...phrase,
    events: inOrder([...phrase.events, fitted(event, phrase)]),
  }))

/** Takes away what starts in the span on this layer, and puts the event there. */
export const replaceWith =
  (phraseId: string, replaced: readonly string[], event: Event): Edit =>
  (combination) =>
    placeEvent(phraseId, event)(removeEvents(replaced)(combination))

/** Moves events in time inside their phrases, all by the same way; the first to meet an end stops all. */
export const moveEvents =
  (ids: readonly string[], by: number): Edit =>
  (combination) => {
    const moved = new Set(ids)
    const reach = combination.phrases.flatMap((phrase) =>
      phrase.events
        .filter((event) => moved.has(event.id))
        .map((event) => ({ back: -event.at, on: lengthOf(phrase) - event.at - event.length })),
    )
    const way = clamp(
      by,
      Math.max(...reach.map(({ back }) => back)),
      Math.min(...reach.map(({ on }) => on)),
    )
    return reach.length === 0 || way === 0
      ? combination
      : changeEvents(moved, (event) => ({ ...event, at: tick(event.at + way) }))(combination)
  }

/** Puts one event somewhere else, also into another phrase. */
export const moveEventTo =
  (id: string, phraseId: string, at: Tick): Edit =>
  (combination) => {
    const event = eventOf(combination, id)
    if (!event) return combination
    return placeEvent(phraseId, { ...event, at })(removeEvents([id])(combination))
  }

export const stretchEvents = (ids: readonly string[], by: number): Edit =>
  changeEvents(new Set(ids), (event, phrase) => ({
    ...event,
    length: tick(clamp(event.length + by, 1, lengthOf(phrase) - event.at)),
  }))

export const removeEvents =
  (ids: readonly string[]): Edit =>
  (combination) => {
    const gone = new Set(ids)
    return {
      ...combination,
      phrases: combination.phrases.map((phrase) =>
        phrase.events.some((event) => gone.has(event.id))
          ? { ...phrase, events: phrase.events.filter((event) => !gone.has(event.id)) }
          : phrase,
      ),
    }
  }

/** Turns events to a side; what names both arms swaps them, what has no side stays. */
export const changeSide = (ids: readonly string[], side: Side): Edit =>
  changeEvents(new Set(ids), (event) => {
    const now = sideOf(event.what)
    const stays = now === side || (now === undefined && event.what.kind !== 'arms')
    return stays ? event : { ...event, what: mirrorWhat(event.what) }
  })

export const keep = (ids: readonly string[], kept: boolean): Edit =>
  changeEvents(new Set(ids), ({ kept: _, ...event }) => (kept ? { ...event, kept } : event))

/** Changes what an event is, how long it lasts, or its cue and note. An empty cue or note goes away. */
export const changeEvent = (
  id: string,
  change: Partial<Pick<Event, 'what' | 'length' | 'cue' | 'note'>>,
): Edit =>
  changeEvents(new Set([id]), (event, phrase) => {
    const { cue, note, ...rest } = { ...event, ...change }
    return fitted({ ...rest, ...(cue && { cue }), ...(note && { note }) }, phrase)
  })

export const describe =
  (
    change: Partial<Pick<Combination, 'title' | 'families' | 'tempo' | 'teachTempo' | 'start'>>,
  ): Edit =>
  (combination) => ({ ...combination, ...change })

export const namePhrase = (id: string, title: string): Edit =>
  changePhrase(id, (phrase) => ({ ...phrase, title }))

/** Makes a phrase longer or shorter; what no longer fits at its end is cut or taken out. */
export const setCounts = (id: string, counts: number): Edit =>
  changePhrase(id, (phrase) => ({
    ...phrase,
    counts,
    events: phrase.events
      .filter((event) => event.at < counts * TICKS_PER_COUNT)
      .map((event) => ({
        ...event,
        length: tick(Math.min(event.length, counts * TICKS_PER_COUNT - event.at)),
      })),
  }))

/** The next free letter, then A1, B1 and so on. */
function freeName({ phrases }: Combination): string {
  const taken = new Set(phrases.map(({ name }) => name))
  for (let i = 0; ; i++) {
    const letter = String.fromCharCode(65 + (i % 26))
    const name = i < 26 ? letter : `${letter}${Math.floor(i / 26)}`
    if (!taken.has(name)) return name
  }
}

/** Adds an empty phrase behind a place in the order. */
export const addPhrase =
  (id: string, behind: number, counts = 8): Edit =>
  (combination) => ({
    ...combination,
    phrases: [
      ...combination.phrases,
      { id, name: freeName(combination), title: '', counts, events: [] },
    ],
    order: combination.order.toSpliced(behind + 1, 0, { phrase: id, mirrored: false }),
  })

/** Takes one dancing of a phrase out of the order; a phrase that is danced no more goes with it. */
export const removePass =
  (index: number): Edit =>
  (combination) => {
    if (combination.order.length === 1) return combination
    const order = combination.order.toSpliced(index, 1)
    const danced = new Set(order.map(({ phrase }) => phrase))
    return {
      ...combination,
      order,
      phrases: combination.phrases.filter(({ id }) => danced.has(id)),
    }
  }

export const movePass =
  (from: number, to: number): Edit =>
  (combination) => {
    const entry = combination.order[from]
    if (!entry || to < 0 || to >= combination.order.length) return combination
    return { ...combination, order: combination.order.toSpliced(from, 1).toSpliced(to, 0, entry) }
  }

/** Dances a phrase once more, right behind. */
export const repeatPass =
  (index: number): Edit =>
  (combination) => {
    const entry = combination.order[index]
    if (!entry) return combination
    return { ...combination, order: combination.order.toSpliced(index + 1, 0, entry) }
  }

/** Dances one pass from the other side, or back from its own. */
export const turnPass =
  (index: number): Edit =>
  (combination) => ({
    ...combination,
    order: combination.order.map((entry, i) =>
      i === index ? { ...entry, mirrored: !entry.mirrored } : entry,
    ),
  })

export const eventOf = ({ phrases }: Combination, id: string): Event | undefined =>
  phrases.flatMap(({ events }) => events).find((event) => event.id === id)

/** The foot meant when none is written: the free one; on both feet the lead foot (model 4). */
export function footMeant(weight: 'L' | 'R' | 'both', lead: Side, mirrored: boolean): Side {
  if (weight === 'both') return mirrored ? otherSide[lead] : lead
  return otherSide[weight]
}
