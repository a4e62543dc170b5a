import { SIDES, type Side } from '../body/side'
import { type Joint, jointsOfSide, type Pose, placeOfJoint } from '../pose/joints'
import { BONE_COUNT, type LimbBone, MIDDLE_BONE, SIDE_BONES } from './bones'
import { clamp, mix, smooth, type Vec } from './field'
import { HAND_SHAPES } from './hands'
import {
  ANKLE,
  ARM_ACROSS,
  ARM_WAY,
  ELBOW,
  FINGER_BEND,
  FINGERS,
  FOREARM,
  fromHand,
  KNEE,
  LEG_WAY,
  REST,
  SPINE_UP,
  WRIST,
  wayOfHand,
} from './rest'
import {
  about,
  across,
  along,
  angleAbout,
  back,
  dotOf,
  midway,
  NO_TURN,
  newQuat,
  newV3,
  ofAxes,
  type Quat,
  shortest,
  times,
  toUnit,
  turned,
  type V3,
} from './turns'

/** The numbers of a bone: three rows of four, each right, up, back and the way there. */
export const BONE_SIZE = 12

/** What a body does at a moment: for each bone where it takes its points from rest. */
export interface Rig {
  /** `BONE_SIZE` numbers a bone, in metres of a dancer of 1.65 m. */
  readonly rows: Float32Array
  /** How far the fingers trail behind the hand, in radians. */
  readonly trailing: Record<Side, number>
}

export const newRig = (): Rig => ({
  rows: new Float32Array(BONE_SIZE * BONE_COUNT),
  trailing: { R: 0, L: 0 },
})

const onSide = ([x, y, z]: Vec, side: Side): Vec => [side === 'R' ? x : -x, y, z]

/** A limb at rest: its own axes, as a turn away from the room's. */
interface Limb {
  readonly way: Vec
  readonly across: V3
  readonly toRest: Quat
}

function limbOf(way: Vec, z: Vec, side: Side): Limb {
  const own = onSide(way, side)
  const x = across(newV3(), own, z)
  return { way: own, across: x, toRest: back(newQuat(), ofAxes(newQuat(), x, own, z)) }
}

interface RestFinger {
  readonly base: Vec
  readonly middle: Vec
  /** About which it bends. */
  readonly hinge: V3
  readonly palm: Vec
  readonly fan: number
  readonly bones: readonly [number, number]
  readonly name: (typeof FINGERS)[number]['name']
}

function sideAtRest(side: Side) {
  const bones = SIDE_BONES[side]
  const at = (from: Vec, way: Vec, by: number): Vec =>
    onSide([from[0] + way[0] * by, from[1] + way[1] * by, from[2] + way[2] * by], side)
  const palm = onSide(ARM_ACROSS, side)
  return {
    sign: side === 'R' ? 1 : -1,
    bones,
    arm: limbOf(ARM_WAY, [0, 0, 1], side),
    leg: limbOf(LEG_WAY, [0, 0, -1], side),
    shoulder: onSide(REST.shoulder, side),
    elbow: at(REST.shoulder, ARM_WAY, ELBOW),
    wrist: onSide(WRIST, side),
    hip: onSide(REST.hip, side),
    knee: at(REST.hip, LEG_WAY, KNEE),
    ankle: onSide(ANKLE, side),
    ball: onSide([ANKLE[0], -0.01, -0.125], side),
    fingers: FINGERS.map(({ name, base, way, long, fan }): RestFinger => {
      const root = onSide(fromHand(base), side)
      const own = onSide(wayOfHand(way), side)
      const closes = name === 'thumb' ? onSide(wayOfHand([0.75, 0, -0.66]), side) : palm
      return {
        name,
        base: root,
        middle: [0, 1, 2].map(
          (i) => (root[i] as number) + (own[i] as number) * long * FINGER_BEND,
        ) as unknown as Vec,
        hinge: toUnit(across(newV3(), own, closes)),
        palm,
        fan,
        bones: [bones[`${name}1`], bones[`${name}2`]],
      }
    }),
  }
}
const SIDE_REST = { R: sideAtRest('R'), L: sideAtRest('L') } as const

