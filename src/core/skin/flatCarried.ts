import type { CarriedShape } from '../pose/carrying'
import type { Pose } from '../pose/joints'
import { seenPoint, type View } from '../pose/views'

/** What is carried, drawn flat: an outline of cloth, or a line with a width, in centimetres. */
export interface FlatCarried {
  readonly d: string
  readonly width: number
}

const STICK_WIDTH = 2.4

/** The outline of each thing as it is seen in a flat drawing of the one who carries it. */
export function flatCarried(
  shapes: readonly CarriedShape[],
  pose: Pose,
  view: View,
): readonly FlatCarried[] {
  return shapes
    .filter(({ isHere }) => isHere)
    .map(({ prop, columns, rows, points }) => {
      const place = (n: number): string => {
        const [right = 0, up = 0, forward = 0] = points.subarray(3 * n, 3 * n + 3)
        const [x = 0, z = 0] = pose.over
        const seen = seenPoint(right - x, up, forward - z, view)
        return `${(100 * seen.right).toFixed(1)} ${(-100 * seen.up).toFixed(1)}`
      }
      if (prop.kind === 'stick') return { d: `M${place(0)}L${place(1)}`, width: STICK_WIDTH }
      const last = (rows - 1) * columns
      const across = Array.from({ length: columns }, (_, i) => i)
      const down = Array.from({ length: rows }, (_, j) => j * columns)
      const edge = [
        ...across,
        ...down.slice(1).map((j) => j + columns - 1),
        ...across
          .toReversed()
          .slice(1)
          .map((i) => last + i),
        ...down.toReversed().slice(1, -1),
      ]
      return { d: `M${edge.map(place).join('L')}Z`, width: 0 }
    })
}
