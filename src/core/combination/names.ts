import type { FootAction } from '../body/feet'
import { type ArmPlace, type Compass, compassWord, type Gaze } from '../body/places'
import { type Side, sideWord } from '../body/side'
import { assertNever } from '../errors'
import type { Vocabulary } from '../moves/vocabulary'
import type { Event, Phrase, What } from './combination'

/** The side something is danced on, where it has one. */
export function sideOf(what: What): Side | undefined {
  switch (what.kind) {
    case 'foot':
      if (what.action.jump === 'R' || what.action.jump === 'L') return what.action.jump
      return what.action.foot
    case 'move':
      if (what.way) return what.way === 'cw' ? 'R' : 'L'
      return what.side
    case 'at':
      return sideAtEnd(what.place)
    case 'look':
      return sideAtEnd(what.gaze)
    case 'arms':
      if (what.R && what.L) return undefined
      return what.R ? 'R' : 'L'
  }
}

function sideAtEnd(place: string): Side | undefined {
  const end = place.at(-1)
  return end === 'R' || end === 'L' ? end : undefined
}

/** The short name the class would use: `step R forward`, `hip drop R`, `both high-v`. */
export function nameOf(
  { layer, what, as }: Pick<Event, 'layer' | 'what' | 'as'>,
  vocabulary: Vocabulary,
): string {
  if (as) return as
  switch (what.kind) {
    case 'foot':
      return nameOfAction(what.action)
    case 'at':
      return `${layer === 'torso' ? 'ribs' : 'hips'} ${compassWord[what.place]}`
    case 'arms':
      return armWords(what)
    case 'look':
      return gazeName[what.gaze]
    case 'move': {
      const name = vocabulary.find(what.move)?.name.toLowerCase() ?? what.move
      const side = what.side ?? what.way
      return side ? `${name} ${side}` : name
    }
    default:
      return assertNever(what)
  }
}

export function nameOfAction(action: FootAction): string {
  const { primitive, foot, direction, size, contact, turn, jump } = action
  const words = [
    primitive,
    foot,
    jump,
    direction,
    size,
    contact,
    primitive === 'pivot' ? `${turn}°` : turn && `turn ${turn}°`,
  ]
  return words.filter(Boolean).join(' ')
}

export const gazeName: Readonly<Record<Gaze, string>> = {
  front: 'look front',
  R: `look ${sideWord.R}`,
  L: `look ${sideWord.L}`,
  up: 'look up',
  down: 'look down',
  'over-R': 'look over R shoulder',
  'over-L': 'look over L shoulder',
  'hand-R': 'look at R hand',
  'hand-L': 'look at L hand',
  'tilt-R': 'head tilted R',
  'tilt-L': 'head tilted L',
}

/** Both arms where they agree, else each: `both low`, `R crown, L hips`. */
export const armWords = ({
  R,
  L,
}: {
  R?: ArmPlace | undefined
  L?: ArmPlace | undefined
}): string => (R === L ? `both ${R}` : [R && `R ${R}`, L && `L ${L}`].filter(Boolean).join(', '))

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
