import { liveQuery } from 'dexie'
import type { OwnMove } from '../core/moves/move'
import { type Database, OWN_VERSION, OwnEntry } from './database'

/** What an instructor changed in the vocabulary. */
export interface OwnWords {
  readonly list: () => Promise<readonly OwnEntry[]>
  /** Calls the move as the class does; without a name it has the table's again. */
  readonly rename: (id: string, name: string | undefined) => Promise<void>
  readonly setFavourite: (id: string, favourite: boolean) => Promise<void>
  readonly saveMove: (move: OwnMove) => Promise<void>
  /** Takes an own move out of the list; combinations keep the copy they brought along. */
  readonly removeMove: (id: string) => Promise<void>
  /** Takes on entries from a backup; what is here already stays as it is. */
  readonly merge: (entries: readonly OwnEntry[]) => Promise<number>
  readonly watch: (changed: () => void) => () => void
}

/** The only code that touches the table of own words and moves. */
export function createOwnWords(database: Database): OwnWords {
  const { own } = database
  /** Changes one entry; what says nothing any more is taken out. */
  const change = (id: string, make: (entry: OwnEntry) => OwnEntry) =>
    database.transaction('rw', own, async () => {
      const before = (await own.get(id)) ?? { schemaVersion: OWN_VERSION, id }
      const { name, favourite, move } = make(before)
      const entry = {
        schemaVersion: OWN_VERSION,
        id,
        ...(name && { name }),
        ...(favourite && { favourite }),
        ...(move && { move }),
      } as const
      if (name || favourite || move) await own.put(entry)
      else await own.delete(id)
    })
  return {
    async list() {
      // What can't be read stays in the table, and is passed over here.
      return (await own.toArray()).flatMap((raw) => OwnEntry.safeParse(raw).data ?? [])
    },
    rename: (id, name) => change(id, (entry) => ({ ...entry, name: name?.trim() || undefined })),
    setFavourite: (id, favourite) =>
      change(id, (entry) => ({ ...entry, favourite: favourite || undefined })),
    saveMove: (move) => change(move.id, (entry) => ({ ...entry, move })),
    removeMove: (id) => change(id, (entry) => ({ ...entry, move: undefined })),
    merge: (entries) =>
      database.transaction('rw', own, async () => {
        const known = new Set(await own.toCollection().primaryKeys())
        const fresh = entries.filter(({ id }) => !known.has(id))
        await own.bulkAdd(fresh)
        return fresh.length
      }),
    watch(changed) {
      const subscription = liveQuery(() => own.toArray()).subscribe(changed)
      return () => subscription.unsubscribe()
    },
  }
}
