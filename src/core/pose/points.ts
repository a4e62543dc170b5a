import type { Side } from '../body/side'
import { type Pose, placeOfJoint } from './joints'

/** A place of the room: right, up and forward, in metres. */
export type Point = readonly [number, number, number]

export const pointAt = (numbers: Float64Array, at: number): Point => [
  numbers[at] as number,
  numbers[at + 1] as number,
  numbers[at + 2] as number,
]

/** A direction of length 1. */
export function unit([x, y, z]: Point): Point {
  const long = Math.hypot(x, y, z) || 1
  return [x / long, y / long, z / long]
}

export const cross = (a: Point, b: Point): Point => [
  a[1] * b[2] - a[2] * b[1],
  a[2] * b[0] - a[0] * b[2],
  a[0] * b[1] - a[1] * b[0],
]

/** Where the fingers and the thumb of a hand point to. */
export function handOf(pose: Pose, side: Side): { readonly ahead: Point; readonly thumb: Point } {
  const wrist = pointAt(pose.joints, placeOfJoint[`wrist${side}`])
  const fingers = pointAt(pose.joints, placeOfJoint[`fingers${side}`])
  const ahead = unit([fingers[0] - wrist[0], fingers[1] - wrist[1], fingers[2] - wrist[2]])
  const normal = pointAt(pose.palms, side === 'R' ? 0 : 3)
  const [x, y, z] = unit(cross(normal, ahead))
  return { ahead, thumb: side === 'R' ? [x, y, z] : [-x, -y, -z] }
}
