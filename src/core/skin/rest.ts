import { cross, plus, unit, type Vec } from './field'

/**
 * The body at rest, in metres: right, up and back of the point between the feet, for a dancer of
 * 1.65 m. The arms hang half-way between low and high, the legs stand almost together. Only the
 * right side is written; the left one is its mirror image.
 */
const ARM_TURN = (52 * Math.PI) / 180

export const REST = {
  pelvis: [0, 0.92, 0],
  chest: [0, 1.28, 0],
  /** The neck bends in two places. */
  neck1: [0, 1.452, 0],
  neck2: [0, 1.49, 0],
  head: [0, 1.6, 0],
  shoulder: [0.16, 1.383, 0.004],
  hip: [0.09, 0.86, 0],
} as const satisfies Record<string, Vec>

/** Where the right arm and the right leg point. */
export const ARM_WAY: Vec = [Math.sin(ARM_TURN), -Math.cos(ARM_TURN), 0]
export const LEG_WAY: Vec = unit([0.026, -0.81, 0])
/** Across them: towards the palm's side, and to the outside. */
export const ARM_ACROSS: Vec = cross(ARM_WAY, [0, 0, 1])
export const LEG_ACROSS: Vec = cross(LEG_WAY, [0, 0, -1])

/** Along a limb from where it begins. */
export const ELBOW = 0.265
export const FOREARM = 0.245
const WRIST_ALONG = ELBOW + FOREARM
export const KNEE = 0.41
const ANKLE_ALONG = 0.81

export const WRIST: Vec = plus(REST.shoulder, ARM_WAY, WRIST_ALONG)
export const ANKLE: Vec = plus(REST.hip, LEG_WAY, ANKLE_ALONG)
/** The waist is bent between these heights. */
export const SPINE_UP = [0.985, 1.03, 1.075, 1.12, 1.165] as const

/** How far along the arm a place is. */
export const alongArm = (x: number, y: number): number =>
  (x - REST.shoulder[0]) * ARM_WAY[0] + (y - REST.shoulder[1]) * ARM_WAY[1]
export const acrossArm = (x: number, y: number): number =>
  (x - REST.shoulder[0]) * ARM_ACROSS[0] + (y - REST.shoulder[1]) * ARM_ACROSS[1]
export const alongLeg = (x: number, y: number): number =>
  (x - REST.hip[0]) * LEG_WAY[0] + (y - REST.hip[1]) * LEG_WAY[1]
export const acrossLeg = (x: number, y: number): number =>
  (x - REST.hip[0]) * LEG_ACROSS[0] + (y - REST.hip[1]) * LEG_ACROSS[1]

/** A place of the hand: towards the palm's side, along, towards the thumb. */
export const fromHand = ([palm, along, thumb]: Vec): Vec => {
  const [x, y, z] = plus(plus(WRIST, ARM_ACROSS, palm), ARM_WAY, along)
  return [x, y, z - thumb]
}
/** A direction in the same numbers. */
export const wayOfHand = (way: Vec): Vec => plus(fromHand(way), WRIST, -1)

const ofHand = (x: number, y: number, z: number): Vec => {
  const dx = x - WRIST[0]
  const dy = y - WRIST[1]
  return [dx * ARM_ACROSS[0] + dy * ARM_ACROSS[1], dx * ARM_WAY[0] + dy * ARM_WAY[1], WRIST[2] - z]
}

export { ofHand }

const FINGER_NAMES = ['index', 'middle', 'ring', 'little', 'thumb'] as const
export type FingerName = (typeof FINGER_NAMES)[number]

/** A finger in the numbers of the hand. */
export interface Finger {
  readonly name: FingerName
  readonly base: Vec
  readonly way: Vec
  readonly long: number
  readonly thick: number
  /** How far it goes aside where the fingers are spread. */
  readonly fan: number
}

/** Begins a little inside the palm, so that it grows out of it. */
const ROOT = 0.012
const finger = (
  name: FingerName,
  along: number,
  aside: number,
  long: number,
  turn: number,
  thick: number,
  fan: number,
): Finger => ({
  name,
  base: [0, along - ROOT, aside],
  way: [0, Math.cos(turn), Math.sin(turn)],
  long: long + ROOT,
  thick,
  fan,
})

export const FINGERS: readonly Finger[] = [
  finger('index', 0.086, 0.0275, 0.07, 0.06, 0.0082, 1),
  finger('middle', 0.09, 0.0088, 0.078, 0.01, 0.0085, 0.25),
  finger('ring', 0.087, -0.0102, 0.072, -0.05, 0.008, -0.4),
  finger('little', 0.079, -0.0275, 0.057, -0.13, 0.007, -1.1),
  {
    name: 'thumb',
    base: [0.004, 0.026, 0.026],
    way: unit([0.3, 0.78, 0.6]),
    long: 0.066,
    thick: 0.0105,
    fan: 0,
  },
]
/** Where a finger bends in its middle, as a share of it. */
export const FINGER_BEND = 0.52
