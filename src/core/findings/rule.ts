import type { DancerLevel, Event } from '../combination/combination'
import type { Pass } from '../combination/passes'
import type { House } from '../house/house'
import type { FootJoins } from '../joins/joins'
import type { Layer } from '../moves/move'
import type { Vocabulary } from '../moves/vocabulary'
import type { Simulation } from '../simulate/simulate'
import { secondsOfTicks, type Tempo } from '../time/tempo'
import { type Tick, tick } from '../time/time'
import type { Found, Spot } from './finding'

/** What a rule may look at: one side of a combination, danced. */
export interface Danceable {
  readonly simulation: Simulation
  readonly vocabulary: Vocabulary
  readonly house: House
  /** Who it is for. */
  readonly level: DancerLevel
  readonly tempo: Tempo
  readonly joins: FootJoins
}

/** A rule is a name and one pure function; a new rule is a new file and a line in the list. */
export interface Rule {
  readonly id: string
  readonly check: (danceable: Danceable) => Iterable<Found>
}

/** The seconds some ticks last here. */
export const secondsIn = ({ tempo }: Danceable, ticks: number): number =>
  secondsOfTicks(ticks, tempo)

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
