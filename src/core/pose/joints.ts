import type { Contact } from '../body/feet'
import { HAND_SHAPES } from '../body/hands'
import type { Side } from '../body/side'

/**
 * What a pose is made of. Everything is in metres of the room: right, up, forward, where the
 * dancer's first stance is around the middle of the floor and the front wall is forward.
 */
const PAIRED = [
  'heel',
  'ankle',
  'ball',
  'toe',
  'knee',
  'hip',
  'crest',
  'shoulder',
  'elbow',
  'wrist',
  'palm',
  'fingers',
] as const
const SINGLE = ['pelvis', 'waist', 'chest', 'neck', 'head'] as const

type Paired = (typeof PAIRED)[number]
export type Joint = (typeof SINGLE)[number] | `${Paired}R` | `${Paired}L`

/** Every joint; `hip` is where the thigh turns, `crest` the hip bone that is looked at. */
export const JOINTS: readonly Joint[] = [
  ...SINGLE,
  ...PAIRED.flatMap((name): Joint[] => [`${name}R`, `${name}L`]),
]

/** Where a joint begins in the numbers of a pose. */
export const placeOfJoint = Object.fromEntries(
  JOINTS.map((joint, i) => [joint, 3 * i]),
) as Readonly<Record<Joint, number>>

/** Where the paired joints of a side begin. */
export const jointsOfSide: Readonly<Record<Side, Readonly<Record<Paired, number>>>> = {
  R: sideOf('R'),
  L: sideOf('L'),
}

function sideOf(side: Side): Readonly<Record<Paired, number>> {
  return Object.fromEntries(PAIRED.map((name) => [name, placeOfJoint[`${name}${side}`]])) as Record<
    Paired,
    number
  >
}

/** The shapes a hand can be told; where nothing is told it is as the arm brings it. */
export const TOLD_SHAPES = HAND_SHAPES.filter((shape) => shape !== 'soft')

/**
 * One pose. Orientations are nine numbers: the part's own right, up and forward as directions
 * of the room. Made once and written into again and again, since sixty a second are needed.
 */
export interface Pose {
  readonly joints: Float64Array
  readonly pelvis: Float64Array
  readonly chest: Float64Array
  readonly head: Float64Array
  /** Where the palms look: right, up, forward of the right one, then of the left one. */
  readonly palms: Float64Array
  /** How much of each shape that was told the right hand has, then the left one, 0 to 1; none where it is as the arm brings it. */
  readonly hands: Float64Array
  /** Share of the weight on the right and on the left foot, 0 to 1. */
  readonly weight: Float64Array
  /** How the right and the left foot touch the floor; in the air on its way. */
  readonly contacts: Record<Side, Contact>
  /** Degrees clockwise from above, unwrapped. */
  facing: number
  /** The floor point the body is over. */
  readonly over: Float64Array
}

export const newPose = (): Pose => ({
  joints: new Float64Array(3 * JOINTS.length),
  pelvis: new Float64Array(9),
  chest: new Float64Array(9),
  head: new Float64Array(9),
  palms: new Float64Array(6),
  hands: new Float64Array(2 * TOLD_SHAPES.length),
  weight: new Float64Array(2),
  contacts: { R: 'flat', L: 'flat' },
  facing: 0,
  over: new Float64Array(2),
})

/**
 * Moves a pose towards another one: 0 leaves it, 1 makes it the other. For the moment in which
 * one dance goes over into the next; in between bones may be a little short.
 */
export function blendInto(pose: Pose, other: Pose, share: number): void {
  for (const part of [
    'joints',
    'pelvis',
    'chest',
    'head',
    'palms',
    'hands',
    'weight',
    'over',
  ] as const) {
    const [to, from] = [pose[part], other[part]]
    for (let i = 0; i < to.length; i++)
      to[i] = (to[i] as number) * (1 - share) + (from[i] as number) * share
  }
  pose.facing = pose.facing * (1 - share) + other.facing * share
}

/** Writes a pose into another one. */
export function copyInto(into: Pose, from: Pose): void {
  into.joints.set(from.joints)
  into.pelvis.set(from.pelvis)
  into.chest.set(from.chest)
  into.head.set(from.head)
  into.palms.set(from.palms)
  into.hands.set(from.hands)
  into.weight.set(from.weight)
  into.over.set(from.over)
  into.contacts.R = from.contacts.R
  into.contacts.L = from.contacts.L
  into.facing = from.facing
}

/** A joint of a pose as a point. */
export const jointOf = ({ joints }: Pose, joint: Joint): readonly [number, number, number] => {
  const at = placeOfJoint[joint]
  return [joints[at] ?? 0, joints[at + 1] ?? 0, joints[at + 2] ?? 0]
}
