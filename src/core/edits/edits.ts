import type { Side } from '../body/side'
import {
  type Combination,
  type Event,
  lengthOf,
  MOST_COUNTS,
  MOST_PHRASE_COUNTS,
  type Phrase,
  type Remark,
} from '../combination/combination'
import { mirrorEvent, mirrorWhat } from '../combination/mirror'
import { sideOf } from '../combination/names'
import { passAt, passesOf, pickupTicks } from '../combination/passes'
import { UserError } from '../errors'
import type { OwnMove } from '../moves/move'
import { lengthsIn } from '../moves/pattern'
import type { Vocabulary } from '../moves/vocabulary'
import { stepsOf } from '../simulate/simulate'
import {
  endOf,
  labelIn,
  labelOfSpan,
  type Span,
  TICKS_PER_COUNT,
  type Tick,
  tick,
} from '../time/time'

/** A change to a combination: pure, and the combination it was given stays as it was. */
export type Edit = (combination: Combination) => Combination

const changePhrase =
  (id: string, change: (phrase: Phrase) => Phrase): Edit =>
  (combination) => ({
    ...combination,
    phrases: combination.phrases.map((phrase) => (phrase.id === id ? change(phrase) : phrase)),
  })

const changeEvents =
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

const inOrder = (events: readonly Event[]): readonly Event[] =>
  [...events].sort((a, b) => a.at - b.at)

const clamp = (value: number, low: number, high: number) => Math.min(high, Math.max(low, value))

/** Where a phrase begins: before count 1 when a pickup leads into it. */
export const earliestIn = (combination: Combination, phraseId: string): number =>
  combination.order[0]?.phrase === phraseId ? 0 - pickupTicks(combination) : 0

/** Keeps an event inside its phrase: first moved in, then cut. */
function fitted(event: Event, phrase: Phrase, earliest: number): Event {
  const length = clamp(event.length, 1, lengthOf(phrase) - earliest)
  const at = clamp(event.at, earliest, lengthOf(phrase) - length)
  return { ...event, at: tick(at), length: tick(length) }
}

export const placeEvent =
  (phraseId: string, event: Event): Edit =>
  (combination) =>
    changePhrase(phraseId, (phrase) => ({
      ...phrase,
      events: inOrder([...phrase.events, fitted(event, phrase, earliestIn(combination, phraseId))]),
    }))(combination)

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
        .map((event) => ({
          back: earliestIn(combination, phrase.id) - event.at,
          on: lengthOf(phrase) - event.at - event.length,
        })),
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

/** Writes events from the other side; what is kept stays. */
export const turnOver = (ids: readonly string[]): Edit =>
  changeEvents(new Set(ids), (event) => ({ ...mirrorEvent(event), id: event.id }))

export const keep = (ids: readonly string[], kept: boolean): Edit =>
  changeEvents(new Set(ids), ({ kept: _, ...event }) => (kept ? { ...event, kept } : event))

type Options = Pick<
  Event,
  | 'what'
  | 'length'
  | 'cue'
  | 'note'
  | 'words'
  | 'size'
  | 'rate'
  | 'as'
  | 'easier'
  | 'harder'
  | 'optional'
  | 'on'
>
/** What can be changed of an event; what is undefined or empty goes away. */
export type EventChange = { readonly [K in keyof Options]?: Options[K] | undefined }

/** Changes what an event is, how long it lasts, or one of its options. */
export const changeEvent = (id: string, change: EventChange): Edit =>
  changeEvents(new Set([id]), (event, phrase, earliest) => {
    const changed = Object.entries({ ...event, ...change }).filter(
      ([, value]) => value !== undefined && value !== '',
    )
    return fitted(Object.fromEntries(changed) as Event, phrase, earliest)
  })

export const describe =
  (
    change: Partial<
      Pick<Combination, 'title' | 'families' | 'tempo' | 'teachTempo' | 'start' | 'level'>
    >,
  ): Edit =>
  (combination) => ({ ...combination, ...change })

export const namePhrase = (id: string, title: string): Edit =>
  changePhrase(id, (phrase) => ({ ...phrase, title }))

/** Cuts what no longer fits at the end of a phrase, or takes it out. */
function cutTo<T extends Span>(list: readonly T[], counts: number): readonly T[] {
  const end = counts * TICKS_PER_COUNT
  return list
    .filter(({ at }) => at < end)
    .map((one) => (endOf(one) <= end ? one : { ...one, length: tick(end - one.at) }))
}

