import type { Side } from '../body/side'
import type { Carried, Drape, Prop } from '../combination/carried'
import { type Pose, placeOfJoint } from './joints'
import { cross, handOf, type Point, pointAt, unit } from './points'
import { arcOf, sagOf } from './rope'

/** The body a thing hangs on, now and shortly before. */
export interface Body {
  readonly pose: Pose
  /** Poses before, the nearest first. */
  readonly ago: readonly Pose[]
  /** How much of the trailing each of them makes. */
  readonly weights: readonly number[]
}

interface Net {
  readonly prop: Prop
  readonly columns: number
  readonly rows: number
}

/** How a cloth is held. */
export interface Hangs {
  readonly size: Prop['size']
  readonly drape: Drape
  readonly wound: number
  /** The hands on it, from its left end to its right one. */
  readonly held: readonly { readonly side: Side; readonly along: number; readonly palm: Point }[]
}

/** A place the upper edge goes through: how far along it, 0 to 1. */
interface Through {
  readonly along: number
  readonly at: Point
}

/** Half the width and depth of a trunk with room for cloth, in metres. */
const TRUNK = { side: 0.23, deep: 0.2 } as const
/** Folds along an edge, and how deep they are, in metres. */
const FOLDS = { waves: 5, deep: 0.018 } as const
const OVER_FLOOR = 0.015

const RADIANS = Math.PI / 180

/** To the right of a body, and ahead of it, over the floor. */
interface Seen {
  readonly right: Point
  readonly ahead: Point
}

function seenFrom(facing: number): Seen {
  const angle = facing * RADIANS
  return {
    right: [Math.cos(angle), 0, -Math.sin(angle)],
    ahead: [Math.sin(angle), 0, Math.cos(angle)],
  }
}

/** How far to the back and down an edge sags, and a lower edge hangs, by where the cloth is. */
const FALLS: Readonly<
  Record<
    Drape,
    { readonly sag: readonly [number, number]; readonly row: readonly [number, number] }
  >
> = {
  none: { sag: [0, 1], row: [0, 1] },
  front: { sag: [-0.4, 0.92], row: [-0.08, 1] },
  behind: { sag: [0.55, 0.84], row: [0.12, 0.99] },
  frame: { sag: [0.78, 0.62], row: [0.1, 0.99] },
  overhead: { sag: [0.5, -0.2], row: [0.9, 0.42] },
  shoulders: { sag: [0.3, 0.95], row: [0.3, 0.95] },
  head: { sag: [0.3, 0.95], row: [0.5, 0.87] },
  'wrap-R': { sag: [0, 1], row: [0, 1] },
  'wrap-L': { sag: [0, 1], row: [0, 1] },
  air: { sag: [0, 1], row: [0, 1] },
  floor: { sag: [1, 0], row: [1, 0] },
}

/** Hangs a veil or a scarf: its upper edge from hand to hand, its rows below, trailing after a turn. */
export function hangCloth(out: Float64Array, net: Net, hangs: Hangs, body: Body): void {
  const { columns, rows } = net
  const { drape } = hangs
  const { pose, ago } = body
  // The cloth is round later than she is.
  const last = ago.at(-1) ?? pose
  const seen = seenFrom(drape === 'overhead' ? pose.facing : last.facing)
  const { ahead } = seen
  const isWrapped = drape === 'wrap-R' || drape === 'wrap-L'
  if (isWrapped) wrap(out, net, hangs, pose, seen)
  else hang(out, net, hangs, { pose, seen })
  const { R, L } = trailingOf(hangs, body)
  const trunk = isWrapped ? undefined : trunkOf(pose, drape)
  for (let i = 0; i < columns; i++) {
    const u = i / (columns - 1)
    const [tx, ty, tz] = [mix(L[0], R[0], u), mix(L[1], R[1], u), mix(L[2], R[2], u)]
    const wave = FOLDS.deep * Math.cos(2 * Math.PI * FOLDS.waves * u)
    for (let j = 0; j < rows; j++) {
      const v = j / (rows - 1)
      const at = 3 * (j * columns + i)
      const fold = wave * (0.3 + v)
      const follow = v * v
      out[at] = (out[at] as number) + ahead[0] * fold + follow * tx
      out[at + 1] = (out[at + 1] as number) + follow * ty
      out[at + 2] = (out[at + 2] as number) + ahead[2] * fold + follow * tz
      if (trunk) pushOut(out, at, trunk)
      ontoFloor(out, at, pose)
    }
  }
}

interface Hung {
  readonly pose: Pose
  readonly seen: Seen
}

