import { factsOf } from '../body/feet'
import type { Layer } from '../body/layers'
import type { Spoken } from '../calling/called'
import type { StrokeKind } from '../rhythm/rhythms'
import type { Simulation } from '../simulate/simulate'
import { type Tick, tick } from '../time/time'

/** What is heard: the first count of a phrase, a count, a half count, a layer's move, a stroke of a rhythm, or a word. */
export type SoundKind = 'phrase' | 'count' | 'and' | Layer | StrokeKind | 'say'

/** A sound on a tick of what it belongs to. */
export interface Sound {
  readonly at: Tick
  readonly kind: SoundKind
  /** Share of its usual loudness; 1 where it is not given. */
  readonly loud?: number
  /** What is said. */
  readonly say?: Spoken
}

/** Whether a sound belongs to one of some layers. */
export const isOfLayers = (kind: SoundKind, layers: Iterable<Layer>): boolean =>
  [...layers].some((layer) => layer === kind)

/** Whether it is a count, an “and” or the first of a phrase. */
export const isClick = (kind: SoundKind): boolean =>
  kind === 'phrase' || kind === 'count' || kind === 'and'

/** What is heard of some layers: landings and sways of the feet, the starts of the others. */
export function movesHeard(simulation: Simulation, layers: readonly Layer[]): readonly Sound[] {
  const landings = layers.includes('feet')
    ? simulation.danced
        .filter(({ action }) => factsOf(action.primitive).lands || action.primitive === 'sway')
        .map(({ at }): Sound => ({ at, kind: 'feet' }))
    : []
  const starts = simulation.passes.flatMap((pass) =>
    pass.events
      .filter(({ layer }) => layer !== 'feet' && layers.includes(layer))
      .map((event): Sound => ({ at: tick(pass.at + event.at), kind: event.layer })),
  )
  return [...landings, ...starts]
}

/** Sounds in the order they are due. */
export const inOrder = (sounds: readonly Sound[]): readonly Sound[] =>
  [...sounds].sort((a, b) => a.at - b.at)
