import { createStore } from 'zustand/vanilla'
import type { Asked, GroupKnows } from '../../core/suggest/asked'

/** What ideas are asked for, besides where: kept while the app is open. */
export interface Wished extends Omit<Asked, 'group'> {
  /** A group, and how many things may be new to it. */
  readonly group?: { readonly id: string; readonly news: GroupKnows['news'] } | undefined
}

export const wished = createStore<Wished>(() => ({ seed: 1 }))

/** As the core is asked. @param known keys of the things the group knows */
export const askedOf = ({ group, ...others }: Wished, known: readonly string[]): Asked => ({
  ...others,
  ...(group && { group: { known, news: group.news } }),
})