/** A joint as the rig has it: forward of the room is away from who looks from behind. */
function jointInto(out: V3, { joints }: Pose, at: number, scale: number): V3 {
  out[0] = (joints[at] as number) / scale
  out[1] = (joints[at + 1] as number) / scale
  out[2] = -(joints[at + 2] as number) / scale
  return out
}
function frameInto(out: Quat, f: Float64Array): Quat {
  right[0] = f[0] as number
  right[1] = f[1] as number
  right[2] = -(f[2] as number)
  up[0] = f[3] as number
  up[1] = f[4] as number
  up[2] = -(f[5] as number)
  hind[0] = -(f[6] as number)
  hind[1] = -(f[7] as number)
  hind[2] = f[8] as number
  return ofAxes(out, right, up, hind)
}

/**
 * Sets a bone: turned, longer by `stretch` along `axis`, with the point `from` of rest at `to`.
 */
function setBone(
  { rows }: Rig,
  bone: number,
  q: Quat,
  from: ArrayLike<number>,
  to: ArrayLike<number>,
  stretch = 1,
  axis: V3 = newAxis,
): void {
  const [x, y, z, w] = [q[0] as number, q[1] as number, q[2] as number, q[3] as number]
  const o = BONE_SIZE * bone
  rows[o] = 1 - 2 * (y * y + z * z)
  rows[o + 1] = 2 * (x * y - z * w)
  rows[o + 2] = 2 * (x * z + y * w)
  rows[o + 4] = 2 * (x * y + z * w)
  rows[o + 5] = 1 - 2 * (x * x + z * z)
  rows[o + 6] = 2 * (y * z - x * w)
  rows[o + 8] = 2 * (x * z - y * w)
  rows[o + 9] = 2 * (y * z + x * w)
  rows[o + 10] = 1 - 2 * (x * x + y * y)
  if (Math.abs(stretch - 1) > 1e-4)
    for (let column = 0; column < 3; column++) {
      let more = 0
      for (let i = 0; i < 3; i++)
        more += (rows[o + 4 * i + column] as number) * (axis[i] as number) * (stretch - 1)
      for (let i = 0; i < 3; i++)
        rows[o + 4 * i + column] = (rows[o + 4 * i + column] as number) + (axis[i] as number) * more
    }
  for (let i = 0; i < 3; i++) {
    const k = o + 4 * i
    rows[k + 3] =
      (to[i] as number) -
      (rows[k] as number) * (from[0] as number) -
      (rows[k + 1] as number) * (from[1] as number) -
      (rows[k + 2] as number) * (from[2] as number)
  }
}
const newAxis = newV3()

/** Where a bone takes a point of rest. */
export function carryPoint(out: V3, rows: Float32Array, bone: number, p: ArrayLike<number>): V3 {
  const o = BONE_SIZE * bone
  for (let i = 0; i < 3; i++) {
    const k = o + 4 * i
    out[i] =
      (rows[k] as number) * (p[0] as number) +
      (rows[k + 1] as number) * (p[1] as number) +
      (rows[k + 2] as number) * (p[2] as number) +
      (rows[k + 3] as number)
  }
  return out
}

