import { otherSide, SIDES, type Side, signOf } from '../body/side'
import { eased, radians } from './curve'
import { jointsOfSide, type Pose, placeOfJoint } from './joints'
import { BODY, LEG_REACH } from './proportions'
import type { Scratch } from './scratch'
import { bend, put, reachDown } from './solve'
import type { FeetNow } from './steps'

const TURNED_OUT = 9
/** How far a knee turns out in a crossing that is whole, in radians, and from how far past the other foot it is. */
const CROSSED_OUT = 0.6
const CROSSED_WHOLE = 0.08
/** Heels lift so far for a leg that is too short, then the pelvis comes down. */
const HEEL_GIVES = 38
const spot = new Float64Array(9)

type Legs = Scratch['legs']
type Spot = Omit<FeetNow['at']['R'], 'contact'>
/** Written anew for each leg, so that no frame makes anything new. */
const turned: Spot = { right: 0, forward: 0, up: 0, pitch: 0 }

/** How far the pelvis must come down so that both legs reach the floor with their heels up. */
export function legsReach(pose: Pose, feet: FeetNow, legs: Legs): number {
  let drop = 0
  for (const side of SIDES) {
    const hip = jointsOfSide[side].hip
    const aside = signOf(side) * BODY.hipAside
    put(pose.joints, hip, pose.joints, placeOfJoint.pelvis, pose.pelvis, aside, -BODY.hipBelow, 0)
    const turnedOut = legs[side][0] as number
    const foot = turnedFoot(feet, side, turnedOut)
    drop = Math.max(
      drop,
      reachDown(
        pose.joints,
        hip,
        foot,
        radians(feet.facing + signOf(side) * (TURNED_OUT + turnedOut)),
        Math.max(foot.pitch, HEEL_GIVES),
      ),
    )
  }
  return drop
}

/**
 * One leg: the foot as it stands, the heel up as far as it must be, the knee over the toes.
 * @param turnedOut degrees by which it is turned out at the hip, besides what is usual
 */
export function leg(pose: Pose, feet: FeetNow, side: Side, turnedOut: number): void {
  const { joints } = pose
  const sign = signOf(side)
  const foot = turnedFoot(feet, side, turnedOut)
  const hip = jointsOfSide[side].hip
  put(
    joints,
    hip,
    joints,
    placeOfJoint.pelvis,
    pose.pelvis,
    sign * BODY.hipAside,
    -BODY.hipBelow,
    0,
  )
  put(
    joints,
    jointsOfSide[side].crest,
    joints,
    placeOfJoint.pelvis,
    pose.pelvis,
    sign * BODY.crestAside,
    BODY.crestAbove,
    0,
  )
  const yaw = radians(feet.facing + sign * (TURNED_OUT + turnedOut))
  const fx = Math.sin(yaw)
  const fz = Math.cos(yaw)
  const pitch = heelFor(joints, hip, foot, fx, fz)
  footInto(joints, side, foot, fx, fz, pitch)
  // Crossed legs are turned out from the hip, so that they cross at the shins, where there is room.
  const out = yaw + sign * CROSSED_OUT * crossedBy(feet, side)
  spot[0] = Math.sin(out)
  spot[1] = 0
  spot[2] = Math.cos(out)
  const ankle = jointsOfSide[side].ankle
  pullUp(joints, hip, ankle)
  bend(joints, hip, ankle, jointsOfSide[side].knee, BODY.thigh, BODY.shin, spot)
}

/** A foot that turns with its leg does so on its ball: the point under the ankle goes round that. */
function turnedFoot(feet: FeetNow, side: Side, turnedOut: number): Spot {
  const foot = feet.at[side]
  if (turnedOut === 0) return foot
  const sign = signOf(side)
  const usual = radians(feet.facing + sign * TURNED_OUT)
  const yaw = radians(feet.facing + sign * (TURNED_OUT + turnedOut))
  turned.right = foot.right + BODY.ball * (Math.sin(usual) - Math.sin(yaw))
  turned.forward = foot.forward + BODY.ball * (Math.cos(usual) - Math.cos(yaw))
  turned.up = foot.up
  turned.pitch = foot.pitch
  return turned
}

/** How far the feet are crossed, 0 to 1: a foot past the other one, on that one's side. */
function crossedBy({ at, facing }: FeetNow, side: Side): number {
  const [own, other] = [at[side], at[otherSide[side]]]
  const angle = radians(facing)
  const aside =
    (own.right - other.right) * Math.cos(angle) - (own.forward - other.forward) * Math.sin(angle)
  return eased(Math.min(1, Math.max(0, (-signOf(side) * aside) / CROSSED_WHOLE)))
}

