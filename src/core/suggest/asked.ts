import type { Layer } from '../body/layers'
import type { Combination, DancerLevel } from '../combination/combination'
import type { Checked } from '../findings/checked'
import type { Tempo } from '../time/tempo'
import type { Span } from '../time/time'

/** How the combination is to end: the other side can follow, or the same one. */
export type WantedEnd = 'switch' | 'repeat'

/** What a proposal is asked for, besides where. */
export interface Asked {
  /** The same number gives the same proposals. */
  readonly seed: number
  /** Any end will do where none is asked for. */
  readonly end?: WantedEnd | undefined
  /** Goes at this tempo, where it is not the combination's own. */
  readonly tempo?: Tempo | undefined
  /** Is for this level, where it is not the combination's own. */
  readonly level?: DancerLevel | undefined
  /** Only what a group knows, but for so many new things. */
  readonly group?: GroupKnows | undefined
}

export interface GroupKnows {
  /** Keys of the things it knows. */
  readonly known: readonly string[]
  readonly news: 0 | 1
}

/** Proposals for a pass. */
export interface PassWish extends Asked {
  readonly pass: number
}

/** Proposals for one layer of it. */
export interface FillWish extends PassWish {
  readonly layer: Layer
  /** Only what is empty there; all of the phrase where it is not said. */
  readonly within?: Span | undefined
}

/** A combination at the tempo and for the level that are asked for. */
export const asAsked = (combination: Combination, { tempo, level }: Asked): Combination => ({
  ...combination,
  ...(tempo !== undefined && { tempo }),
  ...(level !== undefined && { level }),
})

/** What was proposed for another tempo or level, at the combination's own again. */
export function asItWas(proposed: Combination, { tempo, level }: Combination): Combination {
  const { level: _, ...others } = proposed
  return { ...others, tempo, ...(level && { level }) }
}

/** Whether the feet end as asked. */
export const endsAsAsked = ({ joins }: Checked, { end }: Asked): boolean =>
  !end || (end === 'switch' ? joins.switches : joins.repeats)
