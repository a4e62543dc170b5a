import { UserError } from '../core/errors'
import { HOUSE_VERSION, HouseRules, USUAL_RULES } from '../core/house/house'
import { type Upgrade, upgrade } from '../core/record/upgrade'
import type { Database, HouseRow } from './database'
import { kept, type OnKept } from './keeping'
import { createRepository } from './repository'

/** The rules as they are kept; where they can't be read the usual ones, and what is wrong. */
interface KeptHouse {
  readonly rules: HouseRules
  readonly problem?: UserError
}

/** How this studio works: one record, kept in this browser. */
export interface HouseStore {
  readonly get: () => Promise<KeptHouse>
  /**
   * Changes the rules that are stored at that moment; gives them as they are then.
   * @throws UserError where it can't be stored, or what is there is of a newer version.
   */
  readonly change: (make: (rules: HouseRules) => HouseRules) => Promise<HouseRules>
  readonly watch: (changed: () => void) => () => void
}

/**
 * Older records of the house are brought up step by step: version 1 told all lengths in metres,
 * version 2 called the limits figures, and the dancer that is drawn a figure.
 */
const UPGRADES: readonly Upgrade[] = [
  { from: 1, up: (record) => ({ ...record, units: 'metres' }) },
  {
    from: 2,
    up: ({ figures, figure, ...others }) => ({
      ...others,
      limits: figures,
      ...(figure !== undefined && { dancer: figure }),
    }),
  },
]

/**
 * Reads a record of house rules, of this version or an older one.
 * @throws UserError or ZodError when it is of a newer version, or damaged.
 */
export const readHouse = (record: Readonly<Record<string, unknown>>): HouseRules =>
  HouseRules.parse(upgrade(record, HOUSE_VERSION, UPGRADES))

/** The only code that touches the table of settings. */
export function createHouse(database: Database, onKept: OnKept): HouseStore {
  const { settings } = database
  const repository = createRepository<HouseRules & { readonly id: HouseRow['id'] }, HouseRow>(
    database,
    {
      table: settings,
      read: ({ id, record }) => ({ id, ...readHouse(record) }),
      row: ({ id, ...record }) => ({ id, record }),
      conflict: 'made in what is there',
    },
  )
  const get = async (): Promise<KeptHouse> => {
    const row = await settings.get('house')
    if (!row) return { rules: USUAL_RULES }
    try {
      return { rules: readHouse(row.record) }
    } catch (cause) {
      return {
        rules: USUAL_RULES,
        problem: new UserError(
          'Your house rules can’t be read by this version, so the usual ones are used.',
          'They are kept as they are. Load the newest version of the app to have them again.',
          { cause },
        ),
      }
    }
  }
  const change = (make: (rules: HouseRules) => HouseRules) =>
    repository.together(async () => {
      const { rules, problem } = await get()
      // Of a newer app: it is not for this one to write over. What is only damaged is put aside.
      if (problem?.cause instanceof UserError) throw problem
      const damaged = problem && (await settings.get('house'))
      if (damaged) await settings.put({ ...damaged, id: 'damaged house' })
      const made = HouseRules.parse(make(rules))
      await repository.change('house', () => ({ id: 'house', ...made }))
      return made
    })
  return {
    get,
    change: (make) =>
      kept(change(make), onKept, 'Make room on the disk; it is saved with the next change.'),
    watch: repository.watch,
  }
}
