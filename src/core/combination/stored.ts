import type { Combination } from './combination'

/** The last version that knew one dancer only. */
const ALONE_VERSION = 6

/**
 * A combination as it is stored: by the oldest version that knows all that is in it, so that an
 * older app opens what it can dance, and refuses what it would have to drop.
 */
export const asStored = (
  combination: Combination,
): Omit<Combination, 'schemaVersion'> & { readonly schemaVersion: number } =>
  combination.parts || isSupported(combination)
    ? combination
    : { ...combination, schemaVersion: ALONE_VERSION }

const isSupported = ({ phrases }: Combination): boolean =>
  phrases.some(({ events, options = [] }) =>
    [...events, ...options.flatMap((one) => one.events)].some(({ supported }) => supported),
  )
