import { radians } from './curve'
import { BODY, LEG_REACH } from './proportions'

/**
 * The directions of a part of the body, written as nine numbers: its right, its up, its forward.
 * @param yaw clockwise from above. @param pitch its front goes up. @param roll its right goes up.
 */
export function orient(out: Float64Array, yaw: number, pitch: number, roll: number): void {
  const sy = Math.sin(yaw)
  const cy = Math.cos(yaw)
  const sp = Math.sin(pitch)
  const cp = Math.cos(pitch)
  const sr = Math.sin(roll)
  const cr = Math.cos(roll)
  // Level: right is (cy, 0, -sy), forward is (sy, 0, cy); pitched, up leans back from forward.
  const ux = -sp * sy
  const uy = cp
  const uz = -sp * cy
  out[0] = cr * cy + sr * ux
  out[1] = sr * uy
  out[2] = -cr * sy + sr * uz
  out[3] = cr * ux - sr * cy
  out[4] = cr * uy
  out[5] = cr * uz + sr * sy
  out[6] = cp * sy
  out[7] = sp
  out[8] = cp * cy
}

/** Writes a point that is given in the frame of a part: right, up and forward of its middle. */
export function put(
  out: Float64Array,
  o: number,
  from: Float64Array,
  f: number,
  frame: Float64Array,
  right: number,
  up: number,
  forward: number,
): void {
  for (let i = 0; i < 3; i++)
    out[o + i] =
      (from[f + i] as number) +
      right * (frame[i] as number) +
      up * (frame[3 + i] as number) +
      forward * (frame[6 + i] as number)
}

/**
 * The middle joint of a limb of two bones between two points, bent towards a direction. The
 * ends must be no farther apart than both bones.
 */
export function bend(
  joints: Float64Array,
  from: number,
  to: number,
  middle: number,
  upper: number,
  lower: number,
  towards: Float64Array,
): void {
  const ax = (joints[to] as number) - (joints[from] as number)
  const ay = (joints[to + 1] as number) - (joints[from + 1] as number)
  const az = (joints[to + 2] as number) - (joints[from + 2] as number)
  const far2 = ax * ax + ay * ay + az * az
  const along = (upper * upper - lower * lower + far2) / (2 * far2)
  const out2 = upper * upper - along * along * far2
  const out = out2 > 0 ? Math.sqrt(out2) : 0
  let tx = towards[0] as number
  let ty = towards[1] as number
  let tz = towards[2] as number
  const dot = (tx * ax + ty * ay + tz * az) / far2
  tx -= dot * ax
  ty -= dot * ay
  tz -= dot * az
  const long = Math.sqrt(tx * tx + ty * ty + tz * tz) || 1e-9
  const by = out / long
  joints[middle] = (joints[from] as number) + ax * along + tx * by
  joints[middle + 1] = (joints[from + 1] as number) + ay * along + ty * by
  joints[middle + 2] = (joints[from + 2] as number) + az * along + tz * by
}

/**
 * How far a hip must come down so that its leg reaches a foot whose heel is up as far as it
 * goes; 0 where it reaches already.
 */
export function reachDown(
  joints: Float64Array,
  hip: number,
  foot: { right: number; forward: number; up: number },
  yaw: number,
  pitch: number,
): number {
  const angle = radians(pitch)
  const ahead = BODY.ball - BODY.ball * Math.cos(angle) + BODY.ankle * Math.sin(angle)
  const up = foot.up + BODY.ball * Math.sin(angle) + BODY.ankle * Math.cos(angle)
  const dx = (joints[hip] as number) - foot.right - ahead * Math.sin(yaw)
  const dz = (joints[hip + 2] as number) - foot.forward - ahead * Math.cos(yaw)
  const flat2 = Math.min(dx * dx + dz * dz, 0.9 * LEG_REACH * LEG_REACH)
  const highest = up + Math.sqrt(LEG_REACH * LEG_REACH - flat2)
  return Math.max(0, (joints[hip + 1] as number) - highest)
}
