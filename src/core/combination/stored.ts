import type { Between } from './between'
import type { Combination } from './combination'

/** The last version that knew one dancer only, and the last one of empty hands and all in time. */
const ALONE_VERSION = 6
const EMPTY_HANDED_VERSION = 7

/**
 * A combination as it is stored: by the oldest version that knows all that is in it, so that an
 * older app opens what it can dance, and refuses what it would have to drop.
 */
export const asStored = (
  combination: Combination,
): Omit<Combination, 'schemaVersion'> & { readonly schemaVersion: number } =>
  isNewest(combination)
    ? combination
    : {
        ...combination,
        schemaVersion:
          combination.parts || isSupported(combination) ? EMPTY_HANDED_VERSION : ALONE_VERSION,
      }

const isNewest = ({ carried, parts = [], phrases }: Combination): boolean =>
  carried !== undefined ||
  parts.some(({ delay }) => delay !== undefined) ||
  phrases.some(({ voices, between = [] }) => voices !== undefined || between.some(isOfProps))

/** What only that version knows of what two do with each other. */
const isOfProps = ({ what }: Between): boolean =>
  what.kind === 'pass' || (what.kind === 'touch' && what.as === 'strike')

const isSupported = ({ phrases }: Combination): boolean =>
  phrases.some(({ events, options = [] }) =>
    [...events, ...options.flatMap((one) => one.events)].some(({ supported }) => supported),
  )
