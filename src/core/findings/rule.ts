import type { Layer } from '../body/layers'
import type { DancerLevel, Event } from '../combination/combination'
import type { Pass } from '../combination/passes'
import type { House } from '../house/house'
import { type FootJoins, footJoins } from '../joins/joins'
import type { Vocabulary } from '../moves/vocabulary'
import type { Danced } from '../simulate/danced'
import type { DancedStep, Simulation } from '../simulate/simulate'
import type { Tempo } from '../time/tempo'
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

/** What the rules are told besides the dance itself. */
export type Known = Omit<Danceable, 'simulation'>

/** What a judge knows of a dance, whichever side is looked at. */
export const knownOf = ({ written, lead, vocabulary, house }: Danced): Known => ({
  vocabulary,
  house,
  level: written.level ?? house.level,
  tempo: written.tempo,
  joins: footJoins(lead, vocabulary),
})

/** A rule is a name and one pure function; a new rule is a new file and a line in the list. */
export interface Rule {
  readonly id: string
  readonly check: (danceable: Danceable) => Iterable<Found>
}

/** Where a tick of the combination is, for an event of a pass. A pickup danced again is where it is written. */
export function spotIn(pass: Pass, at: Tick, layer: Layer): Spot {
  const { leadIn } = pass
  const own = at - pass.at
  const isLed = leadIn !== undefined && own >= (leadIn.from.get(layer) ?? pass.length)
  const { index, phrase, time, times } = isLed ? leadIn.into : pass
  return {
    pass: index,
    phrase: phrase.name,
    counts: phrase.counts,
    ...(phrase.from !== undefined && { from: phrase.from }),
    ...(times > 1 && !(isLed && index === 0) && { time }),
    at: tick(isLed ? own - leadIn.countOne : own),
    layer,
  }
}

export const spotOf = (pass: Pass, event: Event): Spot =>
  spotIn(pass, tick(pass.at + event.at), event.layer)

/** Where a step of the feet is, and that it is about its event. */
export const aboutStep = ({ pass, at, event }: DancedStep): Pick<Found, 'spot' | 'events'> => ({
  spot: spotIn(pass, at, 'feet'),
  events: [event.id],
})
