import { z } from 'zod'

/** What lengths are told in; they are always kept in metres. */
export const Units = z.enum(['metres', 'feet'])
export type Units = z.infer<typeof Units>

/** Metres of a foot, exactly. */
const METRES_A_FOOT = 0.3048

/** `0.45 m`, or `1.5 ft`. */
export const lengthWords = (metres: number, units: Units): string =>
  units === 'feet'
    ? `${(metres / METRES_A_FOOT).toFixed(1)} ft`
    : `${metres.toFixed(2).replace(/0$/, '')} m`

/** A length as it is typed and shown in these units: feet to the hundredth, metres as they are kept. */
export const lengthIn = (metres: number, units: Units): number =>
  units === 'feet' ? Math.round((metres / METRES_A_FOOT) * 100) / 100 : metres

/** What was typed in these units, in metres: to the millimetre where it was feet. */
export const metresOf = (typed: number, units: Units): number =>
  units === 'feet' ? Math.round(typed * METRES_A_FOOT * 1000) / 1000 : typed

/** What may be typed, rounded inwards, so that it is never out of the range in metres. */
export const rangeIn = (
  least: number,
  most: number,
  units: Units,
): { readonly min: number; readonly max: number } =>
  units === 'feet'
    ? {
        min: Math.ceil((least / METRES_A_FOOT) * 100) / 100,
        max: Math.floor((most / METRES_A_FOOT) * 100) / 100,
      }
    : { min: least, max: most }
