import { liveQuery, type Table } from 'dexie'
import { z } from 'zod'
import { UserError } from '../core/errors'
import type { Database, RecordRow } from './database'

/** Records of one kind. What can't be read is counted and left where it is. */
export interface Records<T extends { readonly id: string }> {
  readonly list: () => Promise<{ readonly all: readonly T[]; readonly unreadable: number }>
  readonly get: (id: string) => Promise<T | undefined>
  readonly put: (value: T) => Promise<void>
  /**
   * Changes what is stored at that moment, so that two windows lose nothing of each other.
   * Undefined where it is no longer there.
   */
  readonly change: (id: string, make: (now: T) => T) => Promise<T | undefined>
  /** Can be had back. */
  readonly remove: (id: string) => Promise<void>
  readonly restore: (id: string) => Promise<void>
  /** Takes on records of a backup; what is here already stays as it is. Says how many came in. */
  readonly merge: (values: readonly T[]) => Promise<number>
  readonly watch: (changed: () => void) => () => void
}

export function createRecords<T extends { readonly id: string }>(
  database: Database,
  table: Table<RecordRow, string>,
  read: (record: Record<string, unknown>) => T,
  now: () => number,
): Records<T> {
  const rowOf = (value: T): RecordRow => ({ id: value.id, changedAt: now(), record: { ...value } })
  const tryRead = (row: RecordRow): T | undefined => {
    try {
      return read(row.record)
    } catch (error) {
      if (error instanceof UserError || error instanceof z.ZodError) return undefined
      throw error
    }
  }
  const mark = (id: string, removedAt: number | undefined) =>
    database.transaction('rw', table, async () => {
      const row = await table.get(id)
      if (!row) return
      const { removedAt: _, ...kept } = row
      await table.put(removedAt === undefined ? kept : { ...kept, removedAt })
    })
  return {
    async list() {
      const rows = (await table.toArray()).filter(({ removedAt }) => removedAt === undefined)
      const all = rows.flatMap((row) => tryRead(row) ?? [])
      return { all, unreadable: rows.length - all.length }
    },
    async get(id) {
      const row = await table.get(id)
      return row && row.removedAt === undefined ? tryRead(row) : undefined
    },
    async put(value) {
      await table.put(rowOf(value))
    },
    change: (id, make) =>
      database.transaction('rw', table, async () => {
        const row = await table.get(id)
        const stored = row && tryRead(row)
        if (!stored) return undefined
        const made = make(stored)
        if (made !== stored) await table.put(rowOf(made))
        return made
      }),
    remove: (id) => mark(id, now()),
    restore: (id) => mark(id, undefined),
    merge: (values) =>
      database.transaction('rw', table, async () => {
        const known = new Set(await table.toCollection().primaryKeys())
        const fresh = values.filter(({ id }) => !known.has(id))
        await table.bulkAdd(fresh.map(rowOf))
        return fresh.length
      }),
    watch(changed) {
      const subscription = liveQuery(() => table.toArray()).subscribe(changed)
      return () => subscription.unsubscribe()
    },
  }
}
