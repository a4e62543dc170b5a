import type { Side } from '../body/side'
import { jointsOfSide, type Pose, TOLD_SHAPES } from '../pose/joints'
import { type LimbBone, MIDDLE_BONE, SIDE_BONES } from './bones'
import { clamp, mix, plus, smooth, type Vec } from './field'
import { type HandBend, OWN_SHAPES, TOLD_BENDS } from './hands'
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
  WRIST,
  wayOfHand,
} from './rest'
import { carryPoint, jointInto, type Rig, setBone } from './rig'
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

/** What the limbs hang on, as it lies now. */
interface Middle {
  readonly pelvisTurn: Quat
  readonly chestTurn: Quat
  readonly chestUp: V3
  readonly headAt: V3
}

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
  const at = (from: Vec, way: Vec, by: number): Vec => onSide(plus(from, way, by), side)
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
        middle: plus(root, own, long * FINGER_BEND),
        hinge: toUnit(across(newV3(), own, closes)),
        palm,
        fan,
        bones: [bones[`${name}1`], bones[`${name}2`]],
      }
    }),
  }
}
const SIDE_REST = { R: sideAtRest('R'), L: sideAtRest('L') } as const

// What is worked with, made once: the three joints of a limb, its ways, and what it turns by.
const a = newV3()
const b = newV3()
const c = newV3()
const upperWay = newV3()
const lowerWay = newV3()
const hinge = newV3()
const curve = newV3()
const t1 = newV3()
const t2 = newV3()
const t3 = newV3()
const hx = newV3()
const hy = newV3()
const hz = newV3()
const q1 = newQuat()
const q2 = newQuat()
const q3 = newQuat()
const swing = newQuat()
const swung = newQuat()
const upperTurn = newQuat()
const lowerTurn = newQuat()
const handTurn = newQuat()
const footTurn = newQuat()
const RIGHT: Vec = [1, 0, 0]

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

/** Lays an arm with its hand. */
export function layArm(rig: Rig, pose: Pose, side: Side, scale: number, middle: Middle): void {
  const { chestTurn, chestUp } = middle
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
  layFingers(rig, pose, side, middle)
}

/** From how much of its length an arm is reached out, and how far up in metres it is no hanging arm. */
const REACHED = [0.86, 0.97] as const
const LIFTED = [-0.32, -0.12] as const
/** Metres of the wrist from the middle of the head. */
const NEAR_HEAD = [0.36, 0.24] as const

function layFingers(rig: Rig, pose: Pose, side: Side, { chestUp, headAt }: Middle): void {
  const own = SIDE_REST[side]
  // A hand that hangs is soft, one that is reached out is long, one at the head is a flower.
  along(t1, c, a, -1)
  const reached = smooth(...REACHED, Math.sqrt(dotOf(t1, t1)) / (ELBOW + FOREARM))
  const lifted = smooth(...LIFTED, dotOf(t1, chestUp))
  along(t2, c, headAt, -1)
  const nearHead = smooth(...NEAR_HEAD, Math.sqrt(dotOf(t2, t2)))
  const shaped = (soft: number, long: number, flower: number) =>
    mix(mix(soft, long, reached * lifted), flower, nearHead)
  const { soft, long, flower } = OWN_SHAPES
  // What it is told goes before what it would do by itself.
  const from = side === 'R' ? 0 : TOLD_SHAPES.length
  let byItself = 1
  for (let k = 0; k < TOLD_SHAPES.length; k++) byItself -= pose.hands[from + k] as number
  const told = (by: number, of: (bend: HandBend) => number) => {
    let sum = by * byItself
    for (const [k, shape] of TOLD_SHAPES.entries()) {
      const share = pose.hands[from + k] as number
      if (share !== 0) sum += share * of(TOLD_BENDS[shape])
    }
    return sum
  }
  const spread = told(shaped(soft.spread, long.spread, flower.spread), (bend) => bend.spread)
  const trails = rig.trailing[side]
  for (const [i, finger] of own.fingers.entries()) {
    const isThumb = finger.name === 'thumb'
    const bend = (joint: 0 | 1) =>
      told(
        shaped(
          soft.fingers[finger.name][joint],
          long.fingers[finger.name][joint],
          flower.fingers[finger.name][joint],
        ),
        ({ fingers }) => fingers[finger.name][joint],
      )
    const [near, far] = [bend(0), bend(1)]
    const first = clamp(near + (isThumb ? 0.3 : 0.8 + 0.12 * i) * trails * byItself, -0.45, 1.5)
    const second = clamp(far + (isThumb ? 0.2 : 0.7) * trails * byItself, -0.08, 1.6)
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

/** Lays a leg with its foot. */
export function layLeg(
  rig: Rig,
  pose: Pose,
  side: Side,
  scale: number,
  { pelvisTurn }: Middle,
): void {
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
