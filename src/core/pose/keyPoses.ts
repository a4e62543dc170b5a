import type { Pass } from '../combination/passes'
import type { Dancer } from './dancer'
import { JOINTS, type Joint, type Pose, placeOfJoint } from './joints'

/** A pose worth a picture, and the tick it is on. */
export interface KeyPose {
  readonly tick: number
  readonly pose: Pose
}

/** How different two poses look, in metres: their joints as seen from over the feet. */
function difference(a: Pose, b: Pose): number {
  let sum = 0
  for (const joint of JOINTS as readonly Joint[]) {
    const at = placeOfJoint[joint]
    const x = from(a, at, 0) - from(b, at, 0)
    const y = (a.joints[at + 1] ?? 0) - (b.joints[at + 1] ?? 0)
    const z = from(a, at, 2) - from(b, at, 2)
    sum += Math.sqrt(x * x + y * y + z * z)
  }
  return sum
}

const from = ({ joints, over }: Pose, at: number, i: 0 | 2): number =>
  (joints[at + i] ?? 0) - (over[i === 0 ? 0 : 1] ?? 0)

/** The key poses of a pass, among those every so many ticks. */
export const keyPosesOf = (
  dancer: Dancer,
  { at, length }: Pick<Pass, 'at' | 'length'>,
  every: number,
  most: number,
): readonly KeyPose[] =>
  keyPoses(
    dancer,
    Array.from({ length: Math.ceil(length / every) }, (_, i) => at + i * every),
    most,
  )

/**
 * The poses that differ most from their neighbours, among those on the given ticks: the one
 * that tells least is left out again and again until so many are left.
 */
export function keyPoses(
  { poseAt }: Dancer,
  ticks: readonly number[],
  most: number,
): readonly KeyPose[] {
  const left = ticks.map((tick): KeyPose => ({ tick, pose: poseAt(tick) }))
  while (left.length > Math.max(1, most)) {
    let least = 0
    let tells = Number.POSITIVE_INFINITY
    for (const [i, { pose }] of left.entries()) {
      const [before, after] = [left[i - 1], left[i + 1]]
      // Both ends have one neighbour: what it says counts twice.
      const a = before ? difference(pose, before.pose) : undefined
      const b = after ? difference(pose, after.pose) : undefined
      const sum = (a ?? b ?? 0) + (b ?? a ?? 0)
      if (sum < tells) {
        tells = sum
        least = i
      }
    }
    left.splice(least, 1)
  }
  return left
}