/** Each column from its place on the upper edge down; beside the outer hands it hangs gathered. */
function hang(out: Float64Array, { columns, rows }: Net, hangs: Hangs, { pose, seen }: Hung): void {
  const { size, drape } = hangs
  const through = throughOf(hangs, pose, seen)
  const [first] = through
  const end = through.at(-1)
  if (!first || !end) return
  const { ahead } = seen
  const { sag, row } = FALLS[drape]
  const [rx, ry, rz] = [-ahead[0] * row[0], -row[1], -ahead[2] * row[0]]
  const lows = through.slice(1).map((next, k) => {
    const before = through[k] as Through
    const far = Math.hypot(
      next.at[0] - before.at[0],
      next.at[1] - before.at[1],
      next.at[2] - before.at[2],
    )
    return 4 * sagOf((next.along - before.along) * size.long, far)
  })
  // A fold of the net is where a hand is, so that no edge is cut short there.
  const folds = new Map(
    through.map(({ along }) => [Math.round(along * (columns - 1)), along] as const),
  )
  let span = 0
  for (let i = 0; i < columns; i++) {
    const u = folds.get(i) ?? i / (columns - 1)
    const beside = u < first.along - 1e-9 ? first : u > end.along + 1e-9 ? end : undefined
    if (beside) {
      const along = Math.abs(u - beside.along) * size.long
      for (let j = 0; j < rows; j++) {
        const at = 3 * (j * columns + i)
        out[at] = beside.at[0]
        out[at + 1] = beside.at[1] - Math.hypot(along, (j / (rows - 1)) * size.deep)
        out[at + 2] = beside.at[2]
      }
      continue
    }
    while (span < lows.length - 1 && u > (through[span + 1]?.along ?? 1)) span++
    const a = through[span] as Through
    const b = through[span + 1] ?? a
    const share = a === b ? 0 : Math.min(1, Math.max(0, (u - a.along) / (b.along - a.along)))
    const low = (lows[span] ?? 0) * share * (1 - share)
    const x = mix(a.at[0], b.at[0], share) - ahead[0] * sag[0] * low
    const y = mix(a.at[1], b.at[1], share) - sag[1] * low
    const z = mix(a.at[2], b.at[2], share) - ahead[2] * sag[0] * low
    for (let j = 0; j < rows; j++) {
      const down = (j / (rows - 1)) * size.deep
      const at = 3 * (j * columns + i)
      out[at] = x + rx * down
      out[at + 1] = y + ry * down
      out[at + 2] = z + rz * down
    }
  }
}

/** A cloth wound round the body: from the side it is wrapped to, round and a little wider below. */
function wrap(
  out: Float64Array,
  { columns, rows }: Net,
  { drape, wound }: Hangs,
  pose: Pose,
  { right, ahead }: Seen,
): void {
  const way = drape === 'wrap-R' ? 1 : -1
  const chest = pointAt(pose.joints, placeOfJoint.chest)
  for (let i = 0; i < columns; i++) {
    const u = i / (columns - 1)
    const along = way > 0 ? u : 1 - u
    const angle = 0.6 + along * Math.PI * (1 + Math.max(1, wound))
    const [across, before] = [way * Math.cos(angle), Math.sin(angle) * 0.8]
    for (let j = 0; j < rows; j++) {
      const v = j / (rows - 1)
      const wide = 0.21 + 0.02 * along + 0.07 * v
      const at = 3 * (j * columns + i)
      out[at] = chest[0] + (right[0] * across + ahead[0] * before) * wide
      out[at + 1] = chest[1] + 0.1 - 0.62 * v
      out[at + 2] = chest[2] + (right[2] * across + ahead[2] * before) * wide
    }
  }
}

const mix = (a: number, b: number, share: number): number => a + (b - a) * share

/** A corner is held so far in at the most, as a share of the cloth: the tip of it hangs beside the hand. */
const FARTHEST_IN = 0.2
/** A hem is kept so far over the floor, in metres. */
const HEM_UP = 0.1

/**
 * How far in from its corners a cloth is held by both hands: so far that its hem clears the floor
 * where that can be, as hands do it without a word.
 */
function inFromCorners(size: Prop['size'], drape: Drape, held: Hangs['held']): number {
  const [left, right] = held
  if (!left || !right || left.along !== 0 || right.along !== 1) return 0
  const far = Math.hypot(...left.palm.map((one, k) => one - (right.palm[k] as number)))
  const up = Math.min(left.palm[1], right.palm[1])
  const room = (up - size.deep - HEM_UP) / Math.max(0.3, FALLS[drape].sag[1])
  const wanted = arcOf(far, Math.max(0.08, room))
  return Math.min(FARTHEST_IN, Math.max(0, (size.long - wanted) / 2 / size.long))
}

