import { SIDES, type Side, signOf } from '../body/side'
import { ARM, WRIST_TO_PALM } from './armPlaces'
import { armAt, at } from './channels'
import { eased } from './curve'
import { jointsOfSide, type Pose, placeOfJoint } from './joints'
import { ARM_LEAST, ARM_REACH, BODY } from './proportions'
import type { Scratch } from './scratch'
import { bend, put } from './solve'

/** A hanging hand gives way to the hips by this much. */
const HIPS_PUSH = 0.55
/** Both palms meet here, in the chest's frame, right hand. */
const CLAP = [0.015, 0.04, 0.34] as const

const spot = new Float64Array(9)

/** Hands that lie over each other are so far in front and behind of where they would meet, in metres. */
const OVER = { lead: 0.035, other: 0.024 } as const
/** From the middle of the palm to the finger tips, in metres. */
const PALM_TO_TIPS = BODY.hand / 2
/** From so near on hands that point at each other begin to make way, and have made it so much farther in; no farther apart up and forward, in metres. */
const CROSSED = { before: 0.08, aside: 0.06, up: 0.16, forward: 0.16 } as const

/** How much of a hand points to the right, -1 to 1. */
function asideOf(arm: Float64Array): number {
  const x = arm[ARM.fingers] as number
  const y = arm[ARM.fingers + 1] as number
  const z = arm[ARM.fingers + 2] as number
  return x / (Math.sqrt(x * x + y * y + z * z) || 1)
}

/**
 * Where the hands reach past each other one lies in front, so that neither goes through the other.
 * @param front 1 where that is the right one, -1 the left one
 */
export function crossOver(arms: Readonly<Record<Side, Float64Array>>, front: number): void {
  const { R, L } = arms
  const [r, l] = [asideOf(R), asideOf(L)]
  const past =
    (L[ARM.palm] as number) -
    (R[ARM.palm] as number) +
    (PALM_TO_TIPS + CROSSED.before / 2) * (l - r)
  const apart = (i: 1 | 2) => Math.abs((R[ARM.palm + i] as number) - (L[ARM.palm + i] as number))
  const over =
    eased(past / CROSSED.aside) *
    eased(2 - (2 * apart(1)) / CROSSED.up) *
    eased(2 - (2 * apart(2)) / CROSSED.forward)
  if (over === 0) return
  for (const side of SIDES) {
    const by = front * signOf(side)
    arms[side][ARM.palm + 2] =
      (arms[side][ARM.palm + 2] as number) + by * (by > 0 ? OVER.lead : OVER.other) * over
  }
}

/** One arm, from the shoulder to the finger tips. */
export function hang(pose: Pose, own: Scratch, side: Side): void {
  const { joints, chest } = pose
  const c = own.channels
  const arm = own.arms[side]
  const sign = signOf(side)
  const my = armAt[side]
  const [up, forward] =
    side === 'R'
      ? [c[at['shoulderR.up']] as number, c[at['shoulderR.forward']] as number]
      : [c[at['shoulderL.up']] as number, c[at['shoulderL.forward']] as number]
  const shoulder = jointsOfSide[side].shoulder
  const middle = placeOfJoint.chest
  put(
    joints,
    shoulder,
    joints,
    middle,
    chest,
    sign * BODY.shoulderAside,
    BODY.shoulderAboveChest + up,
    forward,
  )
  // What goes with the hips or the head is carried along by how far they are from their place.
  const leans = arm[ARM.head] as number
  const clap = c[my.clap] as number
  const ways = arm
  let px = (ways[0] as number) + (c[my.right] as number)
  let py = (ways[1] as number) + (c[my.up] as number)
  let pz = (ways[2] as number) + (c[my.forward] as number)
  px += (sign * CLAP[0] - px) * clap
  py += (CLAP[1] - py) * clap
  pz += (CLAP[2] - pz) * clap
  // The wrist: the palm less half a hand, in the room.
  const wrist = jointsOfSide[side].wrist
  const fx = ways[ARM.fingers] as number
  const fy = ways[ARM.fingers + 1] as number
  const fz = ways[ARM.fingers + 2] as number
  const flong = Math.sqrt(fx * fx + fy * fy + fz * fz) || 1
  const back = WRIST_TO_PALM / Math.max(flong, 0.5)
  put(joints, wrist, joints, middle, chest, px - fx * back, py - fy * back, pz - fz * back)
  const rides = (ways[ARM.hips] as number) * (1 - clap)
  const hangs = (ways[ARM.hangs] as number) * (1 - clap)
  const frame = frameOf(pose, rides, hangs)
  if (rides + hangs > 0) {
    const upFromPelvis = BODY.chestAbovePelvis
    const [x, y, z] = [px - fx * back, py - fy * back, pz - fz * back]
    // Over the pelvis where the hand is at the hips; from the shoulder where it hangs.
    put(spot, 0, joints, placeOfJoint.pelvis, pose.pelvis, x, y + upFromPelvis, z)
    put(
      spot,
      3,
      joints,
      shoulder,
      upright,
      x - sign * BODY.shoulderAside,
      y - BODY.shoulderAboveChest,
      z,
    )
    for (let i = 0; i < 3; i++) {
      const aside =
        i === 1 ? 0 : (joints[placeOfJoint.pelvis + i] as number) - (joints[middle + i] as number)
      joints[wrist + i] =
        (joints[wrist + i] as number) * (1 - rides - hangs) +
        (spot[i] as number) * rides +
        ((spot[3 + i] as number) + HIPS_PUSH * aside) * hangs
    }
  }
  if (leans > 0) {
    const head = placeOfJoint.head
    const neck = placeOfJoint.chest
    for (let i = 0; i < 3; i++) {
      const usual = (joints[neck + i] as number) + (chest[3 + i] as number) * BODY.headAboveChest
      joints[wrist + i] =
        (joints[wrist + i] as number) + leans * ((joints[head + i] as number) - usual)
    }
  }
  stretch(joints, shoulder, wrist, c[my.along] as number)
  // The elbow's direction in the room, raised by a wave.
  const lift = c[my.elbow] as number
  toRoom(
    spot,
    0,
    frame,
    ways[ARM.elbow] as number,
    (ways[ARM.elbow + 1] as number) + lift,
    ways[ARM.elbow + 2] as number,
  )
  const elbow = jointsOfSide[side].elbow
  bend(joints, shoulder, wrist, elbow, BODY.upperArm, BODY.forearm, spot)
  hand(pose, frame, side, wrist, c, ways)
}

