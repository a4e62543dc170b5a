import type { FloorPoint } from '../body/places'
import { SIDES, type Side } from '../body/side'
import type { PathPoint, Round } from './space'

/** Where a foot came down, or stood as the round began. */
export interface Print extends FloorPoint {
  /** The ticks it came down there at; of a stance before anything is danced none. */
  readonly at: readonly number[]
  readonly side: Side
  /** Degrees clockwise from above. */
  readonly facing: number
  /** Whether it took weight there. */
  readonly carries: boolean
}

/** A foot that comes down so near where it stood, in metres and degrees, stands in its old print. */
const SAME_PLACE = 0.03
const SAME_FACING = 15

/** The prints of a round, in the order in which they were made. */
export function printsOf({ points }: Pick<Round, 'points'>): readonly Print[] {
  const prints: Print[] = []
  const add = (point: PathPoint, side: Side, at: readonly number[]) => {
    const { right, forward } = point.feet[side]
    const carries = point.state.weight === side || point.state.weight === 'both'
    const { facing } = point
    const old = prints.findIndex(
      (one) =>
        one.side === side &&
        Math.hypot(one.right - right, one.forward - forward) < SAME_PLACE &&
        Math.abs(one.facing - facing) < SAME_FACING,
    )
    const before = prints[old]
    if (before)
      prints[old] = { ...before, at: [...before.at, ...at], carries: before.carries || carries }
    else prints.push({ right, forward, side, facing, carries, at })
  }
  for (const [i, point] of points.entries()) {
    const before = points[i - 1]
    for (const side of SIDES) {
      const now = point.state.feet[side]
      if (now.contact === 'air') continue
      const was = before?.state.feet[side]
      const [to, from] = [point.feet[side], before?.feet[side]]
      const isMoved = from && Math.hypot(to.right - from.right, to.forward - from.forward) > 0.01
      if (!was) {
        add(point, side, [])
        continue
      }
      // Stepped in its place: it took the weight there, or turned with it.
      const takes =
        point.state.weight === side &&
        (before?.state.weight !== side ||
          Math.abs(point.facing - (before?.facing ?? 0)) >= SAME_FACING)
      if (isMoved || takes || was.contact !== now.contact) add(point, side, [point.at])
    }
  }
  return prints
}
