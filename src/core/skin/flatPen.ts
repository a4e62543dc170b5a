import type { Layer } from '../body/layers'
import type { Side } from '../body/side'
import { jointsOfSide, type Pose } from '../pose/joints'
import { BODY } from '../pose/proportions'
import { type Seen, seenPoint, type View } from '../pose/views'
import type { Carried, Chain } from './bones'
import { mirrored } from './carried'
import { mix, plus, type Vec } from './field'
import { layBones } from './layBones'
import type { Point } from './outlines'
import { carryPoint, newRig } from './rig'
import { newV3 } from './turns'

/** One piece of a flat drawing, in centimetres: right is right, down is down. */
export interface FlatPiece {
  readonly layer: Layer
  /** What is drawn: strands and bands as lines with a width, all else as filled outlines. */
  readonly d: string
  /** Width of the line; 0 for a filled outline. */
  readonly width: number
  readonly tone: 'cloth' | 'skin' | 'hair' | 'band'
}

/** A piece with how near it is. */
export type Piece = FlatPiece & { readonly near: number }

/** What a pose is drawn flat with: where its points are seen, and the pieces so far. */
export interface FlatPen {
  readonly view: View
  /** How tall the dancer is against 1.65 m. */
  readonly scale: number
  readonly pieces: Piece[]
  /** Where a point of the dancer at rest is seen, as bones carry it. */
  readonly seen: (point: Vec, by: Carried) => Seen
  /** Where a point along a limb is seen, `along` it from its beginning. */
  readonly seenOn: (side: Side, limb: Along, along: number) => Seen
  readonly text: (point: Point) => string
  readonly closed: (points: readonly Point[]) => string
  readonly line: (points: readonly Point[]) => string
  readonly put: (
    layer: Layer,
    tone: FlatPiece['tone'],
    d: string,
    near: number,
    width?: number,
  ) => void
}

/** Where a limb goes at rest, and what carries it. */
export interface Along {
  readonly from: Vec
  readonly way: Vec
  readonly chain: Chain
}

const n = (value: number) => value.toFixed(1)
const rig = newRig()
const [one, other] = [newV3(), newV3()]

/** How near some points are in the mean. */
export const nearOf = (points: readonly Seen[]): number =>
  points.reduce((sum, { near }) => sum + near, 0) / points.length

export function penFor(pose: Pose, view: View): FlatPen {
  const scale = heightOf(pose)
  layBones(rig, pose, scale)
  const [overX = 0, overZ = 0] = pose.over
  const high = view === 'above' ? -90 : 0
  const pieces: Piece[] = []
  const seen = (point: Vec, by: Carried): Seen => {
    carryPoint(one, rig.rows, by.first, point)
    carryPoint(other, rig.rows, by.second, point)
    const at = (i: number) => mix(other[i] as number, one[i] as number, by.share) * scale
    return seenPoint(at(0) - overX, at(1), -at(2) - overZ, view)
  }
  const text = ({ right, up }: Point) => `${n(right * 100)} ${n(high - up * 100)}`
  const line = (points: readonly Point[]) => `M${points.map(text).join('L')}`
  return {
    view,
    scale,
    pieces,
    seen,
    seenOn(side, { from, way, chain }, along) {
      const by = chain(along)
      const [x, y, z] = plus(from, way, along)
      return side === 'R' ? seen([x, y, z], by) : seen([-x, y, z], mirrored(by))
    },
    text,
    line,
    closed: (points) => `${line(points)}Z`,
    put(layer, tone, d, near, width = 0) {
      pieces.push({ layer, tone, d, near, width })
    },
  }
}

/** How tall a dancer is against 1.65 m, by her shin: bones are never stretched. */
function heightOf({ joints }: Pose): number {
  const { knee, ankle } = jointsOfSide.R
  const off = [0, 1, 2].map((i) => (joints[knee + i] as number) - (joints[ankle + i] as number))
  return Math.hypot(...off) / BODY.shin || 1
}
