import type { OneSide } from '../combination/combination'
import { ONLY_PART } from '../combination/whose'
import type { Finding, Found } from './finding'
import { keysIn } from './once'

/** What was found, where it was found: on the lead side or only on the other, of the only part. */
export const foundOn = (found: Found, side: Finding['side']): Finding =>
  ({ ...found, whose: [ONLY_PART], side }) as Finding

/** Whether the other side is just the mirror image: nothing stays as it is written. */
export const isItsOwnMirror = ({ phrases, keepTurns, carried = [] }: OneSide): boolean =>
  !keepTurns &&
  !carried.some(({ keepHand }) => keepHand) &&
  !phrases.some(({ events, props = [], options = [] }) =>
    [...events, ...props, ...options.flatMap((option) => option.events)].some(({ kept }) => kept),
  )

/**
 * What is found on both sides: the lead's, and of the other side what has no mirror image on
 * the lead. The other side is only looked at where it is not just that image.
 */
export function onBothSides(
  written: OneSide,
  onLead: readonly Found[],
  findOnOther: () => readonly Found[],
): readonly Finding[] {
  const onOther = isItsOwnMirror(written) ? [] : onlyThere(findOnOther(), onLead)
  return [
    ...onLead.map((found) => foundOn(found, 'lead')),
    ...onOther.map((found) => foundOn(found, 'other')),
  ]
}

/** What stands on the other side but has no mirror image on the lead. */
function onlyThere(there: readonly Found[], here: readonly Found[]): readonly Found[] {
  const known = new Set(here.flatMap(keysIn))
  return there.filter((found) => !keysIn(found).every((key) => known.has(key)))
}
