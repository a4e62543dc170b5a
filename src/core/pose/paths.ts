import type { CompassReach } from '../body/places'
import { around, type WayOf } from './held'

/**
 * What hips or ribs do along a path: metres to the side, forward and up, degrees of tilt (right
 * side up) and of twist (right side forward).
 */
export const PATH_SIZE = 5

/** A small circle or eight is this much of the usual one, a large one that (house figures). */
const SIZES = { small: 0.5, usual: 0.85, large: 1.15 } as const
export type PathSize = keyof typeof SIZES

/** How high a vertical eight goes, and how the hips tilt and twist in an eight. */
const EIGHT_DEEP = 0.55
const EIGHT_UP = 0.022
const EIGHT_TILT = 9
const EIGHT_TWIST = 11

const aside = (reach: CompassReach, size: PathSize) => (reach.side / 100) * SIZES[size]
const ahead = (reach: CompassReach, size: PathSize) =>
  ((reach.forward + reach.back) / 200) * SIZES[size]

/**
 * Round a circle, clockwise from above: right, back, left, front. From the rim it starts where
 * the part is, from the centre towards its own side.
 */
export function circlePath(
  reach: CompassReach,
  size: PathSize,
  rounds: number,
  clockwise: boolean,
  by: number,
): WayOf {
  const wide = aside(reach, size) * by
  const deep = ahead(reach, size) * by
  const way = clockwise ? -1 : 1
  return around((s, from, out) => {
    const x = from[0] as number
    const z = from[1] as number
    const start =
      Math.abs(x) + Math.abs(z) < 1e-6 ? (clockwise ? 0 : Math.PI) : Math.atan2(z / deep, x / wide)
    const angle = start + way * 2 * Math.PI * rounds * s
    out[0] = wide * Math.cos(angle)
    out[1] = deep * Math.sin(angle)
    out[2] = 0
    out[3] = 0
    out[4] = 0
  })
}

export interface Eight {
  readonly plane: 'horizontal' | 'vertical'
  readonly loops: 'outward' | 'inward' | 'down' | 'up'
  readonly size: PathSize
  readonly rounds: number
  /** Its first loop is on the left. */
  readonly left: boolean
  readonly by: number
}

/**
 * An eight through the centre. Level: each hip goes forward, out and back (outward), or back,
 * out and forward (inward). Upright: each hip goes up, out and down, or the other way.
 */
export function eightPath(reach: CompassReach, eight: Eight): WayOf {
  const { plane, loops, size, rounds, left, by } = eight
  const wide = aside(reach, size) * by
  const deep = ahead(reach, size) * EIGHT_DEEP * by
  const way = loops === 'outward' || loops === 'down' ? 1 : -1
  const side = left ? -1 : 1
  return around((s, _, out) => {
    const angle = 2 * Math.PI * rounds * s
    out.fill(0)
    out[0] = side * wide * Math.sin(angle)
    if (plane === 'horizontal') {
      out[1] = way * deep * Math.sin(2 * angle)
      out[4] = side * way * EIGHT_TWIST * Math.cos(angle) * SIZES[size] * by
    } else {
      out[2] = way * EIGHT_UP * Math.sin(2 * angle) * by
      out[3] = side * way * EIGHT_TILT * Math.cos(angle) * SIZES[size] * by
    }
  })
}