/** A foot that no leg reaches hangs from it: what can't be danced stretches no bone either. */
function pullUp(joints: Float64Array, hip: number, ankle: number): void {
  const dx = (joints[ankle] as number) - (joints[hip] as number)
  const dy = (joints[ankle + 1] as number) - (joints[hip + 1] as number)
  const dz = (joints[ankle + 2] as number) - (joints[hip + 2] as number)
  const far = Math.sqrt(dx * dx + dy * dy + dz * dz)
  if (far <= LEG_REACH + 1e-9) return
  const by = LEG_REACH / far - 1
  // Heel, ankle, ball and toe of a foot stand in a row, six numbers apart.
  for (let joint = ankle - 6; joint <= ankle + 12; joint += 6) {
    joints[joint] = (joints[joint] as number) + dx * by
    joints[joint + 1] = (joints[joint + 1] as number) + dy * by
    joints[joint + 2] = (joints[joint + 2] as number) + dz * by
  }
}

/** Angle and length from the ball back to the ankle. */
const BALL_TO_ANKLE = Math.hypot(BODY.ball, BODY.ankle)
const STANDS = Math.atan2(BODY.ankle, BODY.ball)

/** The pitch of the foot in degrees: its own, or as much more heel as the leg needs. */
function heelFor(
  joints: Float64Array,
  hip: number,
  foot: { right: number; forward: number; up: number; pitch: number },
  fx: number,
  fz: number,
): number {
  const dx = (joints[hip] as number) - foot.right - BODY.ball * fx
  const dz = (joints[hip + 2] as number) - foot.forward - BODY.ball * fz
  const high = (joints[hip + 1] as number) - foot.up
  const along = dx * fx + dz * fz
  const across = dx * fz - dz * fx
  const far2 = along * along + high * high
  const reach2 = LEG_REACH * LEG_REACH - across * across
  const least = radians(Math.max(foot.pitch, 0))
  const cos =
    (BALL_TO_ANKLE * BALL_TO_ANKLE + far2 - reach2) / (2 * BALL_TO_ANKLE * Math.sqrt(far2))
  const angle = Math.atan2(high, -along) - Math.acos(cos > 1 ? 1 : Math.max(cos, -1)) - STANDS
  if (angle <= least) return foot.pitch
  // A heel that touches comes off its edge before it lifts.
  const most = Math.max(foot.pitch, HEEL_GIVES)
  return Math.min(most, (angle * 180) / Math.PI)
}

/** So high over the floor the toes hang from the foot, in metres. */
const TOES_LEAVE = 0.05

/** Heel, ankle, ball and toe of a foot that stands, is up on its ball, or on its heel. */
function footInto(
  joints: Float64Array,
  side: Side,
  foot: { right: number; forward: number; up: number },
  fx: number,
  fz: number,
  pitch: number,
): void {
  const angle = radians(pitch)
  const sin = Math.sin(angle)
  const cos = Math.cos(angle)
  // About the ball with the heel up, about the end of the heel with the toes up.
  const pivot = pitch >= 0 ? BODY.ball : -BODY.heel
  const write = (joint: number, ahead: number, up: number) => {
    const a = ahead - pivot
    const f = pivot + a * cos + up * sin
    joints[joint] = foot.right + f * fx
    joints[joint + 1] = foot.up + up * cos - a * sin
    joints[joint + 2] = foot.forward + f * fz
  }
  write(jointsOfSide[side].ankle, 0, BODY.ankle)
  write(jointsOfSide[side].heel, -BODY.heel, 0.01)
  write(jointsOfSide[side].ball, BODY.ball, 0.01)
  const toe = jointsOfSide[side].toe
  write(toe, BODY.toe, 0.01)
  // The toes stay on the floor when the heel lifts, and hang when the foot is in the air.
  const lies = pitch > 0 ? 1 - Math.min(1, foot.up / TOES_LEAVE) : 0
  if (lies === 0) return
  joints[toe] = (joints[toe] as number) * (1 - lies) + lies * (foot.right + BODY.toe * fx)
  joints[toe + 1] = (joints[toe + 1] as number) * (1 - lies) + lies * (foot.up + 0.01)
  joints[toe + 2] = (joints[toe + 2] as number) * (1 - lies) + lies * (foot.forward + BODY.toe * fz)
}
