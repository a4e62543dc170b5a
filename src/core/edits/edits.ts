import type { Side } from '../body/side'
import { type Combination, type Event, lengthOf, type Phrase } from '../combination/combination'
import { dancedIn } from '../combination/lengths'
import { mirrorEvent, mirrorWhat } from '../combination/mirror'
import { sideOf } from '../combination/names'
import type { CountCalls, Remark } from '../combination/remark'
import { stepsOf } from '../combination/steps'
import { withoutWay } from '../combination/ways'
import type { OwnMove } from '../moves/move'
import type { Vocabulary } from '../moves/vocabulary'
import { slotAt, type Tick, tick } from '../time/time'
import { kindOf } from '../what/kinds'
import { changeEvents, changePhrase, clamp, type Edit, earliestIn, inOrder } from './edit'

/** Keeps an event inside its phrase: first moved in, then cut. */
function fitted(danced: Event, phrase: Phrase, earliest: number): Event {
  const { either, ...plain } = withoutWay(danced)
  // What has no side is danced on none of two.
  const event: Event = either && kindOf(plain.what).side(plain.what) ? { ...plain, either } : plain
  if (event.length === undefined)
    return { ...event, at: tick(clamp(event.at, earliest, lengthOf(phrase) - 1)) }
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
          on: Math.max(0, lengthOf(phrase) - event.at - (event.length ?? slotAt(event.at))),
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

/** Makes events longer or shorter; what was not written is from then on. */
export const stretchEvents = (ids: readonly string[], by: number, vocabulary: Vocabulary): Edit =>
  changeEvents(new Set(ids), (event, phrase) => {
    const danced = dancedIn(phrase, vocabulary).find(({ id }) => id === event.id)
    const now = event.length ?? danced?.length ?? slotAt(event.at)
    return { ...event, length: tick(clamp(now + by, 1, lengthOf(phrase) - event.at)) }
  })

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
  | 'held'
  | 'cue'
  | 'note'
  | 'words'
  | 'size'
  | 'rate'
  | 'as'
  | 'easier'
  | 'harder'
  | 'either'
  | 'supported'
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

/** Taught at the house share of its tempo again. */
export const withoutTeachTempo: Edit = ({ teachTempo: _, ...combination }) => combination

/** Whether turns keep their direction on the other side of this combination. */
export const keepTurns =
  (keeps: boolean): Edit =>
  ({ keepTurns: _, ...combination }) => ({ ...combination, ...(keeps && { keepTurns: true }) })

/** Whether it is danced once, and nothing has to join its beginning. */
export const dancedOnce =
  (isOnce: boolean): Edit =>
  ({ once: _, ...combination }) => ({ ...combination, ...(isOnce && { once: true }) })

/** What the caller says on its counts; without it their numbers. */
export const callCounts =
  (call: CountCalls | undefined): Edit =>
  ({ call: _, ...combination }) => ({ ...combination, ...(call && { call }) })

/** Writes a figure out as its single steps, so that each can be changed. */
export const openFigure =
  (id: string, vocabulary: Vocabulary, newId: () => string): Edit =>
  (combination) => {
    const event = eventOf(combination, id)
    if (event?.layer !== 'feet' || event.what.kind !== 'move') return combination
    const danced = combination.phrases
      .filter(({ events }) => events.includes(event))
      .flatMap((phrase) => dancedIn(phrase, vocabulary))
      .find((one) => one.id === id)
    const steps = danced ? stepsOf(danced, vocabulary) : []
    if (steps.length === 0) return combination
    const { what: _, id: __, as: ___, length: ____, cue, note, ...rest } = event
    const written = steps.map(
      ({ at, action }, i): Event => ({
        ...rest,
        ...(i === 0 && { ...(cue && { cue }), ...(note && { note }) }),
        id: newId(),
        at: tick(event.at + at),
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

/** Own moves that are danced come along, so that a file can be read anywhere; those it has stay as they are. */
export const bringUsed =
  (moves: readonly OwnMove[]): Edit =>
  (combination) => {
    const used = new Set(
      combination.phrases.flatMap(({ events }) =>
        events.flatMap(({ what }) => (what.kind === 'move' ? what.move : [])),
      ),
    )
    return moves
      .filter(({ id }) => used.has(id) && !combination.moves?.some((own) => own.id === id))
      .reduce((brought, move) => bringMove(move)(brought), combination)
  }

/** A remark of a phrase, put in place of the one of its id; without text it goes away. */
export const setRemark = (phraseId: string, remark: Remark): Edit =>
  changePhrase(phraseId, ({ remarks = [], ...phrase }) => {
    const others = remarks.filter(({ id }) => id !== remark.id)
    const all = remark.text ? [...others, remark].sort((a, b) => a.at - b.at) : others
    return { ...phrase, ...(all.length > 0 && { remarks: all }) }
  })

export const removeRemark = (phraseId: string, id: string): Edit =>
  changePhrase(phraseId, ({ remarks = [], ...phrase }) => {
    const others = remarks.filter((one) => one.id !== id)
    return { ...phrase, ...(others.length > 0 && { remarks: others }) }
  })

export const eventOf = ({ phrases }: Combination, id: string): Event | undefined =>
  phrases.flatMap(({ events }) => events).find((event) => event.id === id)
