import type { Upgrade } from '../record/upgrade'

/**
 * Version 1 is the first one; each later version adds its step here. Version 2 has a teaching
 * tempo only where it was written, and says which lengths were written as ranges: all that
 * version 1 says stays as it is.
 */
export const COMBINATION_UPGRADES: readonly Upgrade[] = [{ from: 1, up: (record) => record }]
