import { liveQuery, type Table } from 'dexie'
import type { Database } from './database'
import { isUnreadable } from './slots'

/** A row of any table: what it holds is of its own version. */
interface KeptRow {
  readonly id: string
  /** Goes up with every save where both are kept. */
  readonly revision?: number
  readonly removedAt?: number | undefined
}

/** How things of one kind are kept, a row each. */
export interface Kind<T, R extends KeptRow> {
  readonly table: Table<R, string>
  /** @throws UserError or ZodError where this version can't read it. */
  readonly read: (row: R) => T
  /**
   * @param before what it is written over
   * @param madeAt when it was made, where that is not now
   */
  readonly row: (value: T, before: R | undefined, madeAt?: number) => R
  /**
   * What becomes of a change that was made of something older than what is stored. It is made in
   * what is stored by now; or both are kept, and it is stored as this copy.
   */
  readonly conflict: 'made in what is there' | ((there: R, mine: T) => T)
  /** What is kept of new ones in other tables. */
  readonly beside?: {
    readonly tables: readonly Table[]
    readonly add: (rows: readonly R[], values: readonly T[]) => PromiseLike<unknown>
  }
}

/** What came of a change; `elsewhere` means another window was first, and both are kept. */
type Changed<T, R> =
  | { readonly kind: 'saved'; readonly value: T; readonly row: R }
  | { readonly kind: 'elsewhere'; readonly copy: T }
  | { readonly kind: 'none' }

/** The things of one kind in this browser. */
export interface Repository<T, R> {
  /** What is not deleted and can be read; what can't be is counted and left where it is. */
  readonly list: () => Promise<{ readonly all: readonly T[]; readonly unreadable: number }>
  readonly add: (values: readonly T[]) => Promise<void>
  /**
   * Changes what is stored at that moment, or what is not there yet; undefined takes it out of
   * the table.
   * @param made the revision it was made of, and when
   * @throws UserError or ZodError where what is there can't be read, and `make` asks for it.
   */
  readonly change: (
    id: string,
    make: (now: () => T | undefined) => T | undefined,
    made?: { readonly of?: number; readonly at?: number },
  ) => Promise<Changed<T, R>>
  /** Deletes so that it can be had back, or brings it back. */
  readonly mark: (id: string, removedAt: number | undefined) => Promise<void>
  /** Takes on what a backup brings; what is here already stays. Says how many came in. */
  readonly merge: (values: readonly T[]) => Promise<number>
  /** The thing in a row; undefined where this version can't read it. */
  readonly tryRead: (row: R | undefined) => T | undefined
  /** Runs work on its tables as one. */
  readonly together: <S>(work: () => Promise<S>) => Promise<S>
  /** Calls after every change, also one made in another window; counts, and reads nothing. */
  readonly watch: (changed: () => void) => () => void
}

/** The one way things are kept: read, changed, deleted, merged, watched. */
export function createRepository<T extends { readonly id: string }, R extends KeptRow>(
  database: Database,
  { table, read, row, conflict, beside }: Kind<T, R>,
): Repository<T, R> {
  const tables: readonly Table[] = [table, ...(beside?.tables ?? [])]
  const together = <S>(work: () => Promise<S>): Promise<S> =>
    database.transaction('rw', tables, work)
  const tryRead = (one: R | undefined): T | undefined => {
    try {
      return one && read(one)
    } catch (error) {
      if (!isUnreadable(error)) throw error
      return undefined
    }
  }
  const addNew = async (values: readonly T[]) => {
    const rows = values.map((value) => row(value, undefined))
    await table.bulkAdd(rows)
    await beside?.add(rows, values)
  }
  return {
    async list() {
      const rows = (await table.toArray()).filter(({ removedAt }) => removedAt === undefined)
      const all = rows.flatMap((one) => tryRead(one) ?? [])
      return { all, unreadable: rows.length - all.length }
    },
    add: (values) => together(() => addNew(values)),
    change: (id, make, { of: seen, at: madeAt } = {}) =>
      together(async (): Promise<Changed<T, R>> => {
        const there = await table.get(id)
        const known: { now?: T | undefined } = {}
        const after = make(() => {
          if (!('now' in known)) known.now = there && read(there)
          return known.now
        })
        if (
          there &&
          seen !== undefined &&
          there.revision !== seen &&
          conflict instanceof Function
        ) {
          if (!after) return { kind: 'none' }
          const copy = conflict(there, after)
          await addNew([copy])
          return { kind: 'elsewhere', copy }
        }
        if (!after) {
          if (there) await table.delete(id)
          return { kind: 'none' }
        }
        if (there && after === known.now) return { kind: 'saved', value: after, row: there }
        const made = row(after, there, madeAt)
        await table.put(made)
        return { kind: 'saved', value: after, row: made }
      }),
    mark: (id, removedAt) =>
      together(async () => {
        for (const one of tables) await one.where('id').equals(id).modify({ removedAt })
      }),
    merge: (values) =>
      together(async () => {
        const known = new Set(await table.toCollection().primaryKeys())
        const once = [...new Map(values.map((one) => [one.id, one])).values()]
        const fresh = once.filter(({ id }) => !known.has(id))
        await addNew(fresh)
        return fresh.length
      }),
    tryRead,
    together,
    watch(changed) {
      const subscription = liveQuery(() => table.count()).subscribe(changed)
      return () => subscription.unsubscribe()
    },
  }
}
