import type { FloorPoint } from '../body/places'
import type { Dancer } from './dancer'
import type { Pose } from './joints'

/** A dancer who stands somewhere else in the room than in its middle. */
export function placedAt(dancer: Dancer, at: FloorPoint): Dancer {
  const { right, forward } = at
  if (right === 0 && forward === 0) return dancer
  return {
    ...dancer,
    at,
    poseAt: (tick, into) => moved(dancer.poseAt(tick, into), right, forward),
  }
}

function moved(pose: Pose, right: number, forward: number): Pose {
  const { joints, over } = pose
  for (let i = 0; i < joints.length; i += 3) {
    joints[i] = (joints[i] as number) + right
    joints[i + 2] = (joints[i + 2] as number) + forward
  }
  over[0] = (over[0] as number) + right
  over[1] = (over[1] as number) + forward
  return pose
}
