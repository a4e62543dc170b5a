import type { ActId, PropKind } from '../combination/carried'
import { PROP_ACTS, type PropActRow } from './table'

const byId = new Map(PROP_ACTS.map((row) => [row.act, row]))

/** What is known of something that is done. */
export function actRow(act: ActId): PropActRow {
  const row = byId.get(act)
  if (!row) throw new Error(`table of props: no row for ${act}`)
  return row
}

/** What can be done with a kind of thing. */
export const actsFor = (kind: PropKind): readonly PropActRow[] =>
  PROP_ACTS.filter(({ kinds }) => kinds.includes(kind))

/** Kinds that hang: their edges, drapes and turns are followed. */
const CLOTHS: ReadonlySet<PropKind> = new Set<PropKind>(['veil', 'scarf', 'skirt'])
export const isCloth = (kind: PropKind): boolean => CLOTHS.has(kind)
