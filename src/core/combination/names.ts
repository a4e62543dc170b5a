import { type ArmPlace, type Compass, compassWord, type Gaze } from '../body/places'
import type { Side } from '../body/side'
import type { Vocabulary } from '../moves/vocabulary'
import { armWords } from '../what/arms'
import { kindOf, type What } from '../what/kinds'
import { gazeName } from '../what/look'
import type { Event, Phrase } from './combination'

/** The side something is danced on, where it has one. */
export const sideOf = (what: What): Side | undefined => kindOf(what).side(what)

/** The short name the class would use: `step R forward`, `hip drop R`, `both high-v`. */
export const nameOf = (
  { layer, what, as, either }: Pick<Event, 'layer' | 'what' | 'as' | 'either'>,
  vocabulary: Vocabulary,
): string => {
  if (as) return as
  const name = kindOf(what).name(what, { layer, vocabulary })
  return either ? `${name}, either side` : name
}

/** Some places of the body in words: `hips front left`, `both second`. */
export const placesWords = (places: {
  readonly hips?: Compass
  readonly ribs?: Compass
  readonly arms?: { readonly R?: ArmPlace; readonly L?: ArmPlace }
  readonly gaze?: Gaze
}): string =>
  [
    places.hips && `hips ${compassWord[places.hips]}`,
    places.ribs && `ribs ${compassWord[places.ribs]}`,
    places.arms && armWords(places.arms),
    places.gaze && gazeName[places.gaze],
  ]
    .filter(Boolean)
    .join(', ')

/** A place in a phrase, as it is said: `A3&`. After a name that ends in a digit a colon: `A1:3`. */
export const placeIn = (phrase: string, label: string): string =>
  `${phrase}${/\p{N}$/u.test(phrase) ? ':' : ''}${label}`

/** A name no phrase has yet: `B`, then `B2`, `B3`. */
export function freeName(phrases: readonly Phrase[], wanted: string): string {
  const taken = new Set(phrases.map(({ name }) => name))
  if (!taken.has(wanted)) return wanted
  for (let i = 2; ; i++) if (!taken.has(`${wanted}${i}`)) return `${wanted}${i}`
}