// What is worked with, made once.
const [right, up, hind] = [newV3(), newV3(), newV3()]
const [pelvisAt, chestAt, neckAt, headAt, waistAt] = [newV3(), newV3(), newV3(), newV3(), newV3()]
const [pelvisUp, chestUp, low, high, bow, curve, tangent] = [
  newV3(),
  newV3(),
  newV3(),
  newV3(),
  newV3(),
  newV3(),
  newV3(),
]
const [pelvisTurn, chestTurn, headTurn] = [newQuat(), newQuat(), newQuat()]
const [q1, q2, q3, swing, upperTurn, lowerTurn, swung, handTurn, footTurn] = [
  newQuat(),
  newQuat(),
  newQuat(),
  newQuat(),
  newQuat(),
  newQuat(),
  newQuat(),
  newQuat(),
  newQuat(),
]
const [a, b, c, upperWay, lowerWay, hinge, t1, t2, t3, hx, hy, hz] = [
  newV3(),
  newV3(),
  newV3(),
  newV3(),
  newV3(),
  newV3(),
  newV3(),
  newV3(),
  newV3(),
  newV3(),
  newV3(),
  newV3(),
]
const RIGHT: Vec = [1, 0, 0]
const UP: Vec = [0, 1, 0]
const restAt = newV3()

/**
 * Lays the bones as a pose has them.
 * @param scale the dancer's height against 1.65 m; what is written is of 1.65 m.
 */
export function layBones(rig: Rig, pose: Pose, scale = 1): void {
  const place = (out: V3, joint: Joint) => jointInto(out, pose, placeOfJoint[joint], scale)
  place(pelvisAt, 'pelvis')
  place(chestAt, 'chest')
  place(neckAt, 'neck')
  place(headAt, 'head')
  place(waistAt, 'waist')
  frameInto(pelvisTurn, pose.pelvis)
  frameInto(chestTurn, pose.chest)
  frameInto(headTurn, pose.head)
  setBone(rig, MIDDLE_BONE.pelvis, pelvisTurn, REST.pelvis, pelvisAt)
  setBone(rig, MIDDLE_BONE.chest, chestTurn, REST.chest, chestAt)
  turned(pelvisUp, pelvisTurn, UP)
  turned(chestUp, chestTurn, UP)
  laySpine(rig)
  for (const [bone, rest, share] of NECK) {
    midway(q1, chestTurn, headTurn, share)
    // Between where the neck begins and the middle of the head.
    const up = (rest[1] - NECK_UP) / (REST.head[1] - NECK_UP)
    for (let i = 0; i < 3; i++)
      curve[i] = (neckAt[i] as number) * (1 - up) + (headAt[i] as number) * up
    setBone(rig, bone, q1, rest, curve)
  }
  setBone(rig, MIDDLE_BONE.head, headTurn, REST.head, headAt)
  for (const side of SIDES) {
    layArm(rig, pose, side, scale)
    layLeg(rig, pose, side, scale)
  }
}

/** How high the neck begins at rest. */
const NECK_UP = 1.4
const NECK = [
  [MIDDLE_BONE.neck1, REST.neck1, 1 / 3],
  [MIDDLE_BONE.neck2, REST.neck2, 2 / 3],
] as const

const SPINE = [MIDDLE_BONE.spine1, MIDDLE_BONE.spine2, MIDDLE_BONE.spine3]

/** The waist is a curve that leaves the pelvis upwards and comes into the ribs upwards. */
function laySpine(rig: Rig): void {
  along(low, pelvisAt, pelvisUp, 0.065)
  along(high, chestAt, chestUp, -0.115)
  along(t1, high, low, -1)
  const long = Math.sqrt(dotOf(t1, t1))
  along(bow, waistAt, pelvisAt, -0.55)
  along(bow, bow, chestAt, -0.45)
  const [from, to] = [SPINE_UP[0], SPINE_UP[4]]
  for (const [k, bone] of SPINE.entries()) {
    const rest = SPINE_UP[k + 1] as number
    const t = (rest - from) / (to - from)
    const [tt, ttt] = [t * t, t * t * t]
    const bump = Math.sin(Math.PI * t)
    const h0 = 2 * ttt - 3 * tt + 1
    const h1 = ttt - 2 * tt + t
    const h2 = 1 - h0
    const h3 = ttt - tt
    const d0 = 6 * tt - 6 * t
    const d1 = 3 * tt - 4 * t + 1
    const d3 = 3 * tt - 2 * t
    for (let i = 0; i < 3; i++) {
      const [p, q] = [low[i] as number, high[i] as number]
      const [pu, cu] = [(pelvisUp[i] as number) * long, (chestUp[i] as number) * long]
      curve[i] = h0 * p + h1 * pu + h2 * q + h3 * cu + bump * (bow[i] as number)
      tangent[i] = d0 * p + d1 * pu - d0 * q + d3 * cu
    }
    toUnit(tangent)
    midway(q1, pelvisTurn, chestTurn, t * t * (3 - 2 * t))
    turned(t2, q1, UP)
    shortest(q2, t2, tangent)
    midway(q3, NO_TURN, q2, 0.6)
    times(q2, q3, q1)
    restAt[1] = rest
    setBone(rig, bone, q2, restAt, curve)
  }
}

