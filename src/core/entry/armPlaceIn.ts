import { ArmPlace } from '../body/places'
import { squashed } from './names'
import type { Token } from './tokens'

/** What else places are called. */
const ALSO: readonly (readonly [string, ArmPlace])[] = [
  ['mouth', 'lips'],
  ['chest', 'heart'],
  ['lap', 'thigh'],
]
const ARM_PLACES: ReadonlyMap<string, ArmPlace> = new Map([
  ...ALSO,
  ...ArmPlace.options.map((place) => [squashed(place), place] as const),
])

/** An arm's place in one word or two: `high-v`, `high v`. */
export function armPlaceIn(one: Token | undefined, two: Token | undefined) {
  if (!one || one.quoted) return undefined
  const both = two && !two.quoted ? ARM_PLACES.get(squashed(one.text + two.text)) : undefined
  if (both) return { place: both, words: 2 }
  const place = ARM_PLACES.get(squashed(one.text))
  return place && { place, words: 1 }
}

/** What else a place is called. */
export const otherArmNames = (place: ArmPlace): readonly string[] =>
  ALSO.flatMap(([name, one]) => (one === place ? [name] : []))
