import type { Seen } from '../pose/views'

export type Point = Pick<Seen, 'right' | 'up'>

/** Numbers from one to another. */
export const steps = (from: number, to: number, count: number): readonly number[] =>
  Array.from({ length: count + 1 }, (_, i) => from + ((to - from) * i) / count)

/** The outline of a limb along its middle; round at its ends where it is said. */
export function outline(
  middle: readonly Seen[],
  half: readonly number[],
  isRound: boolean,
  closed: (points: readonly Point[]) => string,
): string {
  const edges = middle.map((point, i) => {
    const before = middle[Math.max(0, i - 1)] as Seen
    const after = middle[Math.min(middle.length - 1, i + 1)] as Seen
    const [dr, du] = [after.right - before.right, after.up - before.up]
    const long = Math.hypot(dr, du) || 1e-9
    const wide = half[i] as number
    return { point, across: { right: (-du / long) * wide, up: (dr / long) * wide }, wide }
  })
  const side = (sign: 1 | -1) =>
    edges.map(({ point, across }) => ({
      right: point.right + sign * across.right,
      up: point.up + sign * across.up,
    }))
  const ends = isRound ? [edges[0], edges.at(-1)] : []
  // Seen along itself a limb is as round as it is thick.
  const rounds = ends.flatMap((end) =>
    end
      ? closed(
          steps(0, 2 * Math.PI, 12).map((angle) => ({
            right: end.point.right + Math.cos(angle) * end.wide,
            up: end.point.up + Math.sin(angle) * end.wide,
          })),
        )
      : [],
  )
  const body = [...side(1), ...side(-1).reverse()]
  return [closed(isLeftTurned(body) ? body : body.toReversed()), ...rounds].join('')
}

const isLeftTurned = (points: readonly Point[]): boolean =>
  points.reduce((sum, a, i) => {
    const b = points[(i + 1) % points.length] as Point
    return sum + a.right * b.up - b.right * a.up
  }, 0) > 0

/** The smallest outline round some points. */
export function hull(points: readonly Seen[]): readonly Point[] {
  const sorted = [...points].sort((a, b) => a.right - b.right || a.up - b.up)
  const half = (list: readonly Seen[]) => {
    const kept: Seen[] = []
    for (const point of list) {
      while (kept.length > 1) {
        const [a, b] = [kept[kept.length - 2] as Seen, kept[kept.length - 1] as Seen]
        const turn =
          (b.right - a.right) * (point.up - a.up) - (b.up - a.up) * (point.right - a.right)
        if (turn > 0) break
        kept.pop()
      }
      kept.push(point)
    }
    return kept.slice(0, -1)
  }
  return [...half(sorted), ...half(sorted.toReversed())]
}