/**
 * The turns of the two bones of a limb from `a` over `b` to `c`: how far the first swings from
 * rest in its root, and what both have then. Returns by how much the first is twisted.
 */
function twoBones(root: Quat, limb: Limb): number {
  toUnit(along(upperWay, b, a, -1))
  toUnit(along(lowerWay, c, b, -1))
  along(t1, c, a, -1)
  along(t2, b, a, -1)
  along(t2, t2, t1, -dotOf(t2, t1) / (dotOf(t1, t1) || 1))
  toUnit(across(hinge, upperWay, t2))
  back(q1, root)
  turned(t2, q1, upperWay)
  shortest(swing, limb.way, t2)
  times(swung, root, swing)
  turned(t1, swung, limb.across)
  const twist = angleAbout(t1, hinge, upperWay)
  across(t3, hinge, upperWay)
  times(upperTurn, ofAxes(q1, hinge, upperWay, t3), limb.toRest)
  across(t3, hinge, lowerWay)
  times(lowerTurn, ofAxes(q1, hinge, lowerWay, t3), limb.toRest)
  return twist
}

/** Part of the way a limb swings in its root. */
function setSwung(rig: Rig, bone: number, root: Quat, share: number, rest: Vec): void {
  midway(q1, NO_TURN, swing, share)
  times(q2, root, q1)
  setBone(rig, bone, q2, rest, a)
}

/** Swung, and twisted about itself. */
function setTwisted(rig: Rig, bone: number, twist: number, rest: Vec, stretch = 1): void {
  about(q1, upperWay, twist)
  times(q2, q1, swung)
  setBone(rig, bone, q2, rest, a, stretch, upperWay)
}

/** The lower bone, rolled about itself. */
function setRolled(rig: Rig, bone: number, roll: number, rest: Vec): void {
  about(q1, lowerWay, roll)
  times(q2, q1, lowerTurn)
  setBone(rig, bone, q2, rest, b)
}

/** The bones in a joint are between its two, and wider where they bend: it keeps its thickness. */
function setBent(rig: Rig, bone: number, share: number, rest: Vec): void {
  midway(q1, upperTurn, lowerTurn, share)
  const half = Math.sqrt(Math.max(0.02, (1 + dotOf(upperWay, lowerWay)) / 2))
  along(t1, upperWay, lowerWay, -1)
  const isBent = dotOf(t1, t1) > 0.0025
  setBone(rig, bone, q1, rest, b, isBent ? 2 / (1 + half) : 1, toUnit(t1))
}

const TWISTS = [0.12, 0.5, 0.9] as const
const UPPER: readonly LimbBone[] = ['upper1', 'upper2', 'upper3']
const ROLLS = [0.08, 0.4, 0.85] as const
const FORE: readonly LimbBone[] = ['fore1', 'fore2', 'fore3']

