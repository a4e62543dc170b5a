/** The body at 1.65 m, in metres: house figures of the figure's brief. */
export const BODY = {
  ankle: 0.07,
  /** From the ankle's floor point to the ball, the tip of the toes and the end of the heel. */
  ball: 0.12,
  toe: 0.18,
  heel: 0.05,
  shin: 0.4,
  thigh: 0.41,
  hipAside: 0.09,
  hipBelow: 0.06,
  /** The hip bone, from the pelvis centre. */
  crestAside: 0.13,
  crestAbove: 0.05,
  chestAbovePelvis: 0.36,
  /** The ribs tilt and arch about a point so far below the chest centre. */
  ribsTurnBelow: 0.18,
  shoulderAside: 0.165,
  shoulderAboveChest: 0.12,
  upperArm: 0.265,
  forearm: 0.245,
  hand: 0.16,
  headAboveChest: 0.32,
} as const

/** A leg or an arm is never quite straight: a joint on the edge of straight would snap. */
export const LEG_REACH = 0.805
export const ARM_REACH = 0.502
export const ARM_LEAST = 0.14

/**
 * How high the pelvis is carried at each level, in metres (house figures). The brief's 0.88 and 0.90
 * leave legs of these lengths deeply bent: soft is soft and tall is straight here.
 */
export const PELVIS_UP = { deep: 0.7, low: 0.8, soft: 0.915, tall: 0.932, toes: 0.985 } as const

/** How far the heels are up on the toes, and when only the ball or the heel touches, in degrees. */
export const FOOT_PITCH = { toes: 34, ball: 24, heel: -20, flat: 0, air: 35 } as const
