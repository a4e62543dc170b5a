import type { Vocabulary } from '../moves/vocabulary'
import type { Claim } from '../what/kind'
import { kindOf } from '../what/kinds'
import type { Event } from './combination'

/** The parts of the body an event claims from its start to its end (model 5). */
export const claimOf = ({ layer, what }: Event, vocabulary: Vocabulary): Claim =>
  kindOf(what).claim(what, { layer, vocabulary })