/** All of a phrase that has a place in time, changed in one way; what comes out empty goes away. */
function retimed(
  phrase: Phrase,
  counts: number,
  change: <T extends Span>(list: readonly T[]) => readonly T[],
): Phrase {
  const { remarks, facings, ...rest } = phrase
  const said = remarks && change(remarks)
  const faced = facings && change(facings.map((facing) => ({ ...facing, length: tick(1) })))
  return {
    ...rest,
    counts,
    events: change(phrase.events),
    ...(said && said.length > 0 && { remarks: said }),
    ...(faced &&
      faced.length > 0 && { facings: faced.map(({ at, degrees }) => ({ at, degrees })) }),
  }
}

/** Refuses what would make a phrase or the whole too long, or leave a phrase without counts. */
function needRoom(combination: Combination, id: string, counts: number, dancedMore = 0): void {
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

/** Makes a phrase longer or shorter; what no longer fits at its end is cut or taken out. */
export const setCounts =
  (id: string, counts: number): Edit =>
  (combination) => {
    needRoom(combination, id, counts)
    const cut = changePhrase(id, (phrase) => retimed(phrase, counts, (list) => cutTo(list, counts)))
    return withPickupFirst(combination, cut(combination))
  }

/** Puts empty counts into a phrase before a count, from 1; everything after moves along. */
export const insertCounts =
  (id: string, before: number, counts: number): Edit =>
  (combination) => {
    needRoom(combination, id, (countsOf(combination, id) ?? 0) + counts)
    const from = (before - 1) * TICKS_PER_COUNT
    const by = counts * TICKS_PER_COUNT
    return changePhrase(id, (phrase) =>
      retimed(phrase, phrase.counts + counts, (list) =>
        list.map((one) => {
          if (one.at >= from) return { ...one, at: tick(one.at + by) }
          // What runs over the place runs on over the new counts.
          return endOf(one) > from ? { ...one, length: tick(one.length + by) } : one
        }),
      ),
    )(combination)
  }

/** Takes counts out of a phrase with what starts on them; everything after moves back. */
export const deleteCounts =
  (id: string, from: number, counts: number): Edit =>
  (combination) => {
    needRoom(combination, id, (countsOf(combination, id) ?? 0) - counts)
    return withPickupFirst(
      combination,
      changePhrase(id, (phrase) => {
        const start = (from - 1) * TICKS_PER_COUNT
        const end = Math.min(start + counts * TICKS_PER_COUNT, lengthOf(phrase))
        return retimed(phrase, phrase.counts - (end - start) / TICKS_PER_COUNT, (list) =>
          list
            .filter(({ at }) => at < start || at >= end)
            .map((one) => {
              if (one.at >= end) return { ...one, at: tick(one.at - (end - start)) }
              const over = Math.max(0, Math.min(endOf(one), end) - start)
              return over > 0 ? { ...one, length: tick(one.length - over) } : one
            }),
        )
      })(combination),
    )
  }

/**
 * A phrase danced in half the counts, or in twice as many.
 * @throws UserError that names what would fall between ticks, or why the counts do not work.
 */
export const retime =
  (id: string, factor: 0.5 | 2, nameOf: (event: Event) => string): Edit =>
  (combination) => {
    const phrase = combination.phrases.find((one) => one.id === id)
    if (!phrase) return combination
    const counts = phrase.counts * factor
    if (!Number.isInteger(counts))
      throw new UserError(
        `Phrase ${phrase.name} has ${phrase.counts} counts, which can't be halved.`,
        'Add or take out a count first, or double a part of it only.',
      )
    needRoom(combination, id, counts)
    const between = [...phrase.events, ...(phrase.remarks ?? [])].filter(
      ({ at, length }) => !Number.isInteger(at * factor) || !Number.isInteger(length * factor),
    )
    if (between.length > 0)
      throw new UserError(
        `${between
          .slice(0, 3)
          .map(
            (one) =>
              `${'what' in one ? nameOf(one) : `“${one.text}”`} (${labelOfSpan(one, labelIn(phrase.counts))})`,
          )
          .join(
            ', ',
          )}${between.length > 3 ? ` and ${between.length - 3} more` : ''} would fall between the smallest parts of a count.`,
        'Move or stretch it to an even part first. Nothing was changed.',
      )
    const scaled = retimed(phrase, counts, (list) =>
      list.map((one) => ({ ...one, at: tick(one.at * factor), length: tick(one.length * factor) })),
    )
    return withPickupFirst(combination, changePhrase(id, () => scaled)(combination))
  }

const countsOf = ({ phrases }: Combination, id: string): number | undefined =>
  phrases.find((phrase) => phrase.id === id)?.counts

/**
 * The pickup leads into whatever is danced first: its events go with it, and it is never
 * longer than the phrase it takes its counts from.
 */
function withPickupFirst(before: Combination, after: Combination): Combination {
  const { pickup } = before
  if (!pickup) return after
  const first = after.phrases.find(({ id }) => id === after.order[0]?.phrase)
  if (!first) return after
  const counts = Math.min(pickup.counts, first.counts)
  const early = after.phrases
    .flatMap(({ events }) => events.filter(({ at }) => at < 0))
    .filter(({ at }) => at >= -counts * TICKS_PER_COUNT)
    .map((event) => ({
      ...event,
      length: tick(Math.min(event.length, first.counts * TICKS_PER_COUNT - event.at)),
    }))
  return {
    ...after,
    pickup: { ...pickup, counts },
    phrases: after.phrases.map((phrase) => {
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
  }
}

/** Sets how many counts lead into count 1, and whether they are danced before every round; 0 takes the pickup away. */
export const setPickup =
  (counts: number, each: boolean): Edit =>
  ({ pickup: _, ...combination }) => {
    const first = combination.order[0]?.phrase
    const most = Math.min(counts, countsOf(combination, first ?? '') ?? 0)
    const earliest = -most * TICKS_PER_COUNT
    return {
      ...combination,
      ...(most > 0 && { pickup: { counts: most, each } }),
      phrases: combination.phrases.map((phrase) =>
        phrase.events.some(({ at }) => at < earliest)
          ? { ...phrase, events: phrase.events.filter(({ at }) => at >= earliest) }
          : phrase,
      ),
    }
  }

/** Writes a figure out as its single steps, so that each can be changed. */
export const openFigure =
  (id: string, vocabulary: Vocabulary, newId: () => string): Edit =>
  (combination) => {
    const event = eventOf(combination, id)
    if (event?.layer !== 'feet' || event.what.kind !== 'move') return combination
    const steps = stepsOf(event, vocabulary)
    if (steps.length === 0) return combination
    const lengths = lengthsIn(steps, event.length)
    const { what: _, id: __, as: ___, cue, note, ...rest } = event
    const written = steps.map(
      ({ at, action }, i): Event => ({
        ...rest,
        ...(i === 0 && { ...(cue && { cue }), ...(note && { note }) }),
        id: newId(),
        at: tick(event.at + at),
        length: lengths[i] ?? tick(1),
        what: { kind: 'foot', action },
      }),
    )
    return {
      ...combination,
      phrases: combination.phrases.map((phrase) =>
        phrase.events.includes(event)
          ? {
              ...phrase,
              events: inOrder([...phrase.events.filter((one) => one !== event), ...written]),
            }
          : phrase,
      ),
    }
  }

/** Keeps an own move with the combination that uses it. */
export const bringMove =
  (move: OwnMove): Edit =>
  (combination) => ({
    ...combination,
    moves: [...(combination.moves ?? []).filter(({ id }) => id !== move.id), move],
  })

/** A remark of a phrase, put in place of the one of its id; without text it goes away. */
export const setRemark = (phraseId: string, remark: Remark): Edit =>
  changePhrase(phraseId, ({ remarks = [], ...phrase }) => {
    const others = remarks.filter(({ id }) => id !== remark.id)
    const all = remark.text ? [...others, remark].sort((a, b) => a.at - b.at) : others
    return { ...phrase, ...(all.length > 0 && { remarks: all }) }
  })

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
  (combination) => {
    needRoom(combination, id, counts, counts)
    const added = { id, name: freeName(combination), title: '', counts, events: [] }
    return {
      ...combination,
      phrases: [...combination.phrases, added],
      order: combination.order.toSpliced(behind + 1, 0, { phrase: id, mirrored: false }),
    }
  }

/** Takes one dancing of a phrase out of the order; a phrase that is danced no more goes with it. */
export const removePass =
  (index: number): Edit =>
  (combination) => {
    if (combination.order.length === 1) return combination
    const order = combination.order.toSpliced(index, 1)
    const danced = new Set(order.map(({ phrase }) => phrase))
    const [kept, gone] = [true, false].map((stays) =>
      combination.phrases.filter(({ id }) => danced.has(id) === stays),
    )
    // A pickup stays when the phrase it led into goes.
    const early = gone?.flatMap(({ events }) => events.filter(({ at }) => at < 0)) ?? []
    const phrases = kept?.map((phrase) =>
      phrase.id === order[0]?.phrase && early.length > 0
        ? { ...phrase, events: [...early, ...phrase.events] }
        : phrase,
    )
    return withPickupFirst(combination, { ...combination, order, phrases: phrases ?? [] })
  }

export const movePass =
  (from: number, to: number): Edit =>
  (combination) => {
    const entry = combination.order[from]
    if (!entry || to < 0 || to >= combination.order.length) return combination
    return withPickupFirst(combination, {
      ...combination,
      order: combination.order.toSpliced(from, 1).toSpliced(to, 0, entry),
    })
  }

/** Dances a phrase once more, right behind. */
export const repeatPass =
  (index: number): Edit =>
  (combination) => {
    const entry = combination.order[index]
    if (!entry) return combination
    const counts = countsOf(combination, entry.phrase) ?? 0
    needRoom(combination, entry.phrase, counts, counts)
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

/** Events that were copied, each with its ticks from the start of what was copied. */
export interface Clip {
  readonly events: readonly { readonly event: Event; readonly offset: number }[]
}

/** The same from the other side; what is kept stays. */
export const mirroredClip = ({ events }: Clip): Clip => ({
  events: events.map(({ event, offset }) => ({ event: mirrorEvent(event), offset })),
})

interface Landing {
  readonly phrase: string
  readonly event: Event
}

/** Where each event of a clip would land, counted from a place of a pass on; what runs over the end is left out. */
function landings(
  { events }: Clip,
  pass: number,
  at: Tick,
  combination: Combination,
): readonly Landing[] {
  const passes = passesOf(combination)
  const from = (passes[pass]?.at ?? 0) + at
  return events.flatMap(({ event, offset }) => {
    const there = passAt(passes, from + offset)
    if (!there || from + offset >= endOf(there)) return []
    const written = there.mirrored ? mirrorEvent(event) : event
    return [
      {
        phrase: there.phrase.id,
        event: { ...written, at: tick(from + offset - there.at) },
      },
    ]
  })
}

/** How many events of a clip have room from a place on. */
export const roomFor = (clip: Clip, pass: number, at: Tick, combination: Combination): number =>
  landings(clip, pass, at, combination).length

/**
 * Puts copied events at a place of a pass; what starts there on the same layers within the
 * same stretch makes room. Events that find no room behind the end are left out.
 */
export const paste =
  (clip: Clip, pass: number, at: Tick, newId: () => string): Edit =>
  (combination) => {
    return pasteLanded(landings(clip, pass, at, combination), newId)(combination)
  }

/** Puts copied events into one phrase, counted from a place of it; what has no room is left out. */
export const pasteInPhrase =
  ({ events }: Clip, phrase: string, at: Tick, newId: () => string): Edit =>
  (combination) => {
    const end = (countsOf(combination, phrase) ?? 0) * TICKS_PER_COUNT
    const landed = events
      .filter(({ offset }) => at + offset < end)
      .map(({ event, offset }) => ({ phrase, event: { ...event, at: tick(at + offset) } }))
    return pasteLanded(landed, newId)(combination)
  }

const pasteLanded =
  (landed: readonly Landing[], newId: () => string): Edit =>
  (combination) => {
    const first = new Map<string, { from: number; to: number }>()
    for (const { phrase, event } of landed) {
      const key = `${phrase} ${event.layer}`
      const known = first.get(key)
      first.set(key, {
        from: Math.min(known?.from ?? event.at, event.at),
        to: Math.max(known?.to ?? 0, endOf(event)),
      })
    }
    const replaced = combination.phrases.flatMap((phrase) =>
      phrase.events
        .filter((event) => {
          const span = first.get(`${phrase.id} ${event.layer}`)
          return span && event.at >= span.from && event.at < span.to
        })
        .map(({ id }) => id),
    )
    return landed.reduce(
      (changed, { phrase, event }) => placeEvent(phrase, { ...event, id: newId() })(changed),
      removeEvents(replaced)(combination),
    )
  }
