import type { Combination, Event } from '../combination/combination'
import { mirrorEvent } from '../combination/mirror'
import { passAt, passPlaces } from '../combination/passes'
import { shippedFor } from '../moves/vocabulary'
import { endOf, TICKS_PER_COUNT, type Tick, tick } from '../time/time'
import { countsOf, type Edit } from './edit'
import { placeEvent, removeEvents } from './edits'

interface Clipped {
  readonly event: Event
  readonly offset: number
  /** Ticks it was danced in where it was copied. */
  readonly danced: number
}

/** Events that were copied, each with its ticks from the start of what was copied. */
export interface Clip {
  readonly events: readonly Clipped[]
}

/** The same from the other side; what is kept stays. */
export const mirroredClip = ({ events }: Clip): Clip => ({
  events: events.map((one) => ({ ...one, event: mirrorEvent(one.event) })),
})

interface Landing {
  readonly phrase: string
  readonly event: Event
  readonly danced: number
}

/** Where each event of a clip would land, counted from a place of a pass on; what runs over the end is left out. */
function landings(
  { events }: Clip,
  pass: number,
  at: Tick,
  combination: Combination,
): readonly Landing[] {
  const passes = passPlaces(combination, shippedFor(combination))
  const from = (passes[pass]?.at ?? 0) + at
  return events.flatMap(({ event, offset, danced }) => {
    const there = passAt(passes, from + offset)
    if (!there || from + offset >= endOf(there)) return []
    const written = there.mirrored ? mirrorEvent(event) : event
    return [
      {
        phrase: there.phrase.id,
        danced,
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
      .map(({ event, offset, danced }) => ({
        phrase,
        danced,
        event: { ...event, at: tick(at + offset) },
      }))
    return pasteLanded(landed, newId)(combination)
  }

const pasteLanded =
  (landed: readonly Landing[], newId: () => string): Edit =>
  (combination) => {
    const first = new Map<string, { from: number; to: number }>()
    for (const { phrase, event, danced } of landed) {
      const key = `${phrase} ${event.layer}`
      const known = first.get(key)
      first.set(key, {
        from: Math.min(known?.from ?? event.at, event.at),
        to: Math.max(known?.to ?? 0, event.at + danced),
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
