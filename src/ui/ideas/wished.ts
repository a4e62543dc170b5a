import { createStore } from 'zustand/vanilla'
import type { DancerLevel } from '../../core/combination/combination'
import type { Asked, GroupKnows, WantedEnd } from '../../core/suggest/asked'
import type { Tempo } from '../../core/time/tempo'

/** What ideas are asked for, besides where: kept while the app is open. */
export interface Wished {
  /** The same number gives the same proposals. */
  readonly seed: number
  readonly end: WantedEnd | undefined
  readonly tempo: Tempo | undefined
  readonly level: DancerLevel | undefined
  /** A group, and how many things may be new to it. */
  readonly group: { readonly id: string; readonly news: GroupKnows['news'] } | undefined
}

export const wished = createStore<Wished>(() => ({
  seed: 1,
  end: undefined,
  tempo: undefined,
  level: undefined,
  group: undefined,
}))

/** As the core is asked. @param known keys of the things the group knows */
export const askedOf = (
  { seed, end, tempo, level, group }: Wished,
  known: readonly string[],
): Asked => ({
  seed,
  ...(end && { end }),
  ...(tempo !== undefined && { tempo }),
  ...(level && { level }),
  ...(group && { group: { known, news: group.news } }),
})
