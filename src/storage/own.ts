import { liveQuery } from 'dexie'
import { UserError } from '../core/errors'
import type { OwnMove } from '../core/moves/move'
import { type Database, OWN_VERSION, OwnEntry } from './database'
import { kept, type OnKept } from './keeping'

/** What an instructor changed in the vocabulary. */
export interface OwnWords {
  readonly list: () => Promise<readonly OwnEntry[]>
  /** How many entries this version can't read; they stay where they are. */
  readonly unreadable: () => Promise<number>
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
export function createOwnWords(database: Database, onKept: OnKept): OwnWords {
  const { own } = database
  /** Changes one entry; what says nothing any more is taken out, what can't be read stays. */
  const change = (id: string, make: (entry: OwnEntry) => OwnEntry) =>
    kept(changed(id, make), onKept, 'Make room on the disk, then do it again.')
  const changed = (id: string, make: (entry: OwnEntry) => OwnEntry) =>
    database.transaction('rw', own, async () => {
      const raw: unknown = await own.get(id)
      const before =
        raw === undefined ? ({ schemaVersion: OWN_VERSION, id } as const) : readEntry(raw)
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
    unreadable: async () =>
      (await own.toArray()).filter((raw) => !OwnEntry.safeParse(raw).success).length,
    rename: (id, name) => change(id, (entry) => ({ ...entry, name: name?.trim() || undefined })),
    setFavourite: (id, favourite) =>
      change(id, (entry) => ({ ...entry, favourite: favourite || undefined })),
    saveMove: (move) => change(move.id, (entry) => ({ ...entry, move })),
    removeMove: (id) => change(id, (entry) => ({ ...entry, move: undefined })),
    merge: (entries) =>
      database.transaction('rw', own, async () => {
        const known = new Set(await own.toCollection().primaryKeys())
        const once = [...new Map(entries.map((one) => [one.id, one])).values()]
        const fresh = once.filter(({ id }) => !known.has(id))
        await own.bulkAdd(fresh)
        return fresh.length
      }),
    watch(changed) {
      const subscription = liveQuery(() => own.toArray()).subscribe(changed)
      return () => subscription.unsubscribe()
    },
  }
}

/** @throws UserError where it was written by another version, or is damaged. */
function readEntry(raw: unknown): OwnEntry {
  const read = OwnEntry.safeParse(raw)
  if (read.success) return read.data
  throw new UserError(
    'What is kept of this move can’t be read by this version.',
    'Nothing was changed. Load the newest version of the app, and do it there.',
    { cause: read.error },
  )
}
