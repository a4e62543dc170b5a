import type { Layer } from '../body/layers'
import { armsEntry } from './arms'
import { atEntry } from './at'
import { footEntry } from './foot'
import { freeEntry } from './free'
import type { EntryKind } from './kind'
import { KINDS, type What } from './kinds'
import { legsEntry } from './legs'
import { lookEntry } from './look'
import { moveEntry } from './move'
import { shareEntry } from './share'
import { stayEntry } from './stay'
import { shoulderEntry, trunkEntry } from './trunk'

/** How every kind is written, in the order in which the words of an entry are tried; the compiler counts them. */
const ENTRIES: { readonly [K in What['kind']]: EntryKind<Extract<What, { kind: K }>> } = {
  arms: armsEntry,
  look: lookEntry,
  // What is said of the trunk is no place of the compass.
  trunk: trunkEntry,
  shoulder: shoulderEntry,
  at: atEntry,
  share: shareEntry,
  free: freeEntry,
  stay: stayEntry,
  // A figure may begin with the word of a step.
  move: moveEntry,
  legs: legsEntry,
  foot: footEntry,
}

/** A kind that an entry may be of, and the layers it can stand on. */
interface Written extends EntryKind<What> {
  readonly layers: readonly Layer[]
}

/** All kinds, in that order. */
export const ALL_ENTRIES: readonly Written[] = (
  Object.entries(ENTRIES) as unknown as readonly (readonly [What['kind'], EntryKind<What>])[]
).map(([kind, entry]) => ({ ...entry, layers: KINDS[kind].layers }))

/** How something is written. Each kind is only ever given its own. */
export const entryOf = (what: What): EntryKind<What> =>
  ENTRIES[what.kind] as unknown as EntryKind<What>