/** The dancer's own right, up and forward with nothing bent. */
const upright = new Float64Array(9)
const mixed = new Float64Array(9)

/** The directions an arm goes by: the chest's, as far as it neither rides on the hips nor hangs. */
function frameOf({ chest, pelvis, facing }: Pose, rides: number, hangs: number): Float64Array {
  if (rides + hangs === 0) return chest
  const yaw = (facing * Math.PI) / 180
  upright[0] = Math.cos(yaw)
  upright[2] = -Math.sin(yaw)
  upright[4] = 1
  upright[6] = -(upright[2] as number)
  upright[8] = upright[0] as number
  const rest = 1 - rides - hangs
  for (let i = 0; i < 9; i++)
    mixed[i] =
      (chest[i] as number) * rest + (pelvis[i] as number) * rides + (upright[i] as number) * hangs
  return mixed
}

/** Keeps a wrist where the arm can reach it, farther out or in by what a gesture adds. */
function stretch(joints: Float64Array, shoulder: number, wrist: number, more: number): void {
  const dx = (joints[wrist] as number) - (joints[shoulder] as number)
  const dy = (joints[wrist + 1] as number) - (joints[shoulder + 1] as number)
  const dz = (joints[wrist + 2] as number) - (joints[shoulder + 2] as number)
  const far = Math.sqrt(dx * dx + dy * dy + dz * dz) || 1e-9
  const wanted = far + more
  const length = wanted > ARM_REACH ? ARM_REACH : Math.max(wanted, ARM_LEAST)
  const by = length / far
  joints[wrist] = (joints[shoulder] as number) + dx * by
  joints[wrist + 1] = (joints[shoulder + 1] as number) + dy * by
  joints[wrist + 2] = (joints[shoulder + 2] as number) + dz * by
}

/** A direction of a frame, in the room. */
function toRoom(
  out: Float64Array,
  o: number,
  m: Float64Array,
  x: number,
  y: number,
  z: number,
): void {
  for (let i = 0; i < 3; i++)
    out[o + i] = x * (m[i] as number) + y * (m[3 + i] as number) + z * (m[6 + i] as number)
}

/** The hand: its own direction, bent by gestures, and where its palm looks. */
function hand(
  pose: Pose,
  frame: Float64Array,
  side: Side,
  wrist: number,
  c: Float64Array,
  ways: Float64Array,
): void {
  const { joints, palms } = pose
  const my = armAt[side]
  const sign = signOf(side)
  toRoom(
    spot,
    0,
    frame,
    ways[ARM.fingers] as number,
    ways[ARM.fingers + 1] as number,
    ways[ARM.fingers + 2] as number,
  )
  toRoom(
    spot,
    3,
    frame,
    ways[ARM.looks] as number,
    ways[ARM.looks + 1] as number,
    ways[ARM.looks + 2] as number,
  )
  const bendUp = c[my.bendUp] as number
  const bendIn = c[my.bendIn] as number
  const roll = c[my.roll] as number
  // Across the hand, towards the thumb.
  let ax = (spot[1] as number) * (spot[5] as number) - (spot[2] as number) * (spot[4] as number)
  let ay = (spot[2] as number) * (spot[3] as number) - (spot[0] as number) * (spot[5] as number)
  let az = (spot[0] as number) * (spot[4] as number) - (spot[1] as number) * (spot[3] as number)
  ax *= sign
  ay *= sign
  az *= sign
  const o = side === 'R' ? 0 : 3
  let x = (spot[0] as number) - bendUp * (spot[3] as number) + bendIn * ax
  let y = (spot[1] as number) - bendUp * (spot[4] as number) + bendIn * ay
  let z = (spot[2] as number) - bendUp * (spot[5] as number) + bendIn * az
  const long = Math.sqrt(x * x + y * y + z * z) || 1
  x /= long
  y /= long
  z /= long
  const palm = jointsOfSide[side].palm
  const tips = jointsOfSide[side].fingers
  joints[palm] = (joints[wrist] as number) + x * WRIST_TO_PALM
  joints[palm + 1] = (joints[wrist + 1] as number) + y * WRIST_TO_PALM
  joints[palm + 2] = (joints[wrist + 2] as number) + z * WRIST_TO_PALM
  joints[tips] = (joints[wrist] as number) + x * BODY.hand
  joints[tips + 1] = (joints[wrist + 1] as number) + y * BODY.hand
  joints[tips + 2] = (joints[wrist + 2] as number) + z * BODY.hand
  palms[o] = (spot[3] as number) + roll * ax
  palms[o + 1] = (spot[4] as number) + roll * ay
  palms[o + 2] = (spot[5] as number) + roll * az
}
