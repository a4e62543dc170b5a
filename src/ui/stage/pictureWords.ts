import { CLEAREST, type Dancer } from '../../core/pose/dancer'
import { type View, viewFacts } from '../../core/pose/views'

/** How much larger than they are danced isolations can be shown. */
export const CLEARER = [1, 1.3, CLEAREST].map((by) => ({
  value: String(by),
  label: `${Math.round(by * 100)} %`,
}))

/** What is said on the picture while isolations are larger than they are danced. */
const clearerWords = (clearer: number): string =>
  clearer > 1 ? ` Isolations at ${Math.round(clearer * 100)} %.` : ''

/** What is written on every picture of a dancer: whose right is where, and how large isolations are. */
export const pictureWords = (view: View, { options }: Dancer, areSeveral = false): string =>
  whoseWords(view, areSeveral) + clearerWords(options.clearer ?? 1)

/** Whose right is where in a view, of one dancer or of several. */
export const whoseWords = (view: View, areSeveral: boolean): string =>
  areSeveral ? viewFacts[view].whose.replaceAll('its ', 'their ') : viewFacts[view].whose
