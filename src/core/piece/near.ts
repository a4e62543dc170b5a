import type { House } from '../house/house'
import { bendsIn, placeAt, type Way, type WayPoint } from './way'

/** Where two dancers come nearest in a while, and by how much they would have to be apart not to touch. */
export interface Nearest {
  readonly at: number
  /** Metres between their middles. */
  readonly apart: number
  /** Metres at which their bodies touch, as they face then. */
  readonly touch: number
}

const radians = (degrees: number) => (degrees * Math.PI) / 180

/** How far a body reaches from its middle towards a point, turned as it faces. */
function reachTowards(of: WayPoint, to: WayPoint, { limits }: House): number {
  const [side, deep] = [limits['pair.bodySide'], limits['pair.bodyDeep']]
  const [dx, dy] = [to.right - of.right, to.forward - of.forward]
  const far = Math.hypot(dx, dy)
  if (far < 1e-9) return deep
  const angle = radians(of.facing)
  const across = (dx * Math.cos(angle) - dy * Math.sin(angle)) / far
  const ahead = (dx * Math.sin(angle) + dy * Math.cos(angle)) / far
  return 1 / Math.hypot(across / side, ahead / deep)
}

function nearAt(a: Way, b: Way, at: number, house: House): Nearest {
  const [one, other] = [placeAt(a, at), placeAt(b, at)]
  return {
    at,
    apart: Math.hypot(one.right - other.right, one.forward - other.forward),
    touch: reachTowards(one, other, house) + reachTowards(other, one, house),
  }
}

const shareOf = ({ apart, touch }: Nearest): number => apart / touch

/**
 * Where two come nearest over some ticks, against what their bodies take: over each pair of straight
 * stretches the nearest moment is worked out, not looked for.
 */
export function nearestIn(
  a: Way,
  b: Way,
  { from, to }: { readonly from: number; readonly to: number },
  house: House,
): Nearest {
  const borders = [...new Set([from, to, ...bendsIn(a, from, to), ...bendsIn(b, from, to)])].sort(
    (one, other) => one - other,
  )
  let best = nearAt(a, b, from, house)
  const look = (at: number) => {
    const now = nearAt(a, b, at, house)
    if (shareOf(now) < shareOf(best) - 1e-9) best = now
  }
  for (const [i, begin] of borders.entries()) {
    look(begin)
    const end = borders[i + 1]
    if (end === undefined) continue
    const [p, q] = [gap(a, b, begin), gap(a, b, end)]
    const [vx, vy] = [q.x - p.x, q.y - p.y]
    const speed = vx * vx + vy * vy
    const share = speed > 1e-12 ? -(p.x * vx + p.y * vy) / speed : 0
    if (share > 0 && share < 1) look(begin + share * (end - begin))
  }
  return best
}

function gap(a: Way, b: Way, at: number) {
  const [one, other] = [placeAt(a, at), placeAt(b, at)]
  return { x: other.right - one.right, y: other.forward - one.forward }
}
