import { ArmPlace } from '../body/places'
import { squashed } from './names'
import type { Token } from './tokens'

const ARM_PLACES: ReadonlyMap<string, ArmPlace> = new Map(
  ArmPlace.options.map((place) => [squashed(place), place]),
)

/** An arm's place in one word or two: `high-v`, `high v`. */
export function armPlaceIn(one: Token | undefined, two: Token | undefined) {
  if (!one || one.quoted) return undefined
  const both = two && !two.quoted ? ARM_PLACES.get(squashed(one.text + two.text)) : undefined
  if (both) return { place: both, words: 2 }
  const place = ARM_PLACES.get(squashed(one.text))
  return place && { place, words: 1 }
}
