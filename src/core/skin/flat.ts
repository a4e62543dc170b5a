import type { Layer } from '../body/layers'
import { SIDES, type Side } from '../body/side'
import { jointsOfSide, type Pose } from '../pose/joints'
import { BODY } from '../pose/proportions'
import { type Seen, seenPoint, type View } from '../pose/views'
import { ARM, LEG, MANS_ARM, MANS_LEG, TRUNKS } from './anatomy'
import {
  armChain,
  type Carried,
  type Chain,
  legChain,
  MIDDLE_BONE,
  SIDE_BONES,
  spineChain,
} from './bones'
import { mirrored } from './carried'
import type { Worn } from './dress'
import { mix, plus, smooth, type TubeRow, type Vec } from './field'
import { layBones } from './layBones'
import { HEM, LEGGINGS_TO, TROUSERS_TO } from './paint'
import { ANKLE, ARM_WAY, LEG_WAY, REST } from './rest'
import { carryPoint, newRig } from './rig'
import { newV3 } from './turns'
import { KNOT, SKIRT_LONG } from './worn'

/** One piece of a flat drawing, in centimetres: right is right, down is down. */
export interface FlatPiece {
  readonly layer: Layer
  /** What is drawn: strands and bands as lines with a width, all else as filled outlines. */
  readonly d: string
  /** Width of the line; 0 for a filled outline. */
  readonly width: number
  readonly tone: 'cloth' | 'skin' | 'hair' | 'band'
}

/** How large a flat drawing is, in centimetres: the floor is at the bottom. */
export const FLAT = { left: -90, top: -205, width: 180, height: 215 } as const

const n = (value: number) => value.toFixed(1)
const HEAD_BONE: Carried = { first: MIDDLE_BONE.head, second: MIDDLE_BONE.head, share: 1 }
const rig = newRig()
const [one, other] = [newV3(), newV3()]

/** A piece with how near it is. */
type Piece = FlatPiece & { readonly near: number }