/** Where an upper edge goes through: the hands, and the body where the cloth lies on it. */
function throughOf({ size, drape, held }: Hangs, pose: Pose, seen: Seen): readonly Through[] {
  const inwards = inFromCorners(size, drape, held)
  const hands = held.map(
    ({ along, palm }): Through => ({
      along: along === 0 ? inwards : along === 1 ? 1 - inwards : along,
      at: palm,
    }),
  )
  const joint = (name: 'shoulderR' | 'shoulderL' | 'neck' | 'head'): Point =>
    pointAt(pose.joints, placeOfJoint[name])
  const off = (point: Point, up: number, back: number): Point => [
    point[0] - seen.ahead[0] * back,
    point[1] + up,
    point[2] - seen.ahead[2] * back,
  ]
  const share = (metres: number) => metres / size.long
  const onBody: readonly Through[] =
    drape === 'shoulders'
      ? [
          { along: 0.5 - share(0.22), at: off(joint('shoulderL'), 0.06, 0.02) },
          { along: 0.5, at: off(joint('neck'), 0.02, 0.1) },
          { along: 0.5 + share(0.22), at: off(joint('shoulderR'), 0.06, 0.02) },
        ]
      : drape === 'head'
        ? [
            { along: 0.5 - share(0.36), at: off(joint('shoulderL'), 0.05, 0) },
            { along: 0.5, at: off(joint('head'), 0.13, 0) },
            { along: 0.5 + share(0.36), at: off(joint('shoulderR'), 0.05, 0) },
          ]
        : []
  if (hands.length + onBody.length > 0)
    return [
      ...hands.filter(({ along }) => Math.abs(along - 0.5) > share(0.25) || onBody.length === 0),
      ...onBody,
    ].sort((a, b) => a.along - b.along)
  // Nobody holds it: it lies before her feet.
  const middle: Point = [pose.over[0] ?? 0, OVER_FLOOR, pose.over[1] ?? 0]
  const aside = (by: number): Point => [
    middle[0] + seen.right[0] * by + seen.ahead[0] * 0.35,
    OVER_FLOOR,
    middle[2] + seen.right[2] * by + seen.ahead[2] * 0.35,
  ]
  return [
    { along: 0.2, at: aside(-0.4) },
    { along: 0.8, at: aside(0.4) },
  ]
}

/** How far what hangs from each end is behind its hand, in metres. */
function trailingOf(
  { size, held }: Hangs,
  { pose, ago, weights }: Body,
): Readonly<Record<Side, Point>> {
  const most = size.deep / 2
  const of = (side: Side): Point => {
    const isHeld = held.some((one) => one.side === side)
    const joint = isHeld ? placeOfJoint[`palm${side}`] : placeOfJoint.chest
    const sum = [0, 0, 0]
    for (const [i, past] of ago.entries())
      for (let k = 0; k < 3; k++)
        sum[k] =
          (sum[k] ?? 0) +
          ((past.joints[joint + k] ?? 0) - (pose.joints[joint + k] ?? 0)) * (weights[i] ?? 0)
    const far = Math.hypot(...sum)
    const by = far > most ? most / far : 1
    return [(sum[0] ?? 0) * by, (sum[1] ?? 0) * by * 0.4, (sum[2] ?? 0) * by]
  }
  const [R, L] = [of('R'), of('L')]
  return { R, L }
}

/** A trunk that cloth lies on. */
interface Trunk extends Seen {
  readonly low: number
  readonly high: number
  readonly pelvis: Point
  readonly chest: Point
  /** The side a cloth comes out on: before her, behind her, or the nearer one. */
  readonly side: 1 | -1 | 0
}

const trunkOf = (pose: Pose, drape: Drape): Trunk => {
  const [pelvis, chest] = [placeOfJoint.pelvis, placeOfJoint.chest].map((at) =>
    pointAt(pose.joints, at),
  ) as [Point, Point]
  return {
    ...seenFrom(pose.facing),
    low: pelvis[1] - 0.15,
    high: chest[1] + 0.3,
    pelvis,
    chest,
    side: drape === 'front' ? 1 : drape === 'behind' || drape === 'frame' ? -1 : 0,
  }
}

