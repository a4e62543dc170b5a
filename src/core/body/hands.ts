import { z } from 'zod'

export const HAND_SHAPES = [
  'soft',
  'flat',
  'fist',
  'point',
  'bud',
  'flower',
  'cup',
  'spread',
  'flexed',
] as const
/** How the fingers of a hand are held. */
export const HandShape = z.enum(HAND_SHAPES)
export type HandShape = z.infer<typeof HandShape>

/** Where a palm looks, from the dancer: `in` to her middle; `easy` as the arm brings it. */
export const PalmWay = z.enum(['in', 'out', 'up', 'down', 'front', 'back', 'easy'])
export type PalmWay = z.infer<typeof PalmWay>

/** What is said of a hand: its shape, where its palm looks, or both. The other one stays as it was. */
export const Hand = z
  .object({ shape: HandShape.optional(), palm: PalmWay.optional() })
  .refine(({ shape, palm }) => shape !== undefined || palm !== undefined, 'say how the hand is')
  .readonly()
export type Hand = z.infer<typeof Hand>

/** How a hand is at a moment. */
export interface HandState {
  readonly shape: HandShape
  readonly palm: PalmWay
}

/** As it hangs by itself. */
export const EASY_HAND: HandState = { shape: 'soft', palm: 'easy' }

/** As the sheet has it: `fist palm in`. */
export const handWords = ({ shape, palm }: Hand): string =>
  [shape, palm && `palm ${palm}`].filter(Boolean).join(' ')

const SHAPE_NAMES: Readonly<Record<HandShape, string>> = {
  soft: 'soft hand',
  flat: 'flat hand',
  fist: 'fist',
  point: 'one finger',
  bud: 'fingertips together',
  flower: 'open flower',
  cup: 'cupped hand',
  spread: 'fingers spread',
  flexed: 'hand bent back',
}

/** As a dancer is told: `fist, palm in`. */
export const handSaid = ({ shape, palm }: Hand): string =>
  [shape && SHAPE_NAMES[shape], palm && (palm === 'easy' ? 'palm as it comes' : `palm ${palm}`)]
    .filter(Boolean)
    .join(', ')
