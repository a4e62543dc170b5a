import { SIDES } from '../body/side'
import { at } from './channels'
import { radians } from './curve'
import { type Pose, placeOfJoint } from './joints'
import { leg, legsReach } from './leg'
import { BODY } from './proportions'
import type { Scratch } from './scratch'
import { orient, put } from './solve'
import type { FeetNow } from './steps'

/** A lean is a turn of everything above the knees. */
const LEAN_FROM = 0.42
/** The neck gives way to the chest by this much; the rest keeps the head over the middle. */
const NECK_FOLLOWS = 0.45
const spot = new Float64Array(9)

/** Feet, legs, pelvis, chest and head. */
export function standUp(pose: Pose, { channels: c, hips, ribs, head, feet, legs }: Scratch): void {
  const yaw = radians(feet.facing)
  const sin = Math.sin(yaw)
  const cos = Math.cos(yaw)
  pose.facing = feet.facing
  pose.contacts.R = feet.at.R.contact
  pose.contacts.L = feet.at.L.contact
  pose.over[0] = feet.over.right
  pose.over[1] = feet.over.forward
  pose.weight[0] = feet.onRight
  pose.weight[1] = 1 - feet.onRight

  const lean = radians(c[at['body.lean']] as number)
  const aside = radians(c[at['body.tilt']] as number)
  const base = feet.height - (c[at['knees.bend']] as number)
  // The trunk turns about a point at the knees: how far everything above it goes.
  const sinLean = Math.sin(lean)
  const cosLean = Math.cos(lean)
  const sinAside = Math.sin(aside)
  const cosAside = Math.cos(aside)

  const { joints } = pose
  /** A point over the middle, to the dancer's right, up and forward, after the lean. */
  const place = (joint: number, right: number, up: number, forward: number): void => {
    const high = up - LEAN_FROM
    const f = forward * cosLean + high * sinLean
    const h = high * cosLean - forward * sinLean
    const r = right * cosAside - h * sinAside
    const u = h * cosAside + right * sinAside + LEAN_FROM
    joints[joint] = feet.over.right + r * cos + f * sin
    joints[joint + 1] = u
    joints[joint + 2] = feet.over.forward + f * cos - r * sin
  }
  const pelvis = placeOfJoint.pelvis
  place(
    pelvis,
    (hips[0] as number) + (c[at['pelvis.side']] as number),
    base + (hips[2] as number) + (c[at['pelvis.rise']] as number),
    (hips[1] as number) + (c[at['pelvis.forward']] as number),
  )
  orient(
    pose.pelvis,
    yaw - radians((hips[4] as number) + (c[at['pelvis.twist']] as number)),
    radians(c[at['pelvis.tuck']] as number) - lean,
    radians((hips[3] as number) + (c[at['pelvis.tilt']] as number)) + aside,
  )
  orient(
    pose.chest,
    yaw - radians((ribs[4] as number) + (c[at['ribs.twist']] as number)),
    radians(c[at['ribs.arch']] as number) - lean,
    radians((ribs[3] as number) + (c[at['ribs.tilt']] as number)) + aside,
  )
  const chest = placeOfJoint.chest
  place(
    chest,
    (ribs[0] as number) + (c[at['ribs.side']] as number),
    base +
      BODY.chestAbovePelvis -
      BODY.ribsTurnBelow +
      (ribs[2] as number) +
      (c[at['ribs.lift']] as number),
    (ribs[1] as number) + (c[at['ribs.forward']] as number),
  )
  put(joints, chest, joints, chest, pose.chest, 0, BODY.ribsTurnBelow, 0)

  const drop = legsReach(pose, feet, legs)
  joints[pelvis + 1] = (joints[pelvis + 1] as number) - drop
  joints[chest + 1] = (joints[chest + 1] as number) - drop
  for (const side of SIDES) leg(pose, feet, side, legs[side][0] as number)

  const neck = placeOfJoint.neck
  put(joints, neck, joints, chest, pose.chest, 0, BODY.shoulderAboveChest, 0)
  const waist = placeOfJoint.waist
  const out = c[at['waist.out']] as number
  for (let i = 0; i < 3; i++)
    joints[waist + i] =
      0.55 * (joints[pelvis + i] as number) +
      0.45 * (joints[chest + i] as number) +
      out * (pose.pelvis[6 + i] as number)
  holdHead(pose, c, head, yaw, lean, aside, drop, base, feet)
}

/** The head: over the middle as far as the neck lets it, looking where its layer says. */
function holdHead(
  pose: Pose,
  c: Float64Array,
  head: Float64Array,
  yaw: number,
  lean: number,
  aside: number,
  drop: number,
  base: number,
  feet: FeetNow,
): void {
  const { joints } = pose
  const neck = placeOfJoint.neck
  const slide = c[at['head.side']] as number
  const push = c[at['head.forward']] as number
  const sin = Math.sin(yaw)
  const cos = Math.cos(yaw)
  const up = base + BODY.chestAbovePelvis + BODY.headAboveChest - drop
  const follows =
    NECK_FOLLOWS + (1 - NECK_FOLLOWS) * Math.min(1, (Math.abs(lean) + Math.abs(aside)) * 4)
  const long = BODY.headAboveChest - BODY.shoulderAboveChest
  spot[0] = feet.over.right + slide * cos + push * sin
  spot[1] = up
  spot[2] = feet.over.forward - slide * sin + push * cos
  let far2 = 0
  for (let i = 0; i < 3; i++) {
    const towards = (spot[i] as number) - (joints[neck + i] as number)
    const straight =
      (pose.chest[3 + i] as number) * long +
      slide * (pose.chest[i] as number) +
      push * (pose.chest[6 + i] as number)
    const way = towards + (straight - towards) * follows
    spot[i] = way
    far2 += way * way
  }
  const by = long / (Math.sqrt(far2) || 1)
  const place = placeOfJoint.head
  for (let i = 0; i < 3; i++)
    joints[place + i] = (joints[neck + i] as number) + (spot[i] as number) * by
  orient(
    pose.head,
    yaw + radians((head[0] as number) + (c[at['head.turn']] as number)),
    -radians((head[1] as number) + (c[at['head.nod']] as number)) - lean * 0.6,
    // Towards the right shoulder: the head's own right goes down.
    aside * 0.6 - radians((head[2] as number) + (c[at['head.tilt']] as number)),
  )
}
