import { z } from 'zod'

/** What lengths are told in; they are always kept in metres. */
export const Units = z.enum(['metres', 'feet'])
export type Units = z.infer<typeof Units>

/** Metres of a foot, exactly. */
export const METRES_A_FOOT = 0.3048

/** `0.45 m`, or `1.5 ft`. */
export const lengthWords = (metres: number, units: Units): string =>
  units === 'feet'
    ? `${(metres / METRES_A_FOOT).toFixed(1)} ft`
    : `${metres.toFixed(2).replace(/0$/, '')} m`