/** A pose drawn flat as an SVG would draw it: the same body in the same clothes, the farthest pieces first. */
export function flatOf(
  pose: Pose,
  view: View,
  { shape, hair, clothes }: Worn,
): readonly FlatPiece[] {
  const { leg: legLimb, arm: armLimb, hand: handLimb, trunkAt } = SHAPES[shape]
  const hasTrousers = clothes.legs === 'trousers'
  const legTo = hasTrousers ? TROUSERS_TO : LEGGINGS_TO
  const isLong = clothes.top === 'long'
  const sleeveTo = isLong ? 0.03 : 0.098
  const scale = heightOf(pose)
  layBones(rig, pose, scale)
  const [overX = 0, overZ = 0] = pose.over
  const high = view === 'above' ? -90 : 0
  const seen = (point: Vec, by: Carried): Seen => {
    carryPoint(one, rig.rows, by.first, point)
    carryPoint(other, rig.rows, by.second, point)
    const at = (i: number) => mix(other[i] as number, one[i] as number, by.share) * scale
    return seenPoint(at(0) - overX, at(1), -at(2) - overZ, view)
  }
  const text = ({ right, up }: Pick<Seen, 'right' | 'up'>) =>
    `${n(right * 100)} ${n(high - up * 100)}`
  const pieces: Piece[] = []
  const nearOf = (points: readonly Seen[]) =>
    points.reduce((sum, { near }) => sum + near, 0) / points.length
  const put = (layer: Layer, tone: FlatPiece['tone'], d: string, near: number, width = 0) =>
    pieces.push({ layer, tone, d, near, width })
  const closed = (points: readonly Pick<Seen, 'right' | 'up'>[]) =>
    `M${points.map(text).join('L')}Z`
  const line = (points: readonly Seen[]) => `M${points.map(text).join('L')}`

  for (const side of SIDES) {
    const on = ([x, y, z]: Vec): Vec => [side === 'R' ? x : -x, y, z]
    const limb = (
      layer: Layer,
      tone: FlatPiece['tone'],
      samples: readonly number[],
      { from, way, chain, thick }: Limb,
      isRound = false,
    ) => {
      const middle = samples.map((along) => {
        const by = chain(along)
        return seen(on(plus(from, way, along)), side === 'R' ? by : mirrored(by))
      })
      const half = samples.map((along) => thick(along) * scale)
      put(layer, tone, outline(middle, half, isRound, closed), nearOf(middle))
    }
    limb('feet', 'skin', steps(LEGGINGS_TO, 0.815, 3), legLimb)
    limb('feet', 'cloth', steps(-0.03, legTo, 12), hasTrousers ? loose(legLimb) : legLimb, true)
    limb('torso', 'cloth', steps(-0.015, sleeveTo, 4), armLimb, true)
    limb('arms', 'skin', steps(sleeveTo, 0.292, 6), armLimb)
    limb('arms', 'cloth', steps(0.292, 0.487, 5), armLimb)
    limb('arms', 'skin', steps(0.487, 0.68, 6), handLimb, true)
    foot(side)
  }

  function foot(side: Side): void {
    const bones = SIDE_BONES[side]
    const sign = side === 'R' ? 1 : -1
    const by: Carried = { first: bones.foot, second: bones.foot, share: 1 }
    const toes: Carried = { first: bones.toes, second: bones.toes, share: 1 }
    const points = FOOT_POINTS.map(([aside, up, ahead]) =>
      seen([sign * (ANKLE[0] + aside), up, -ahead], ahead > 0.125 ? toes : by),
    )
    put('feet', 'skin', closed(hull(points)), nearOf(points))
  }

  const ring = (up: number) => {
    const [half, front, back] = trunkAt(up)
    const by = spineChain(up)
    const middle = seen([0, up, (back - front) / 2], by)
    const aside = seen([half, up, (back - front) / 2], by)
    const ahead = seen([0, up, -front], by)
    const a = { right: aside.right - middle.right, up: aside.up - middle.up }
    const b = { right: ahead.right - middle.right, up: ahead.up - middle.up }
    // The widest point of an ellipse seen from there.
    const wide = Math.hypot(a.right, b.right) || 1e-9
    const rise = (a.right * a.up + b.right * b.up) / wide
    return { middle, wide, rise }
  }
  const trunk = (layer: Layer, tone: FlatPiece['tone'], from: number, to: number, more = 0) => {
    const rings = steps(from, to, Math.max(3, Math.round((to - from) / 0.03))).map(ring)
    const side = (sign: 1 | -1) =>
      rings.map(({ middle, wide, rise }) => ({
        right: middle.right + sign * (wide + more),
        up: middle.up + sign * rise,
      }))
    put(
      layer,
      tone,
      closed([...side(1), ...side(-1).reverse()]),
      nearOf(rings.map(({ middle }) => middle)) + more,
    )
  }
  const isBare = !isLong && clothes.waist === 'bare'
  if (isBare) trunk('torso', 'skin', 0.95, HEM + 0.01)
  trunk('torso', 'cloth', isBare ? HEM : 0.95, 1.425)
  trunk('head', 'skin', 1.4, 1.5)
  trunk('feet', 'cloth', 0.83, 0.97)
  trunk('hips', 'cloth', clothes.hips === 'sash' ? 0.925 : 0.89, 0.982, 0.008)
  if (clothes.hips === 'scarf') scarf()
  else if (clothes.hips === 'sash') sashEnds()
  else skirt(SKIRT_LONG[clothes.hips])
  waistband()

  /** The scarf's point and its fringe, on the side that is seen. */
  function scarf(): void {
    const { middle, wide, rise } = ring(0.89)
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
  function sashEnds(): void {
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
  function skirt(long: number): void {
    const { from, way, chain, thick } = legLimb
    const falls = SIDES.flatMap((side) =>
      steps(0, long, 8).flatMap((along) => {
        const by = chain(along)
        const [x, y, z] = plus(from, way, along)
        const at = seen([side === 'R' ? x : -x, y, z], side === 'R' ? by : mirrored(by))
        const wide = (thick(along) + 0.012 + 0.085 * (along / long) ** 1.5) * scale
        return [
          { ...at, right: at.right - wide },
          { ...at, right: at.right + wide },
        ]
      }),
    )
    const tops = [0.89, 0.93, 0.975].map(ring).flatMap(({ middle, wide, rise }) => [
      { ...middle, right: middle.right - wide - 0.008, up: middle.up - rise },
      { ...middle, right: middle.right + wide + 0.008, up: middle.up + rise },
    ])
    const near = nearOf(falls) + 0.02
    put('hips', 'cloth', closed(hull([...tops, ...falls])), near)
    // The hem is told by a line a little over it.
    const hem = falls.slice(8 * 2, 9 * 2).concat(falls.slice(-2))
    const [left, right] = [hem, hem].map((points, i) =>
      points.reduce((a, b) => ((i === 0 ? b.right < a.right : b.right > a.right) ? b : a)),
    ) as [Seen, Seen]
    const raised = (point: Seen) => ({ ...point, up: point.up + (view === 'above' ? 0 : 0.02) })
    put('hips', 'band', line([raised(left), raised(right)]), near + 0.002, 1.2)
  }

  function waistband(): void {
    const near = ring(0.89).middle.near + 0.02
    const waist = ring(0.978)
    const band = [-1, 1].map((share) => ({
      right: waist.middle.right + share * (waist.wide + 0.008),
      up: waist.middle.up + share * waist.rise,
      near: waist.middle.near,
    }))
    put('hips', 'band', line(band), near + 0.003, 1)
  }

  // The neckline, where it is seen.
  const collar = NECKLINE.map((point) => seen(point, spineChain(point[1])))
  const throat = seen([0, 1.36, 0], spineChain(1.36))
  if (nearOf(collar) > throat.near) put('torso', 'skin', closed(collar), nearOf(collar) + 0.05)

  const ball = (
    layer: Layer,
    tone: FlatPiece['tone'],
    at: Vec,
    [rx, ry, rz]: Vec,
    by = HEAD_BONE,
  ) => {
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
    put(layer, tone, closed(points), middle.near)
  }
  ball('head', 'skin', [0, 1.583, -0.02], [0.058, 0.085, 0.07])
  ball('head', 'hair', [0, 1.64, 0.026], [0.083, 0.082, 0.092])
  ball('head', 'hair', [0, 1.6, 0.05], [0.07, 0.07, 0.05])
  if (hair !== 'short') ball('head', 'hair', [0, 1.632, 0.122], [0.036, 0.036, 0.032])
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
  // What is worn round the hips lies over the legs, however they stand.
  const legs = Math.max(
    ...pieces
      .filter(({ layer, tone }) => layer === 'feet' && tone === 'cloth')
      .map(({ near }) => near),
  )
  const over = ({ layer, near }: Piece) =>
    layer === 'hips' && view !== 'above' ? Math.max(near, legs) + 0.01 + near / 100 : near
  return pieces
    .sort((a, b) => over(a) - over(b))
    .map(({ layer, d, width, tone }) => ({ layer, d, width, tone }))
}

/** How tall a dancer is against 1.65 m, by her shin: bones are never stretched. */
function heightOf({ joints }: Pose): number {
  const { knee, ankle } = jointsOfSide.R
  const off = [0, 1, 2].map((i) => (joints[knee + i] as number) - (joints[ankle + i] as number))
  return Math.hypot(...off) / BODY.shin || 1
}

/** Numbers from one to another. */
const steps = (from: number, to: number, count: number): readonly number[] =>
  Array.from({ length: count + 1 }, (_, i) => from + ((to - from) * i) / count)

interface Limb {
  readonly from: Vec
  readonly way: Vec
  readonly chain: Chain
  readonly thick: (along: number) => number
}

/** The mean thickness of a tube, between its rows. */
function thickIn(rows: readonly (readonly number[])[]): (along: number) => number {
  const table = rows.map(([along = 0, ...radii]): readonly [number, number] => [
    along,
    radii.reduce((sum, radius) => sum + radius, 0) / radii.length,
  ])
  return (along) => between(table, along)[0] ?? 0
}

/** The other numbers of a table at one of its first. */
function between(table: readonly (readonly number[])[], at: number): readonly number[] {
  let i = 0
  while (i < table.length - 2 && at > ((table[i + 1] as readonly number[])[0] as number)) i++
  const [from, ...a] = table[i] as readonly number[]
  const [to, ...b] = table[i + 1] as readonly number[]
  const share = Math.min(
    1,
    Math.max(0, (at - (from as number)) / ((to as number) - (from as number))),
  )
  return a.map((value, k) => mix(value, b[k] as number, share))
}

/** A body as it is drawn flat. */
interface FlatShape {
  readonly leg: Limb
  readonly arm: Limb
  /** Fingers together, narrower to their tips. */
  readonly hand: Limb
  /** Half width, front and back of the trunk, with what stands out in front and behind. */
  readonly trunkAt: (up: number) => readonly [number, number, number]
}

function shapeOf(
  legs: readonly TubeRow[],
  arms: readonly TubeRow[],
  trunk: readonly (readonly number[])[],
  chest: number,
): FlatShape {
  const arm = { from: REST.shoulder, way: ARM_WAY, chain: armChain, thick: thickIn(arms) }
  return {
    leg: { from: REST.hip, way: LEG_WAY, chain: legChain, thick: thickIn(legs) },
    arm,
    hand: {
      ...arm,
      thick: (along) =>
        along < 0.5
          ? 0.02
          : 0.02 + 0.011 * smooth(0.5, 0.57, along) - 0.02 * smooth(0.6, 0.69, along),
    },
    trunkAt(up) {
      const [half = 0, front = 0, back = 0] = between(trunk, up)
      const bump = (at: number, wide: number) => Math.exp(-(((up - at) / wide) ** 2))
      return [half, front + chest * bump(1.27, 0.045), back + 0.022 * bump(0.87, 0.06)]
    },
  }
}

const SHAPES: Readonly<Record<Worn['shape'], FlatShape>> = {
  woman: shapeOf(LEG, ARM, TRUNKS.woman, 0.028),
  man: shapeOf(MANS_LEG, MANS_ARM, TRUNKS.man, 0.012),
}

/** Trousers fall straight from the knee. */
const loose = (limb: Limb): Limb => ({
  ...limb,
  thick: (along) => Math.max(limb.thick(along) + 0.008, along > 0.3 ? 0.062 : 0),
})

/** Aside, back and length of the sash's ends. */
const SASH_ENDS = [
  [0.15, 0.045, 0.3],
  [0.155, 0.075, 0.24],
] as const

/** The foot's outline as points of its skin: aside, up, ahead of the ankle. */
const FOOT_POINTS: readonly Vec[] = [
  [-0.025, -0.01, -0.05],
  [0.025, -0.01, -0.05],
  [-0.02, 0.06, -0.03],
  [0.02, 0.06, -0.03],
  [-0.03, 0.05, 0.03],
  [0.03, 0.05, 0.03],
  [-0.04, -0.01, 0.1],
  [0.042, -0.01, 0.1],
  [-0.035, 0.02, 0.1],
  [0.035, 0.02, 0.1],
  [-0.03, -0.01, 0.18],
  [0.03, -0.01, 0.16],
  [0, 0.005, 0.185],
]

const NECKLINE: readonly Vec[] = [
  [-0.085, 1.405, -0.045],
  [-0.04, 1.365, -0.085],
  [0, 1.34, -0.1],
  [0.04, 1.365, -0.085],
  [0.085, 1.405, -0.045],
  [0.045, 1.44, -0.04],
  [-0.045, 1.44, -0.04],
]

type Point = Pick<Seen, 'right' | 'up'>

/** The outline of a limb along its middle; round at its ends where it is said. */
function outline(
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
function hull(points: readonly Seen[]): readonly Point[] {
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
