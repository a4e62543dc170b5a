import type { Vocabulary } from '../moves/vocabulary'
import { remembered } from '../record/remembered'
import type { DancedEvent } from './lengths'

/**
 * Works something out of the events of a phrase once, for as long as they and the vocabulary
 * stay the very same: an edit leaves the events of all other phrases alone.
 */
export const oncePerPhrase = <T>(
  make: (events: readonly DancedEvent[], vocabulary: Vocabulary) => T,
): ((events: readonly DancedEvent[], vocabulary: Vocabulary) => T) => remembered(make)
