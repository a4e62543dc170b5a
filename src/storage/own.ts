import { z } from 'zod'
import { UserError } from '../core/errors'
import type { OwnMove } from '../core/moves/move'
import { upgrade } from '../core/record/upgrade'
import { type Database, OWN_UPGRADES, OWN_VERSION, OwnEntry } from './database'
import { kept, type OnKept } from './keeping'
import { createRepository } from './repository'

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
  const repository = createRepository<OwnEntry, OwnEntry>(database, {
    table: database.own,
    read: readEntry,
    row: (entry) => entry,
    conflict: 'made in what is there',
  })
  /** Changes one entry; what says nothing any more is taken out, what can't be read stays. */
  const change = (id: string, make: (entry: OwnEntry) => OwnEntry) =>
    kept(changed(id, make), onKept, 'Make room on the disk, then do it again.').then(() => {})
  const changed = (id: string, make: (entry: OwnEntry) => OwnEntry) =>
    repository.change(id, (now) => {
      const { name, favourite, move } = make(now() ?? { schemaVersion: OWN_VERSION, id })
      if (!name && !favourite && !move) return undefined
      return {
        schemaVersion: OWN_VERSION,
        id,
        ...(name && { name }),
        ...(favourite && { favourite }),
        ...(move && { move }),
      }
    })
  return {
    // What can't be read stays in the table, and is passed over here.
    list: async () => (await repository.list()).all,
    unreadable: async () => (await repository.list()).unreadable,
    rename: (id, name) => change(id, (entry) => ({ ...entry, name: name?.trim() || undefined })),
    setFavourite: (id, favourite) =>
      change(id, (entry) => ({ ...entry, favourite: favourite || undefined })),
    saveMove: (move) => change(move.id, (entry) => ({ ...entry, move })),
    removeMove: (id) => change(id, (entry) => ({ ...entry, move: undefined })),
    merge: repository.merge,
    watch: repository.watch,
  }
}

/** @throws UserError where it was written by a newer version, or is damaged. */
export function readEntry(raw: unknown): OwnEntry {
  try {
    const record = z.record(z.string(), z.unknown()).parse(raw)
    return OwnEntry.parse(upgrade(record, OWN_VERSION, OWN_UPGRADES))
  } catch (cause) {
    throw new UserError(
      'What is kept of this move can’t be read by this version.',
      'Nothing was changed. Load the newest version of the app, and do it there.',
      { cause },
    )
  }
}
