import { z } from 'zod'
import { OwnMove } from '../moves/move'
import { vocabulary, vocabularyFor } from '../moves/vocabulary'
import type { Upgrade } from '../record/upgrade'
import { COUNT, slotAt, TICKS_PER_COUNT, Tick } from '../time/time'
import { What } from '../what/kinds'
import { ownLengthOf } from './lengths'

/**
 * Version 1 is the first one; each later version adds its step here.
 * - Version 2 has a teaching tempo only where it was written, and says which lengths were written
 *   as ranges: all that version 1 says stays as it is.
 * - Version 3 has a length only where a range was written; what lasted as long as its count alone
 *   meant lasts as long as it is danced.
 * - Version 4 knows pressed, shared and recovered weight, springs that travel, heights that last,
 *   half degrees, turns that steps share, and what is danced once.
 * - Version 5 knows how hands are held, and which arm of a crossing is in front; and more than one
 *   easier or harder form, each a move, anything else, or nothing.
 * - Version 6 knows pickups of any phrase, counts that begin with another number, phrases that are
 *   like another one, and parts that may be danced otherwise.
 * - Version 7 knows several dancers: who dances what, where each stands, and what they do with each
 *   other. What is for one dancer is still written as version 6 (`asStored`).
 * - Version 8 knows voices and delays, and what is carried in the hands. What uses none of it is
 *   written as version 6 or 7.
 */
export const COMBINATION_UPGRADES: readonly Upgrade[] = [
  { from: 1, up: (record) => record },
  { from: 2, up: withoutMeantLengths },
  { from: 3, up: (record) => record },
  { from: 4, up: withFormsInARow },
  { from: 5, up: (record) => record },
  { from: 6, up: (record) => record },
  { from: 7, up: (record) => record },
]

/** An event of version 4 has one form a way, by the id of a move. */
function withFormsInARow(record: Record<string, unknown>): Record<string, unknown> {
  const phrases = z
    .array(z.looseObject({ events: z.array(z.looseObject({})) }))
    .safeParse(record.phrases)
  if (!phrases.success) return record
  const inARow = (form: unknown) => (typeof form === 'string' ? [{ move: form }] : form)
  return {
    ...record,
    phrases: phrases.data.map((phrase) => ({
      ...phrase,
      events: phrase.events.map(({ easier, harder, ...event }) => ({
        ...event,
        ...(easier !== undefined && { easier: inARow(easier) }),
        ...(harder !== undefined && { harder: inARow(harder) }),
      })),
    })),
  }
}

/** What the upgrade looks at of an event of version 2; the schema reads the rest of it later. */
const OldEvent = z.looseObject({
  at: Tick,
  length: Tick,
  range: z.literal(true).optional(),
  what: What,
})
const OldPhrases = z.array(z.looseObject({ counts: z.int(), events: z.array(z.looseObject({})) }))

function withoutMeantLengths(record: Record<string, unknown>): Record<string, unknown> {
  const phrases = OldPhrases.safeParse(record.phrases)
  // What is no combination is said when it is read.
  if (!phrases.success) return record
  const moves = z.array(OwnMove).safeParse(record.moves)
  const known = vocabularyFor({ moves: moves.data }, vocabulary)
  return {
    ...record,
    phrases: phrases.data.map((phrase) => ({
      ...phrase,
      events: phrase.events.map((one) => {
        const event = OldEvent.safeParse(one)
        if (!event.success) return one
        const { at, length, range, what } = event.data
        const { range: _, length: __, ...rest } = one
        const isMeant =
          !range && length === meantLength(at, ownLengthOf({ what }, known), phrase.counts)
        return isMeant ? rest : { ...rest, length }
      }),
    })),
  }
}

/**
 * How long something of version 2 lasted whose count alone was written: on a whole count the
 * move's own counts, at most to the end of the phrase; anywhere else its own slot.
 */
function meantLength(at: Tick, own: Tick, counts: number): number {
  const slot = slotAt(at)
  return slot === COUNT ? Math.min(own, counts * TICKS_PER_COUNT - at) : slot
}
