import { liveQuery } from 'dexie'
import type { Combination } from '../core/combination/combination'
import { UserError } from '../core/errors'
import { readCombination } from '../core/sheet/swayJson'
import { type Database, Row } from './database'

/** A combination as it is stored, with what is needed to save it again. */
export interface Stored {
  readonly combination: Combination
  readonly revision: number
  readonly changedAt: number
}

/** A stored record that can't be read: it is shown, never thrown away. */
interface Damaged {
  readonly id: string
  readonly title: string
  readonly error: UserError
}

interface Shelf {
  readonly stored: readonly Stored[]
  readonly removed: readonly Stored[]
  readonly damaged: readonly Damaged[]
}

/** What came of a save. `elsewhere` means another window had saved first: both are kept. */
type Saved =
  | { readonly kind: 'saved'; readonly revision: number }
  | { readonly kind: 'elsewhere'; readonly copy: Combination }

export interface Combinations {
  readonly list: () => Promise<Shelf>
  readonly get: (id: string) => Promise<Stored | undefined>
  readonly add: (combination: Combination) => Promise<void>
  /** Saves over the revision it was read with. */
  readonly save: (combination: Combination, revision: number) => Promise<Saved>
  readonly remove: (id: string) => Promise<void>
  readonly restore: (id: string) => Promise<void>
  /** Adds these the first time the app starts on an empty shelf; later it does nothing. */
  readonly addDemoOnce: (read: () => Promise<readonly Combination[]>) => Promise<void>
  /** Calls after every change, also one made in another window. */
  readonly watch: (changed: () => void) => () => void
}

interface Given {
  readonly now: () => number
  readonly newId: () => string
}

/** The only code that touches the table of combinations. */
export function createCombinations(database: Database, { now, newId }: Given): Combinations {
  const { combinations, flags } = database
  const row = (combination: Combination, revision: number): Row => ({
    id: combination.id,
    revision,
    changedAt: now(),
    record: { ...combination },
  })
  const mark = async (id: string, removedAt: number | undefined) => {
    await combinations.where('id').equals(id).modify({ removedAt })
  }

  return {
    async list() {
      const stored: Stored[] = []
      const removed: Stored[] = []
      const damaged: Damaged[] = []
      for (const raw of await combinations.orderBy('changedAt').reverse().toArray()) {
        try {
          ;(raw.removedAt === undefined ? stored : removed).push(read(raw))
        } catch (error) {
          if (!(error instanceof UserError)) throw error
          damaged.push({ id: raw.id, title: String(raw.record?.title ?? raw.id), error })
        }
      }
      return { stored, removed, damaged }
    },

    async get(id) {
      const raw = await combinations.get(id)
      return raw && read(raw)
    },

    async add(combination) {
      await combinations.add(row(combination, 1))
    },

    save: (combination, revision) =>
      database.transaction('rw', combinations, async (): Promise<Saved> => {
        const before = await combinations.get(combination.id)
        if (before && before.revision !== revision) {
          const copy = {
            ...combination,
            id: newId(),
            title: `${combination.title} (from another window)`,
          }
          await combinations.add(row(copy, 1))
          return { kind: 'elsewhere', copy }
        }
        await combinations.put(row(combination, revision + 1))
        return { kind: 'saved', revision: revision + 1 }
      }),

    remove: (id) => mark(id, now()),
    restore: (id) => mark(id, undefined),

    async addDemoOnce(readDemo) {
      if (await flags.get('demo')) return
      const demo = await readDemo()
      await database.transaction('rw', combinations, flags, async () => {
        if (await flags.get('demo')) return
        await flags.add({ name: 'demo', at: now() })
        if ((await combinations.count()) === 0)
          await combinations.bulkAdd(demo.map((combination) => row(combination, 1)))
      })
    },

    watch(changed) {
      const rows = liveQuery(() => combinations.toArray())
      const subscription = rows.subscribe(changed)
      return () => subscription.unsubscribe()
    },
  }
}

function read(raw: Row): Stored {
  const { data, error } = Row.safeParse(raw)
  if (!data)
    throw new UserError(
      'This one is damaged.',
      'Nothing was changed. Open an earlier copy of it.',
      {
        cause: error,
      },
    )
  return {
    combination: readCombination(data.record),
    revision: data.revision,
    changedAt: data.changedAt,
  }
}
