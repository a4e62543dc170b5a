import { type Direction, type FootAction, factsOf, type Primitive } from '../../core/body/feet'
import type { ArmPlace, Compass, Gaze } from '../../core/body/places'
import type { Side } from '../../core/body/side'

/** Something that is touched on a pad: where it is, what it is called there and in full. */
export interface Spot<T> {
  readonly value: T
  /** Columns to the right and rows down, from the upper left corner. */
  readonly column: number
  readonly row: number
  readonly label: string
  readonly name: string
}

/** Rows of words as a dancer is seen from behind: her right is to the right, front is up. */
function spotsOf<T extends string>(
  rows: readonly (readonly (T | undefined)[])[],
  words: (value: T) => { readonly label: string; readonly name: string },
): readonly Spot<T>[] {
  return rows.flatMap((cells, row) =>
    cells.flatMap((value, column) =>
      value === undefined ? [] : [{ value, column, row, ...words(value) }],
    ),
  )
}

/** Steps that go somewhere, the most used first. */
export const STEPS_SOMEWHERE: readonly Primitive[] = [
  'step',
  'touch',
  'heel',
  'kick',
  'lift',
  'press',
  'stamp',
  'sweep',
  'brush',
  'drag',
  'leap',
]

/** Where a right foot goes, as seen from behind. */
const RIGHT_FOOT: readonly (readonly Direction[])[] = [
  ['cross-front', 'forward', 'diag-forward'],
  ['together', 'in-place', 'side'],
  ['cross-behind', 'back', 'diag-back'],
]

const DIRECTION_LABEL: Readonly<Partial<Record<Direction, string>>> = {
  'cross-front': 'cross front',
  'cross-behind': 'cross behind',
  'diag-forward': 'diagonal forward',
  'diag-back': 'diagonal back',
  'in-place': 'in place',
}

/** The floor round a foot. */
export const floorFor = (foot: Side): readonly Spot<Direction>[] =>
  spotsOf(
    RIGHT_FOOT.map((row) => (foot === 'R' ? row : row.toReversed())),
    (value) => {
      const label = DIRECTION_LABEL[value] ?? value
      return { label, name: label }
    },
  )

/** A step to somewhere, with nothing said that goes without saying. */
export const stepTo = (primitive: Primitive, foot: Side, direction: Direction): FootAction => ({
  primitive,
  ...(factsOf(primitive).foot && { foot }),
  direction,
})

const COMPASS_LABEL: Readonly<Record<Compass, string>> = {
  C: 'centre',
  F: 'front',
  FR: 'front right',
  R: 'right',
  BR: 'back right',
  B: 'back',
  BL: 'back left',
  L: 'left',
  FL: 'front left',
}

/** The places hips and ribs go to. */
export const COMPASS_SPOTS: readonly Spot<Compass>[] = spotsOf(
  [
    ['FL', 'F', 'FR'],
    ['L', 'C', 'R'],
    ['BL', 'B', 'BR'],
  ] as const satisfies readonly (readonly Compass[])[],
  (value) => ({ label: COMPASS_LABEL[value], name: COMPASS_LABEL[value] }),
)

/** The places an arm is sent to most, from over the head down to the thighs, from the middle outwards. */
const RIGHT_ARM: readonly (readonly (ArmPlace | undefined)[])[] = [
  ['crown', 'front-high', 'diagonal-up', 'high-v'],
  ['behind-head', 'temple', 'front', 'second'],
  ['prayer', 'heart', 'level', 'corner'],
  ['cross-chest', 'waist', 'hips', 'demi-second'],
  ['cross-low', 'front-low', 'diagonal-down', 'low-v'],
  ['behind-back', 'thigh', 'low'],
]

/** The places of one arm, or of both, from the middle of the body outwards. */
export const armSpots = (arm: Side): readonly Spot<ArmPlace>[] =>
  spotsOf(
    RIGHT_ARM.map((row) => {
      const whole = Array.from({ length: 4 }, (_, i) => row[i])
      return arm === 'R' ? whole : whole.toReversed()
    }),
    (value) => ({ label: value.replaceAll('-', ' '), name: value.replaceAll('-', ' ') }),
  )

const GAZE_LABEL: Readonly<Record<Gaze, string>> = {
  front: 'front',
  R: 'right',
  L: 'left',
  up: 'up',
  down: 'down',
  'over-R': 'over shoulder R',
  'over-L': 'over shoulder L',
  'hand-R': 'right hand',
  'hand-L': 'left hand',
  'tilt-R': 'tilt right',
  'tilt-L': 'tilt left',
  'corner-R': 'corner right',
  'corner-L': 'corner left',
  'back-R': 'back right',
  'back-L': 'back left',
  'down-R': 'right foot',
  'down-L': 'left foot',
  hand: 'moving hand',
  audience: 'audience',
  partner: 'partner',
}

/** Where the head looks, or how it is held. */
export const GAZE_SPOTS: readonly Spot<Gaze>[] = spotsOf<Gaze>(
  [
    ['tilt-L', 'corner-L', 'up', 'corner-R', 'tilt-R'],
    ['over-L', 'L', 'front', 'R', 'over-R'],
    ['back-L', 'down-L', 'down', 'down-R', 'back-R'],
    [undefined, 'hand-L', 'hand', 'hand-R', 'audience'],
  ],
  (value) => ({ label: GAZE_LABEL[value], name: GAZE_LABEL[value] }),
)
