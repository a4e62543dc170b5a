import type { DancerHair } from '../house/dancerLook'
import { type Carried, MIDDLE_BONE } from './bones'
import { plus, type Vec } from './field'
import { type FlatPen, type FlatPiece, nearOf } from './flatPen'
import { steps } from './outlines'
import { KNOT } from './worn'

const HEAD_BONE: Carried = { first: MIDDLE_BONE.head, second: MIDDLE_BONE.head, share: 1 }

/** Draws the head with its hair and its band. */
export function drawHead(pen: FlatPen, hair: DancerHair): void {
  const { view, scale, seen, line, put } = pen
  ball(pen, 'skin', [0, 1.583, -0.02], [0.058, 0.085, 0.07])
  ball(pen, 'hair', [0, 1.64, 0.026], [0.083, 0.082, 0.092])
  ball(pen, 'hair', [0, 1.6, 0.05], [0.07, 0.07, 0.05])
  if (hair !== 'short') ball(pen, 'hair', [0, 1.632, 0.122], [0.036, 0.036, 0.032])
  const band = steps(-1.3, 1.3, 8).map((t) =>
    seen([0.084 * Math.sin(t), 1.64 + 0.083 * Math.cos(t), -0.004], HEAD_BONE),
  )
  put('head', 'cloth', line(band), nearOf(band) + 0.02, 1.8)
  const knot = seen(KNOT, HEAD_BONE)
  const braid = steps(0, 1, 6).map((t) => ({
    ...knot,
    up: knot.up - (view === 'above' ? 0 : 0.38 * t * scale),
  }))
  if (hair === 'braid') put('head', 'hair', line(braid), knot.near, 3.2)
}

/** An ellipsoid of the head. */
function ball(
  { seen, closed, put }: FlatPen,
  tone: FlatPiece['tone'],
  at: Vec,
  [rx, ry, rz]: Vec,
): void {
  const by = HEAD_BONE
  const middle = seen(at, by)
  const ends = [
    seen(plus(at, [rx, 0, 0]), by),
    seen(plus(at, [0, ry, 0]), by),
    seen(plus(at, [0, 0, rz]), by),
  ].map(({ right, up }) => [right - middle.right, up - middle.up] as const)
  // An ellipsoid seen from anywhere is an ellipse: of the sums of its axes' squares.
  const turn = steps(0, 2 * Math.PI, 16).map((angle) => {
    const [c, s] = [Math.cos(angle), Math.sin(angle)]
    const reach = Math.hypot(...ends.map(([r, u]) => r * c + u * s))
    return { angle, reach, c, s }
  })
  const points = turn.map(({ c, s, reach }) => {
    const [right, up] = ends.reduce(
      ([r, u], [er, eu]) => {
        const share = (er * c + eu * s) / (reach || 1e-9)
        return [r + er * share, u + eu * share] as const
      },
      [0, 0] as readonly [number, number],
    )
    return { right: middle.right + right, up: middle.up + up }
  })
  put('head', tone, closed(points), middle.near)
}