function layArm(rig: Rig, pose: Pose, side: Side, scale: number): void {
  const own = SIDE_REST[side]
  const at = jointsOfSide[side]
  jointInto(a, pose, at.shoulder, scale)
  jointInto(b, pose, at.elbow, scale)
  jointInto(c, pose, at.wrist, scale)
  // The shoulder comes down with a low arm, and goes up and in with a high one.
  toUnit(along(t1, b, a, -1))
  const lifted = smooth(-0.3, 0.95, dotOf(t1, chestUp))
  turned(t2, chestTurn, RIGHT)
  along(a, a, chestUp, -0.017 + 0.04 * lifted)
  along(a, a, t2, -own.sign * (0.005 + 0.018 * lifted))
  const twist = twoBones(chestTurn, own.arm)
  along(t1, b, a, -1)
  const stretch = Math.sqrt(dotOf(t1, t1)) / ELBOW
  // The collar goes half the way the shoulder goes.
  t3.set(a)
  carryPoint(a, rig.rows, MIDDLE_BONE.chest, own.shoulder)
  for (let i = 0; i < 3; i++) a[i] = ((a[i] as number) + (t3[i] as number)) / 2
  setSwung(rig, own.bones.collar1, chestTurn, 1 / 3, own.shoulder)
  a.set(t3)
  setSwung(rig, own.bones.collar2, chestTurn, 2 / 3, own.shoulder)
  for (const [i, bone] of UPPER.entries())
    setTwisted(rig, own.bones[bone], twist * (TWISTS[i] as number), own.shoulder, stretch)
  setBent(rig, own.bones.elbow1, 0.34, own.elbow)
  setBent(rig, own.bones.elbow2, 0.66, own.elbow)
  // The hand: along to the fingers, flat where the palm looks.
  jointInto(hy, pose, at.fingers, scale)
  toUnit(along(hy, hy, c, -1))
  const o = side === 'R' ? 0 : 3
  hx[0] = (pose.palms[o] as number) * own.sign
  hx[1] = (pose.palms[o + 1] as number) * own.sign
  hx[2] = -(pose.palms[o + 2] as number) * own.sign
  along(hx, hx, hy, -dotOf(hx, hy))
  if (dotOf(hx, hx) < 1e-8) along(hx, hinge, hy, -dotOf(hinge, hy))
  toUnit(hx)
  across(hz, hx, hy)
  times(handTurn, ofAxes(q1, hx, hy, hz), own.arm.toRest)
  along(t1, hx, lowerWay, -dotOf(hx, lowerWay))
  toUnit(t1)
  let roll = angleAbout(hinge, t1, lowerWay)
  // Turned the way a forearm turns.
  if (roll * own.sign > 2.6) roll -= own.sign * 2 * Math.PI
  for (const [i, bone] of FORE.entries())
    setRolled(rig, own.bones[bone], roll * (ROLLS[i] as number), own.elbow)
  about(q1, lowerWay, roll)
  times(q2, q1, lowerTurn)
  midway(q3, q2, handTurn, 0.5)
  setBone(rig, own.bones.wrist, q3, own.wrist, c)
  setBone(rig, own.bones.hand, handTurn, own.wrist, c)
  layFingers(rig, side)
}

/** From how much of its length an arm is reached out, and how far up in metres it is no hanging arm. */
const REACHED = [0.86, 0.97] as const
const LIFTED = [-0.32, -0.12] as const
/** Metres of the wrist from the middle of the head. */
const NEAR_HEAD = [0.36, 0.24] as const

