import type { Layer } from '../body/layers'
import type { Side } from '../body/side'
import type { Family } from '../moves/move'
import type { BodyState } from '../simulate/state'
import type { Tempo } from '../time/tempo'
import type { Tick } from '../time/time'
import type { Places } from '../what/places'

/** What is known about the place where something is to be written. */
export interface Wanted {
  readonly layer: Layer
  /** The side meant where none is typed: the free foot, or the lead side. */
  readonly side: Side
  readonly families: readonly Family[]
  /** What else decides whether it fits; without it only names and families count. */
  readonly here?: Here | undefined
}

/** The place something would be written at. */
export interface Here {
  /** The body as it comes there. */
  readonly state: BodyState
  readonly places: Places
  readonly at: Tick
  /** Ticks until the layer has something else, or the phrase ends. */
  readonly room: number
  readonly tempo: Tempo
  /** What was placed lately, the last one first: ids of offers without their side. */
  readonly recent: readonly string[]
}
