import type { Side } from '../body/side'
import type { Pose } from '../pose/joints'
import { BONE_COUNT } from './bones'
import { newV3, ofAxes, type Quat, type V3 } from './turns'

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

/** A joint as the rig has it: forward of the room is away from who looks from behind. */
export function jointInto(out: V3, { joints }: Pose, at: number, scale: number): V3 {
  out[0] = (joints[at] as number) / scale
  out[1] = (joints[at + 1] as number) / scale
  out[2] = -(joints[at + 2] as number) / scale
  return out
}
/** The turn of a part of the body that a pose gives as its right, its up and its forward. */
export function frameInto(out: Quat, f: Float64Array): Quat {
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

const right = newV3()
const up = newV3()
const hind = newV3()

/**
 * Sets a bone: turned, longer by `stretch` along `axis`, with the point `from` of rest at `to`.
 */
export function setBone(
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
