import { type Ray, Vector3 } from 'three'
import type { Layer } from '../core/body/layers'
import { SIDES } from '../core/body/side'
import { type Joint, type Pose, placeOfJoint } from '../core/pose/joints'

/** A part of the body as a capsule between two joints. */
interface Part {
  readonly layer: Layer
  readonly from: Joint
  readonly to: Joint
  /** Metres. */
  readonly thick: number
}

const PARTS: readonly Part[] = [
  { layer: 'head', from: 'neck', to: 'head', thick: 0.1 },
  { layer: 'torso', from: 'waist', to: 'neck', thick: 0.13 },
  { layer: 'hips', from: 'hipR', to: 'hipL', thick: 0.12 },
  { layer: 'hips', from: 'crestR', to: 'crestL', thick: 0.1 },
  ...SIDES.flatMap((side): readonly Part[] => [
    { layer: 'arms', from: `shoulder${side}`, to: `elbow${side}`, thick: 0.055 },
    { layer: 'arms', from: `elbow${side}`, to: `wrist${side}`, thick: 0.05 },
    { layer: 'arms', from: `wrist${side}`, to: `fingers${side}`, thick: 0.05 },
    { layer: 'feet', from: `hip${side}`, to: `knee${side}`, thick: 0.085 },
    { layer: 'feet', from: `knee${side}`, to: `ankle${side}`, thick: 0.065 },
    { layer: 'feet', from: `heel${side}`, to: `toe${side}`, thick: 0.05 },
  ]),
]

const from = new Vector3()
const to = new Vector3()
const onRay = new Vector3()
const onPart = new Vector3()

const placed = (out: Vector3, { joints }: Pose, joint: Joint, aside: Vector3): Vector3 => {
  const at = placeOfJoint[joint]
  return out
    .set(joints[at] as number, joints[at + 1] as number, -(joints[at + 2] as number))
    .add(aside)
}

/** The layer of the nearest part of a dancer a ray goes through. */
export function partOn(
  ray: Ray,
  pose: Pose,
  aside: Vector3,
): { readonly layer: Layer; readonly far: number } | undefined {
  let best: { layer: Layer; far: number } | undefined
  for (const { layer, from: a, to: b, thick } of PARTS) {
    placed(from, pose, a, aside)
    placed(to, pose, b, aside)
    const off = Math.sqrt(ray.distanceSqToSegment(from, to, onRay, onPart))
    const far = onRay.distanceTo(ray.origin)
    if (off < thick && (!best || far < best.far)) best = { layer, far }
  }
  return best
}
