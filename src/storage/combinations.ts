import { dequal } from 'dequal'
import type { Combination } from '../core/combination/combination'
import { asStored } from '../core/combination/stored'
import { UserError } from '../core/errors'
import { SUMMARY_VERSION, type Summary } from '../core/findings/summary'
import { readCombination } from '../core/sheet/swayJson'
import { type Database, Row, type SummaryRow } from './database'
import { createRepository } from './repository'

/** A combination as it is stored, with what is needed to save it again. */
export interface Stored {
  readonly combination: Combination
  readonly revision: number
  readonly changedAt: number
  /** When it was deleted; absent while it is on the shelf. */
  readonly removedAt?: number
}

/** What the shelf shows of one. */
export interface OnShelf {
  readonly id: string
  readonly changedAt: number
  readonly summary: Summary
}

/** A stored record that can't be read: it is shown, never thrown away. */
interface Damaged {
  readonly id: string
  readonly title: string
  readonly error: UserError
}

interface Shelf {
  readonly stored: readonly OnShelf[]
  readonly removed: readonly OnShelf[]
  readonly damaged: readonly Damaged[]
}

/** What came of a save. `elsewhere` means another window had saved first: both are kept. */
type Saved =
  | { readonly kind: 'saved'; readonly revision: number }
  | { readonly kind: 'elsewhere'; readonly copy: Combination }

/** What came of adding one that may be here already. */
type Added = 'added' | 'same' | 'copy'

export interface Combinations {
  readonly list: () => Promise<Shelf>
  readonly get: (id: string) => Promise<Stored | undefined>
  /** All that are not removed and can be read, whole. */
  readonly all: () => Promise<readonly Combination[]>
  readonly add: (combination: Combination) => Promise<void>
  readonly addAll: (combinations: readonly Combination[]) => Promise<void>
  /** Adds each by its id, all at once: nothing when it is here just so, a copy beside one that differs. */
  readonly merge: (list: readonly Combination[], from: string) => Promise<readonly Added[]>
  /** Saves over the revision it was read with. */
  readonly save: (combination: Combination, revision: number) => Promise<Saved>
  readonly remove: (id: string) => Promise<void>
  readonly restore: (id: string) => Promise<void>
  /** Adds these the first time the app starts on an empty shelf; later it does nothing. */
  readonly addDemoOnce: (read: () => Promise<readonly Combination[]>) => Promise<void>
  /** Calls after every change, also one made in another window; counts, and reads nothing. */
  readonly watch: (changed: () => void) => () => void
}

interface Given {
  readonly now: () => number
  readonly newId: () => string
  readonly summarise: (combination: Combination) => Summary
}

