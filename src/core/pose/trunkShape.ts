import { type Pose, placeOfJoint } from './joints'

/**
 * The trunk as rings from the seat to the neck: how far along it is (0 the pelvis centre, 1 the
 * neck), half its width and half its depth in metres (house figures of a plain, dressed body).
 */
const RINGS: readonly (readonly [number, number, number])[] = [
  [-0.24, 0.09, 0.085],
  [-0.16, 0.148, 0.112],
  [-0.06, 0.166, 0.12],
  [0.06, 0.158, 0.114],
  [0.18, 0.134, 0.098],
  [0.33, 0.112, 0.084],
  [0.48, 0.118, 0.088],
  [0.62, 0.135, 0.1],
  [0.76, 0.148, 0.106],
  [0.88, 0.146, 0.096],
  [0.96, 0.11, 0.078],
  [1.02, 0.06, 0.058],
]
export const RING_COUNT = RINGS.length
/** Rings up to this one belong to the hips, the others to the torso. */
export const LAST_HIP_RING = 4
/** The ring the hip band lies on. */
export const BAND_RING = 3

/** One ring: its middle, then half its way to the right and half its way forward, as nine numbers. */
export const RING_SIZE = 9

/**
 * Writes the rings of the trunk, blended between the pelvis and the chest, so that a tilt, a
 * slide or a wave of either is plainly seen.
 * @param build how broad the body is, 1 being usual.
 */
export function trunkInto(pose: Pose, out: Float64Array, build = 1): void {
  const { joints, pelvis, chest } = pose
  for (let ring = 0; ring < RING_COUNT; ring++) {
    const [along, wide, deep] = RINGS[ring] as (typeof RINGS)[number]
    const o = ring * RING_SIZE
    const t = along < 0 ? 0 : Math.min(along, 1)
    const blend = t * t * (3 - 2 * t)
    for (let i = 0; i < 3; i++) {
      out[o + i] = middleAt(joints, pelvis, along, i)
      out[o + 3 + i] =
        ((pelvis[i] as number) * (1 - blend) + (chest[i] as number) * blend) * wide * build
      out[o + 6 + i] =
        ((pelvis[6 + i] as number) * (1 - blend) + (chest[6 + i] as number) * blend) * deep * build
    }
  }
}

/** The middle of the trunk: from the pelvis through the waist and the chest to the neck. */
function middleAt(joints: Float64Array, pelvis: Float64Array, along: number, i: number): number {
  const p = joints[placeOfJoint.pelvis + i] as number
  const up = pelvis[3 + i] as number
  if (along <= 0) return p + along * 0.48 * up
  const w = joints[placeOfJoint.waist + i] as number
  const c = joints[placeOfJoint.chest + i] as number
  const n = joints[placeOfJoint.neck + i] as number
  // A quadratic through pelvis, waist and chest, then straight on to the neck.
  if (along > 0.75) return c + ((n - c) * (along - 0.75)) / 0.25
  const s = along / 0.75
  const turn = 2 * w - 0.5 * (p * 1.1 + c * 0.9)
  return p * (1 - s) * (1 - s) + 2 * turn * s * (1 - s) + c * s * s
}
