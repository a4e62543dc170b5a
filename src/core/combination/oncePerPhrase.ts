import type { Vocabulary } from '../moves/vocabulary'
import type { Event } from './combination'

/**
 * Works something out of the events of a phrase once, for as long as they and the vocabulary
 * stay the very same: an edit leaves the events of all other phrases alone.
 */
export function oncePerPhrase<T>(
  make: (events: readonly Event[], vocabulary: Vocabulary) => T,
): (events: readonly Event[], vocabulary: Vocabulary) => T {
  const known = new WeakMap<
    readonly Event[],
    { readonly vocabulary: Vocabulary; readonly made: T }
  >()
  return (events, vocabulary) => {
    const before = known.get(events)
    if (before?.vocabulary === vocabulary) return before.made
    const made = make(events, vocabulary)
    known.set(events, { vocabulary, made })
    return made
  }
}