/** The only code that touches the tables of combinations and their summaries. */
export function createCombinations(
  database: Database,
  { now, newId, summarise }: Given,
): Combinations {
  const { combinations, summaries, flags } = database
  const both = [combinations, summaries]
  const summaryRow = ({ id, changedAt, removedAt }: Row, combination: Combination): SummaryRow => ({
    id,
    changedAt,
    ...(removedAt !== undefined && { removedAt }),
    summary: summarise(combination),
  })
  const repository = createRepository<Combination, Row>(database, {
    table: combinations,
    read: (raw) => read(raw).combination,
    row: (combination, before) => ({
      id: combination.id,
      revision: (before?.revision ?? 0) + 1,
      // The summary that is older than this is known by it.
      changedAt: Math.max(now(), (before?.changedAt ?? 0) + 1),
      record: { ...asStored(combination) },
    }),
    conflict(there, mine) {
      // Two of one name are told apart; a name that is just being typed stays as it is.
      const isNamesake = there.record.title === mine.title
      const title = isNamesake ? `${mine.title} (from another window)` : mine.title
      return { ...mine, id: newId(), title }
    },
    // One row is written with each letter; its summary is made when the shelf is next looked at.
    beside: {
      tables: [summaries],
      add: (rows, list) =>
        summaries.bulkPut(list.map((combination, i) => summaryRow(rows[i] as Row, combination))),
    },
  })
  const { tryRead, together } = repository

  const shownRows = () => summaries.orderBy('changedAt').reverse().toArray()

  /** Makes summaries of these combinations; says which of them can't be read. */
  async function summariseAll(ids: readonly string[]): Promise<readonly Damaged[]> {
    const damaged: Damaged[] = []
    const made: SummaryRow[] = []
    for (const raw of await combinations.bulkGet([...ids])) {
      if (!raw) continue
      try {
        made.push(summaryRow(raw, read(raw).combination))
      } catch (error) {
        if (!(error instanceof UserError)) throw error
        damaged.push({ id: raw.id, title: String(raw.record?.title ?? raw.id), error })
      }
    }
    await summaries.bulkPut(made)
    return damaged
  }

  return {
    async list() {
      // Both tables at one moment, or what is just being added would look as if it lacked a summary.
      const inOrder = () => combinations.orderBy('changedAt').reverse()
      const [ids, times, before] = await database.transaction('r', both, () =>
        Promise.all([inOrder().primaryKeys(), inOrder().keys(), shownRows()]),
      )
      let rows = before
      const isCurrent = ({ summary }: SummaryRow) => summary?.schemaVersion === SUMMARY_VERSION
      // What was saved since has a summary that is older than itself.
      const made = new Map(rows.filter(isCurrent).map(({ id, changedAt }) => [id, changedAt]))
      const behind = ids.filter((id, i) => made.get(id) !== times[i])
      const damaged = behind.length > 0 ? await summariseAll(behind) : []
      if (behind.length > damaged.length) rows = await shownRows()
      const shown = rows.filter(isCurrent)
      return {
        stored: shown.filter(({ removedAt }) => removedAt === undefined),
        removed: shown.filter(({ removedAt }) => removedAt !== undefined),
        damaged,
      }
    },
    async get(id) {
      const raw = await combinations.get(id)
      return raw && read(raw)
    },
    async all() {
      const rows = await combinations.orderBy('changedAt').reverse().toArray()
      return rows.flatMap((raw) => (raw.removedAt === undefined ? (tryRead(raw) ?? []) : []))
    },
    add: (combination) => repository.add([combination]),
    addAll: repository.add,
    merge: (list, from) =>
      together(async () => {
        const known = await combinations.bulkGet(list.map(({ id }) => id))
        const copyTitle = (one: Combination) => `${one.title} (${from})`
        const titles = new Set(list.filter((_, i) => known[i]).map(copyTitle))
        // Who brings the same backup back twice has its copies already.
        const copyIds = await summaries
          .filter(({ summary, removedAt }) => removedAt === undefined && titles.has(summary?.title))
          .primaryKeys()
        const copies = (await combinations.bulkGet(copyIds)).flatMap((raw) => tryRead(raw) ?? [])
        const added = list.map((combination, i): Added => {
          const before = known[i]
          if (!before) return 'added'
          if (before.removedAt !== undefined) return 'copy'
          const title = copyTitle(combination)
          const isCopied = copies.some((copy) =>
            dequal(copy, { ...combination, id: copy.id, title }),
          )
          return isCopied || dequal(tryRead(before), combination) ? 'same' : 'copy'
        })
        const taken = new Set<string>()
        await repository.add(
          list.flatMap((combination, i) => {
            if (added[i] === 'same') return []
            if (added[i] === 'added' && !taken.has(combination.id)) {
              taken.add(combination.id)
              return [combination]
            }
            const isRemoved = known[i]?.removedAt !== undefined
            const title = isRemoved ? combination.title : copyTitle(combination)
            return [{ ...combination, id: newId(), title }]
          }),
        )
        return added
      }),
    async save(combination, revision) {
      const { id } = combination
      const changed = await repository.change(id, () => combination, { of: revision })
      if (changed.kind === 'none') throw new Error('a combination is never taken out')
      return changed.kind === 'elsewhere'
        ? changed
        : { kind: 'saved', revision: changed.row.revision }
    },
    remove: (id) => repository.mark(id, now()),
    restore: (id) => repository.mark(id, undefined),
    async addDemoOnce(readDemo) {
      if (await flags.get('demo')) return
      const demo = await readDemo()
      await database.transaction('rw', [...both, flags], async () => {
        if (await flags.get('demo')) return
        await flags.add({ name: 'demo', at: now() })
        if ((await combinations.count()) === 0) await repository.add(demo)
      })
    },
    watch: repository.watch,
  }
}

function read(raw: Row): Stored {
  const { data, error } = Row.safeParse(raw)
  if (!data)
    throw new UserError(
      'This one is damaged.',
      'Nothing was changed. Open an earlier copy of it.',
      { cause: error },
    )
  return {
    combination: readCombination(data.record),
    revision: data.revision,
    changedAt: data.changedAt,
    ...(data.removedAt !== undefined && { removedAt: data.removedAt }),
  }
}
