import type { Event } from '../combination/combination'
import type { Pass } from '../combination/passes'
import type { Layer } from '../moves/move'
import type { Vocabulary } from '../moves/vocabulary'
import type { Simulation } from '../simulate/simulate'
import { type Tick, tick } from '../time/time'
import type { Fact, Finding, Spot } from './finding'

/** What a rule may look at: one side of a combination, danced. */
export interface Danceable {
  readonly simulation: Simulation
  readonly vocabulary: Vocabulary
}

export type Found = Omit<Finding, 'side'> & Fact

/** A rule is a name and one pure function; a new rule is a new file and a line in the list. */
export interface Rule {
  readonly id: string
  readonly check: (danceable: Danceable) => Iterable<Found>
}

/** Where a tick of the combination is, for an event of a pass. */
export const spotIn = (pass: Pass, at: Tick, layer: Layer): Spot => ({
  pass: pass.index,
  phrase: pass.phrase.name,
  counts: pass.phrase.counts,
  ...(pass.times > 1 && { time: pass.time }),
  at: tick(at - pass.at),
  layer,
})

export const spotOf = (pass: Pass, event: Event): Spot =>
  spotIn(pass, tick(pass.at + event.at), event.layer)
