import { SIDES } from '../body/side'
import type { Seen } from '../pose/views'
import { spineChain } from './bones'
import { type FlatPen, nearOf } from './flatPen'
import { type FlatShape, type Ring, ringAt } from './flatShapes'
import { hull, steps } from './outlines'
import type { Clothes } from './paint'
import { SKIRT_LONG } from './worn'

/** Levels at which the fall of a skirt is looked at. */
const FALLS = 8
/** Aside, back and length of the sash's ends. */
const SASH_ENDS = [
  [0.15, 0.045, 0.3],
  [0.155, 0.075, 0.24],
] as const

/** Draws what is worn round the hips, but for what lies close to them. */
export function drawHips(pen: FlatPen, shape: FlatShape, hips: Clothes['hips']): void {
  const edge = ringAt(pen, shape, 0.89)
  if (hips === 'scarf') scarf(pen, edge)
  else if (hips === 'sash') sashEnds(pen)
  else skirt(pen, shape, SKIRT_LONG[hips])
  waistband(pen, ringAt(pen, shape, 0.978), edge.middle.near + 0.023)
}

/** The scarf's point and its fringe, on the side that is seen. */
function scarf({ text, line, closed, put }: FlatPen, { middle, wide, rise }: Ring): void {
  const edge = (share: number) => ({
    right: middle.right + share * (wide + 0.008),
    up: middle.up + share * rise - 0.035 * (1 - share * share),
    near: middle.near,
  })
  const hem = steps(-1, 1, 8).map(edge)
  const near = middle.near + 0.02
  put('hips', 'cloth', closed([edge(1), ...hem.toReversed(), edge(-1)]), near)
  put('hips', 'band', line(hem), near + 0.002, 0.9)
  const strands = steps(-0.96, 0.96, 14).map((share) => {
    const { right, up } = edge(share)
    return `M${text({ right, up })}L${text({ right: right + 0.006 * share, up: up - 0.085 })}`
  })
  put('hips', 'cloth', strands.join(''), near + 0.001, 1)
}

/** Two ends of the sash, on one side. */
function sashEnds({ view, seen, closed, put }: FlatPen): void {
  for (const [x, z, long] of SASH_ENDS) {
    const knot = seen([x, 0.935, z], spineChain(0.935))
    const end = (aside: number, down: number) => ({
      right: knot.right + aside,
      up: knot.up - (view === 'above' ? 0 : down),
    })
    put(
      'hips',
      'cloth',
      closed([end(-0.02, 0), end(0.02, 0), end(0.032, long), end(-0.028, long + 0.02)]),
      knot.near,
    )
  }
}

/** A skirt as it falls over both legs, however they stand. */
function skirt(pen: FlatPen, shape: FlatShape, long: number): void {
  const { view, scale, seenOn, line, closed, put } = pen
  const falls = SIDES.flatMap((side) =>
    steps(0, long, FALLS).flatMap((along) => {
      const at = seenOn(side, shape.leg, along)
      const wide = (shape.leg.thick(along) + 0.012 + 0.085 * (along / long) ** 1.5) * scale
      return [
        { ...at, right: at.right - wide },
        { ...at, right: at.right + wide },
      ]
    }),
  )
  const tops = [0.89, 0.93, 0.975]
    .map((up) => ringAt(pen, shape, up))
    .flatMap(({ middle, wide, rise }) => [
      { ...middle, right: middle.right - wide - 0.008, up: middle.up - rise },
      { ...middle, right: middle.right + wide + 0.008, up: middle.up + rise },
    ])
  const near = nearOf(falls) + 0.02
  put('hips', 'cloth', closed(hull([...tops, ...falls])), near)
  // The hem is told by a line a little over it.
  const hem = falls.slice(2 * FALLS, 2 * FALLS + 2).concat(falls.slice(-2))
  const left = hem.reduce((a, b) => (b.right < a.right ? b : a))
  const right = hem.reduce((a, b) => (b.right > a.right ? b : a))
  const raised = (point: Seen) => ({ ...point, up: point.up + (view === 'above' ? 0 : 0.02) })
  put('hips', 'band', line([raised(left), raised(right)]), near + 0.002, 1.2)
}

/** The band at its upper edge. */
function waistband({ line, put }: FlatPen, waist: Ring, near: number): void {
  const band = [-1, 1].map((share) => ({
    right: waist.middle.right + share * (waist.wide + 0.008),
    up: waist.middle.up + share * waist.rise,
    near: waist.middle.near,
  }))
  put('hips', 'band', line(band), near, 1)
}