function layFingers(rig: Rig, side: Side): void {
  const own = SIDE_REST[side]
  // A hand that hangs is soft, one that is reached out is long, one at the head is a flower.
  along(t1, c, a, -1)
  const reached = smooth(...REACHED, Math.sqrt(dotOf(t1, t1)) / (ELBOW + FOREARM))
  const lifted = smooth(...LIFTED, dotOf(t1, chestUp))
  along(t2, c, headAt, -1)
  const nearHead = smooth(...NEAR_HEAD, Math.sqrt(dotOf(t2, t2)))
  const shaped = (soft: number, long: number, flower: number) =>
    mix(mix(soft, long, reached * lifted), flower, nearHead)
  const { soft, long, flower } = HAND_SHAPES
  const spread = shaped(soft.spread, long.spread, flower.spread)
  const trails = rig.trailing[side]
  for (const [i, finger] of own.fingers.entries()) {
    const isThumb = finger.name === 'thumb'
    const bend = (joint: 0 | 1) =>
      shaped(
        soft.fingers[finger.name][joint],
        long.fingers[finger.name][joint],
        flower.fingers[finger.name][joint],
      )
    const [near, far] = [bend(0), bend(1)]
    const first = clamp(near + (isThumb ? 0.3 : 0.8 + 0.12 * i) * trails, -0.45, 1.5)
    const second = clamp(far + (isThumb ? 0.2 : 0.7) * trails, -0.08, 1.6)
    about(q1, finger.palm, own.sign * finger.fan * spread)
    about(q2, finger.hinge, first)
    times(q3, q1, q2)
    times(q2, handTurn, q3)
    carryPoint(curve, rig.rows, own.bones.hand, finger.base)
    setBone(rig, finger.bones[0], q2, finger.base, curve)
    about(q1, finger.hinge, second)
    times(q3, q2, q1)
    carryPoint(curve, rig.rows, finger.bones[0], finger.middle)
    setBone(rig, finger.bones[1], q3, finger.middle, curve)
  }
}

const THIGH: readonly LimbBone[] = ['thigh1', 'thigh2', 'thigh3']
const THIGH_TWISTS = [0.15, 0.5, 0.9] as const

function layLeg(rig: Rig, pose: Pose, side: Side, scale: number): void {
  const own = SIDE_REST[side]
  const at = jointsOfSide[side]
  jointInto(a, pose, at.hip, scale)
  jointInto(b, pose, at.knee, scale)
  jointInto(c, pose, at.ankle, scale)
  const twist = twoBones(pelvisTurn, own.leg)
  setSwung(rig, own.bones.groin1, pelvisTurn, 0.25, own.hip)
  setSwung(rig, own.bones.groin2, pelvisTurn, 0.5, own.hip)
  setSwung(rig, own.bones.groin3, pelvisTurn, 0.76, own.hip)
  for (const [i, bone] of THIGH.entries())
    setTwisted(rig, own.bones[bone], twist * (THIGH_TWISTS[i] as number), own.hip)
  setBent(rig, own.bones.knee1, 0.34, own.knee)
  setBent(rig, own.bones.knee2, 0.66, own.knee)
  setBone(rig, own.bones.shin1, lowerTurn, own.knee, b)
  // The foot stands level across, whatever the shin does.
  jointInto(hz, pose, at.heel, scale)
  jointInto(hy, pose, at.ball, scale)
  jointInto(t3, pose, at.toe, scale)
  along(t3, t3, hy, -1)
  along(hz, hz, hy, -1)
  toUnit(hz)
  hx[0] = hz[2] as number
  hx[1] = 0
  hx[2] = -(hz[0] as number)
  toUnit(hx)
  across(hy, hz, hx)
  ofAxes(footTurn, hx, hy, hz)
  along(t1, hx, lowerWay, -dotOf(hx, lowerWay))
  toUnit(t1)
  const roll = clamp(angleAbout(hinge, t1, lowerWay), -1.2, 1.2)
  setRolled(rig, own.bones.shin2, roll * 0.5, own.knee)
  about(q1, lowerWay, roll)
  times(q2, q1, lowerTurn)
  midway(q3, q2, footTurn, 0.5)
  setBone(rig, own.bones.ankle, q3, own.ankle, c)
  setBone(rig, own.bones.foot, footTurn, own.ankle, c)
  // The toes bend where the ball is.
  for (let i = 0; i < 3; i++) hz[i] = -(t3[i] as number)
  toUnit(hz)
  toUnit(across(hy, hz, hx))
  across(hz, hx, hy)
  ofAxes(q1, hx, hy, hz)
  carryPoint(curve, rig.rows, own.bones.foot, own.ball)
  setBone(rig, own.bones.toes, q1, own.ball, curve)
}
