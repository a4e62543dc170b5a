import type { Contact } from '../body/feet'
import type { FloorPoint, Level } from '../body/places'
import type { Side, Weight } from '../body/side'
import type { Tick } from '../time/time'

/** One foot: where it stands or last stood, and how it touches the floor. */
interface FootState {
  readonly place: FloorPoint
  readonly contact: Contact
}

/** What the feet have led to after some event (model 3). */
export interface BodyState {
  readonly weight: Weight
  readonly feet: Readonly<Record<Side, FootState>>
  /** Degrees clockwise from above, unwrapped: a full turn right is +360. */
  readonly facing: number
  readonly level: Level
  /** One foot stands in front of or behind the other. */
  readonly crossed: { readonly foot: Side; readonly way: 'front' | 'behind' } | undefined
  /** The last step turned 45 degrees or more, so the next one walks on one line. */
  readonly turnedOnStep: boolean
  /** The height that lasts: the start's, until the heels are lowered. */
  readonly stands: Level
  /** A height of the moment: a bend, a rise or straight knees, each until its end (model 3). */
  readonly moment: 'bent' | 'risen' | 'straight' | undefined
  readonly lastLanding: Tick | undefined
  /** The foot that was pressed into the floor last, with half the weight. */
  readonly pressed: Side | undefined
}