/** A point that would be inside the trunk lies on it. */
function pushOut(out: Float64Array, at: number, trunk: Trunk): void {
  const { low, high, pelvis, chest, right, ahead, side } = trunk
  const up = out[at + 1] as number
  if (up < low || up > high) return
  const share = (up - low) / (high - low)
  const dx = (out[at] as number) - mix(pelvis[0], chest[0], share)
  const dz = (out[at + 2] as number) - mix(pelvis[2], chest[2], share)
  const across = (dx * right[0] + dz * right[2]) / TRUNK.side
  const before = dx * ahead[0] + dz * ahead[2]
  if (across * across + (before / TRUNK.deep) ** 2 >= 1) return
  const reach = TRUNK.deep * Math.sqrt(Math.max(0, 1 - across * across))
  const by = (side || (before > 0 ? 1 : -1)) * reach - before
  out[at] = (out[at] as number) + ahead[0] * by
  out[at + 2] = (out[at + 2] as number) + ahead[2] * by
}

/** What would be under the floor lies on it, farther out. */
function ontoFloor(out: Float64Array, at: number, pose: Pose): void {
  const up = out[at + 1] as number
  if (up >= OVER_FLOOR) return
  const [dx, dz] = [
    (out[at] as number) - (pose.over[0] ?? 0),
    (out[at + 2] as number) - (pose.over[1] ?? 0),
  ]
  const far = Math.hypot(dx, dz) || 1
  const by = Math.min(0.5, OVER_FLOOR - up) * 0.6
  out[at] = (out[at] as number) + (dx / far) * by
  out[at + 1] = OVER_FLOOR
  out[at + 2] = (out[at + 2] as number) + (dz / far) * by
}

/** A skirt: a ring from the waist to its hem, drawn out to where hands hold it, trailing after the hips. */
export function ringSkirt(
  out: Float64Array,
  { prop, columns, rows }: Net,
  { hands }: Carried,
  { pose, ago, weights }: Body,
): void {
  const waist = pointAt(pose.joints, placeOfJoint.pelvis)
  const { right, ahead } = seenFrom((ago.at(-1) ?? pose).facing)
  const wide = prop.size.long / (2 * Math.PI)
  const trail = [0, 1, 2].map((k) =>
    ago.reduce(
      (sum, past, i) =>
        sum +
        ((past.joints[placeOfJoint.pelvis + k] ?? 0) - (waist[k] as number)) * (weights[i] ?? 0),
      0,
    ),
  )
  for (let i = 0; i < columns; i++) {
    const angle = (2 * Math.PI * i) / (columns - 1)
    const [side, front] = [Math.cos(angle), Math.sin(angle)]
    for (let j = 0; j < rows; j++) {
      const v = j / (rows - 1)
      const fold = 1 + 0.07 * v * Math.cos(8 * angle)
      const [a, b] = [mix(0.16, wide, v) * fold, mix(0.12, wide * 0.8, v) * fold]
      const at = 3 * (j * columns + i)
      const follow = v * v
      for (let k = 0; k < 3; k++)
        out[at + k] =
          (waist[k] as number) +
          (right[k] as number) * side * a +
          (ahead[k] as number) * front * b +
          follow * (trail[k] ?? 0)
      out[at + 1] = Math.max(OVER_FLOOR, waist[1] + 0.08 - v * prop.size.deep)
      for (const hand of ['R', 'L'] as const) {
        if (!hands[hand]) continue
        const palm = pointAt(pose.joints, placeOfJoint[`palm${hand}`])
        // What is near the hand comes up to it, what is far stays.
        const near = Math.max(0, hand === 'R' ? side : -side) ** 3 * v
        for (let k = 0; k < 3; k++)
          out[at + k] = mix(out[at + k] as number, palm[k] as number, near)
      }
    }
  }
}

/** A fan: from the hand that holds it, round as far as it is open. */
export function openFan(
  out: Float64Array,
  { prop, columns, rows }: Net,
  { hands, open }: Carried,
  { pose }: Body,
): void {
  const side: Side = hands.R ? 'R' : 'L'
  const palm = pointAt(pose.joints, placeOfJoint[`palm${side}`])
  const { ahead, thumb } = handOf(pose, side)
  // It stands up from the hand, its flat side where the palm looks.
  const reachOut = unit([ahead[0] * 0.5, ahead[1] * 0.5 + 0.85, ahead[2] * 0.5])
  const across = unit(cross(reachOut, cross(ahead, thumb)))
  const spread = (open ? 150 : 10) * RADIANS
  for (let i = 0; i < columns; i++) {
    const angle = (i / (columns - 1) - 0.5) * spread
    for (let j = 0; j < rows; j++) {
      const reach = (0.15 + 0.85 * (j / (rows - 1))) * prop.size.long
      const at = 3 * (j * columns + i)
      for (let k = 0; k < 3; k++)
        out[at + k] =
          (palm[k] as number) +
          reach *
            ((reachOut[k] as number) * Math.cos(angle) + (across[k] as number) * Math.sin(angle))
    }
  }
}
