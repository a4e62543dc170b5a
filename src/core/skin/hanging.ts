import { SIDES } from '../body/side'
import { jointsOfSide, type Pose } from '../pose/joints'
import type { Carried } from './bones'
import { clamp, mix } from './field'
import { BONE_SIZE, carryPoint, type Rig } from './rig'
import { newV3, type V3 } from './turns'
import type { Hung } from './worn'

/** A surface that is written anew with each pose. */
export interface Hanging {
  readonly positions: Float32Array
  readonly normals: Float32Array
  readonly triangles: Uint16Array
  /** Of each point, 0 at the top to 1 at its end; and its shade, 0 to 1. */
  readonly down: Float32Array
  readonly shade: Float32Array
}

/** How the hips' frame lags, for what swings fast and what swings slowly. */
export interface Lag {
  readonly fast: Float64Array
  readonly slow: Float64Array
}

/** A surface of so many points, still without a place. */
export const surface = (points: number, triangles: readonly number[]): Hanging => ({
  positions: new Float32Array(3 * points),
  normals: new Float32Array(3 * points),
  triangles: new Uint16Array(triangles),
  down: new Float32Array(points),
  shade: new Float32Array(points),
})

const one = newV3()
const other = newV3()

/** Where the skin takes a point that hangs from it. */
export function carried(out: V3, { rows }: Rig, { point, by }: Hung): V3 {
  carryPoint(one, rows, by.first, point)
  carryPoint(other, rows, by.second, point)
  for (let i = 0; i < 3; i++) out[i] = mix(other[i] as number, one[i] as number, by.share)
  return out
}
export function carriedNormal(out: V3, { rows }: Rig, normal: readonly number[], by: Carried): V3 {
  const o = BONE_SIZE * (by.share > 0.5 ? by.first : by.second)
  for (let i = 0; i < 3; i++)
    out[i] =
      (rows[o + 4 * i] as number) * (normal[0] as number) +
      (rows[o + 4 * i + 1] as number) * (normal[1] as number) +
      (rows[o + 4 * i + 2] as number) * (normal[2] as number)
  return out
}

/** A part of a leg as a cone: joints it lies between, and how thick it is there. */
export const LEG_PARTS = [
  ['hip', 'knee', 0.1, 0.057],
  ['knee', 'ankle', 0.06, 0.036],
] as const

/** How much what hangs would rather go out the way it looks than round the other side of a leg, in metres. */
const OUTWARDS = 0.09

/** Keeps a hanging point out of a part of both legs. */
export function outOfLegs(
  p: V3,
  facing: V3,
  { joints }: Pose,
  scale: number,
  [from, to, thick, thin]: (typeof LEG_PARTS)[number],
  air: number,
): void {
  for (const side of SIDES) {
    const a = jointsOfSide[side][from]
    const b = jointsOfSide[side][to]
    const ax = (joints[a] as number) / scale
    const ay = (joints[a + 1] as number) / scale
    const az = -(joints[a + 2] as number) / scale
    const bx = (joints[b] as number) / scale - ax
    const by = (joints[b + 1] as number) / scale - ay
    const bz = -(joints[b + 2] as number) / scale - az
    const px = (p[0] as number) - ax
    const py = (p[1] as number) - ay
    const pz = (p[2] as number) - az
    const t = clamp((px * bx + py * by + pz * bz) / (bx * bx + by * by + bz * bz))
    const least = mix(thick, thin, t) + air
    const dx = px - bx * t
    const dy = py - by * t
    const dz = pz - bz * t
    const far = Math.sqrt(dx * dx + dy * dy + dz * dz)
    if (far >= least) continue
    const wx = dx + (facing[0] as number) * OUTWARDS
    const wy = dy + (facing[1] as number) * OUTWARDS
    const wz = dz + (facing[2] as number) * OUTWARDS
    const push = (least - far) / (Math.sqrt(wx * wx + wy * wy + wz * wz) || 1)
    p[0] = (p[0] as number) + wx * push
    p[1] = (p[1] as number) + wy * push
    p[2] = (p[2] as number) + wz * push
  }
}

/** The free line of what hangs: where it would be with nothing in its way. */
const free = newV3()

/** Begins a line where it hangs. */
export function begin(p: V3, at: V3): void {
  p.set(at)
  free.set(at)
}

/**
 * Goes a step of some length the way the free line goes to its next place. What was pushed off it
 * stays beside it: a step towards the line itself would turn over where the two meet.
 */
export function step(p: V3, x: number, y: number, z: number, long: number): void {
  const dx = x - (free[0] as number)
  const dy = y - (free[1] as number)
  const dz = z - (free[2] as number)
  const by = long / (Math.sqrt(dx * dx + dy * dy + dz * dz) || 1)
  p[0] = (p[0] as number) + dx * by
  p[1] = (p[1] as number) + dy * by
  p[2] = (p[2] as number) + dz * by
  free[0] = x
  free[1] = y
  free[2] = z
}
