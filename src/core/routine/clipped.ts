import type { Combination, Event, Phrase } from '../combination/combination'
import type { Pace } from '../combination/pace'
import { pacedPhrase } from '../combination/paced'
import type { Remark } from '../combination/remark'
import { sliceOf } from '../combination/slice'
import { shippedFor } from '../moves/vocabulary'

/** What of a phrase is danced on a song. */
interface Clip {
  readonly combination: Combination
  /** Its first count as it is danced, from 0; a pickup is before that. */
  readonly from: number
  readonly counts: number
  readonly pace: Pace | undefined
  readonly title: string
  /** With what leads into it, over the end of what is danced before. */
  readonly isLed?: boolean
}

const clips = new WeakMap<Phrase, Map<string, Phrase>>()

/**
 * Some counts of a phrase as they stand in a routine, with names of their own. The very same
 * phrase each time, so that what is known of it holds.
 */
export function clipped(written: Phrase, clip: Clip): Phrase {
  const { combination, from, counts, pace, title, isLed = false } = clip
  const known = clips.get(written) ?? new Map<string, Phrase>()
  clips.set(written, known)
  const name = [combination.id, from, counts, pace ?? 1, title, isLed].join(' ')
  const made = known.get(name) ?? clipOf(atPace(written, pace, combination), clip, name)
  known.set(name, made)
  return made
}

const pacedOnes = new WeakMap<Phrase, Map<Pace, Phrase>>()

/** A phrase at a pace; as it is written where it can't be danced at that. */
export function atPace(written: Phrase, pace: Pace | undefined, combination: Combination): Phrase {
  if (pace === undefined) return written
  const known = pacedOnes.get(written) ?? new Map<Pace, Phrase>()
  pacedOnes.set(written, known)
  const made = known.get(pace) ?? pacedPhrase(written, pace, shippedFor(combination)) ?? written
  known.set(pace, made)
  return made
}

function clipOf(
  { facings: _, comments: __, unread: ___, like: ____, options: _____, ...phrase }: Phrase,
  { from, counts, title, isLed }: Clip,
  name: string,
): Phrase {
  const { events, remarks } = sliceOf(phrase, {
    from,
    to: from + counts,
    ...(isLed && { early: counts }),
  })
  const named = <T extends Event | Remark>(all: readonly T[]): readonly T[] =>
    all.map((one) => ({ ...one, id: `${name} ${one.id}` }))
  return {
    ...phrase,
    id: `${name} ${phrase.id}`,
    ...(from < 0 && { name: 'Pickup' }),
    title,
    counts,
    events: named(events),
    ...(remarks && { remarks: named(remarks) }),
  }
}
