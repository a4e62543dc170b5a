import { liveQuery } from 'dexie'
import { upgrade } from '../core/combination/upgrade'
import { HOUSE_VERSION, HouseRules, USUAL_RULES } from '../core/house/house'
import type { Database } from './database'

/** How this studio works: one record, kept in this browser. */
export interface HouseStore {
  /** The rules as they are kept; the usual ones where there are none, or where they can't be read. */
  readonly get: () => Promise<HouseRules>
  readonly save: (rules: HouseRules) => Promise<void>
  readonly watch: (changed: () => void) => () => void
}

/** Older records of the house are brought up step by step; there are none yet. */
const UPGRADES = [] as const

/**
 * Reads a record of house rules, of this version or an older one.
 * @throws UserError or ZodError when it is of a newer version, or damaged.
 */
export const readHouse = (record: Readonly<Record<string, unknown>>): HouseRules =>
  HouseRules.parse(upgrade(record, HOUSE_VERSION, UPGRADES))

/** The only code that touches the table of settings. */
export function createHouse({ settings }: Database): HouseStore {
  return {
    async get() {
      const row = await settings.get('house')
      if (!row) return USUAL_RULES
      try {
        return readHouse(row.record)
      } catch {
        // What can't be read stays in the table until something else is saved.
        return USUAL_RULES
      }
    },
    async save(rules) {
      await settings.put({ id: 'house', record: HouseRules.parse(rules) })
    },
    watch(changed) {
      const subscription = liveQuery(() => settings.toArray()).subscribe(changed)
      return () => subscription.unsubscribe()
    },
  }
}
