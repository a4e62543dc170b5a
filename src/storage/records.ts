import type { Table } from 'dexie'
import { type Database, RecordRow } from './database'
import { kept, type OnKept } from './keeping'
import { createRepository } from './repository'
import type { UnsavedOf } from './unsaved'

/** Records of one kind. What can't be read is counted and left where it is. */
export interface Records<T extends { readonly id: string }> {
  readonly list: () => Promise<{ readonly all: readonly T[]; readonly unreadable: number }>
  readonly get: (id: string) => Promise<T | undefined>
  readonly put: (value: T) => Promise<void>
  /**
   * Changes what is stored at that moment, so that two windows lose nothing of each other; a
   * tab that is closed at once loses nothing either. What was taken out comes back with it:
   * somebody is still at work on it. `make` may be called twice. Undefined where there is none.
   */
  readonly change: (id: string, make: (now: T) => T) => Promise<T | undefined>
  /** Can be had back. */
  readonly remove: (id: string) => Promise<void>
  readonly restore: (id: string) => Promise<void>
  /** Takes on records of a backup; what is here already stays as it is. Says how many came in. */
  readonly merge: (values: readonly T[]) => Promise<number>
  /** Saves what windows that are gone have left; returns how many there were. */
  readonly recover: () => Promise<number>
  readonly watch: (changed: () => void) => () => void
}

/** What keeps records beside the database. */
export interface Keeping {
  readonly unsavedOf: UnsavedOf
  /** Milliseconds since 1970. */
  readonly now: () => number
  readonly onKept: OnKept
}

export function createRecords<T extends { readonly id: string }>(
  database: Database,
  table: Table<RecordRow, string>,
  read: (record: Record<string, unknown>) => T,
  { unsavedOf, now, onKept }: Keeping,
): Records<T> {
  const unsaved = unsavedOf(`-${table.name}`, (raw) => {
    const row = RecordRow.parse(raw)
    read(row.record)
    return row
  })
  /** As this window last read or made it. */
  const known = new Map<string, T>()
  /** How many changes of a record are under way. */
  const waiting = new Map<string, number>()
  /** Changes that could not be stored; the next one of the same record makes them too. */
  const unmade = new Map<string, readonly ((now: T) => T)[]>()
  const told = <R>(work: PromiseLike<R>) => kept(work, onKept)
  const know = (value: T) => {
    if (!waiting.has(value.id)) known.set(value.id, value)
    return value
  }
  const rowOf = (value: T, changedAt = now()): RecordRow => ({
    id: value.id,
    changedAt,
    record: { ...value },
  })
  const repository = createRepository<T, RecordRow>(database, {
    table,
    read: ({ record }) => read(record),
    row: (value, _, madeAt) => rowOf(value, madeAt),
    conflict: 'made in what is there',
  })
  const { tryRead, together } = repository
  /** @param madeAt when it was made, not when its turn comes: a note of a later change is newer. */
  async function storeChanged(id: string, makes: readonly ((now: T) => T)[], madeAt: number) {
    const all = (now: () => T | undefined) => {
      const before = now()
      return before && makes.reduce((value, make) => make(value), before)
    }
    const changed = await repository.change(id, all, { at: madeAt })
    return changed.kind === 'saved' ? changed.value : undefined
  }
  /** Writes down what a change will most likely come to. */
  function note(id: string, make: (now: T) => T, madeAt: number) {
    const before = known.get(id)
    if (!before) return
    const made = make(before)
    if (made === before) return
    known.set(id, made)
    unsaved.write(id, rowOf(made, madeAt))
  }
  return {
    async list() {
      const listed = await repository.list()
      for (const one of listed.all) know(one)
      return listed
    },
    async get(id) {
      const row = await table.get(id)
      const value = row && row.removedAt === undefined ? tryRead(row) : undefined
      return value && know(value)
    },
    async put(value) {
      know(value)
      await told(repository.change(value.id, () => value))
    },
    async change(id, make) {
      const madeAt = now()
      note(id, make, madeAt)
      waiting.set(id, (waiting.get(id) ?? 0) + 1)
      const makes = [...(unmade.get(id) ?? []), make]
      const still = (one: (now: T) => T) => !makes.includes(one)
      let stored: T | undefined
      try {
        stored = await told(storeChanged(id, makes, madeAt))
        unmade.set(id, (unmade.get(id) ?? []).filter(still))
      } catch (error) {
        unmade.set(id, [...(unmade.get(id) ?? []), make])
        throw error
      } finally {
        const left = (waiting.get(id) ?? 1) - 1
        if (left > 0) waiting.set(id, left)
        else waiting.delete(id)
      }
      if (!waiting.has(id) && !unmade.get(id)?.length) unsaved.clear(id)
      return stored && know(stored)
    },
    remove: (id) => told(repository.mark(id, now())),
    restore: (id) => told(repository.mark(id, undefined)),
    merge: repository.merge,
    recover: () =>
      unsaved.recover((left) =>
        together(async () => {
          const row = await table.get(left.id)
          if (row && row.changedAt <= left.changedAt) await table.put(left)
        }),
      ),
    watch: repository.watch,
  }
}
