import { SIDES } from '../body/side'
import { type Joint, type Pose, placeOfJoint } from '../pose/joints'
import { MIDDLE_BONE } from './bones'
import type { Vec } from './field'
import { layArm, layLeg } from './layLimbs'
import { REST, SPINE_UP } from './rest'
import { frameInto, jointInto, type Rig, setBone } from './rig'
import {
  along,
  dotOf,
  midway,
  NO_TURN,
  newQuat,
  newV3,
  shortest,
  times,
  toUnit,
  turned,
  type V3,
} from './turns'

// What is worked with, made once.
const pelvisAt = newV3()
const chestAt = newV3()
const neckAt = newV3()
const headAt = newV3()
const waistAt = newV3()
const pelvisUp = newV3()
const low = newV3()
const high = newV3()
const bow = newV3()
const curve = newV3()
const tangent = newV3()
const t1 = newV3()
const t2 = newV3()
const restAt = newV3()
const pelvisTurn = newQuat()
const headTurn = newQuat()
const q1 = newQuat()
const q2 = newQuat()
const q3 = newQuat()
/** What the limbs hang on. */
const middle = { pelvisTurn, chestTurn: newQuat(), chestUp: newV3(), headAt }
const { chestTurn, chestUp } = middle
const UP: Vec = [0, 1, 0]

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
    layArm(rig, pose, side, scale, middle)
    layLeg(rig, pose, side, scale, middle)
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
