import type { Layer } from '../body/layers'
import { SIDES } from '../body/side'
import type { Joint, Pose } from './joints'
import { BAND_RING, LAST_HIP_RING, RING_COUNT, RING_SIZE, trunkInto } from './trunkShape'
import { type Seen, seen, seenPoint, type View } from './views'

/** One piece of a flat drawing, in centimetres: right is right, down is down. */
export interface FlatPiece {
  readonly layer: Layer
  /** What is drawn: limbs as lines with a width, bodies as filled outlines. */
  readonly d: string
  /** Width of the line; 0 for a filled outline. */
  readonly width: number
  readonly tone: 'cloth' | 'skin' | 'hair' | 'band'
}

/** How large a flat drawing is, in centimetres: the floor is at the bottom. */
export const FLAT = { left: -90, top: -205, width: 180, height: 215 } as const

const n = (value: number) => value.toFixed(1)

/** A pose drawn flat as an SVG would draw it, the farthest pieces first. */
export function flatOf(pose: Pose, view: View): readonly FlatPiece[] {
  const high = view === 'above' ? -90 : 0
  const point = ({ right, up }: Seen) => `${n(right * 100)} ${n(high - up * 100)}`
  const pieces: { near: number; piece: FlatPiece }[] = []
  const line = (layer: Layer, tone: FlatPiece['tone'], width: number, ...joints: Joint[]) => {
    const points = joints.map((joint) => seen(pose, joint, view))
    const near = points.reduce((sum, one) => sum + one.near, 0) / points.length
    pieces.push({ near, piece: { layer, tone, width, d: `M${points.map(point).join('L')}` } })
  }
  for (const side of SIDES) {
    line('feet', 'cloth', 11, `hip${side}`, `knee${side}`, `ankle${side}`)
    line('feet', 'skin', 7, `heel${side}`, `ball${side}`, `toe${side}`)
    line('arms', 'cloth', 8, `shoulder${side}`, `elbow${side}`)
    line('arms', 'skin', 6.5, `elbow${side}`, `wrist${side}`)
    line('arms', 'skin', 6, `wrist${side}`, `fingers${side}`)
  }
  line('torso', 'cloth', 9, 'shoulderR', 'neck', 'shoulderL')
  line('head', 'skin', 8, 'neck', 'head')
  const rings = new Float64Array(RING_COUNT * RING_SIZE)
  trunkInto(pose, rings)
  const outline = (from: number, to: number): { d: string; near: number } => {
    const [left, right]: [string[], string[]] = [[], []]
    let near = 0
    for (let ring = from; ring <= to; ring++) {
      const { middle, half } = edgeOf(pose, rings, ring, view)
      near += middle.near / (to - from + 1)
      right.push(point({ ...middle, right: middle.right + half.right, up: middle.up + half.up }))
      left.unshift(point({ ...middle, right: middle.right - half.right, up: middle.up - half.up }))
    }
    return { d: `M${[...right, ...left].join('L')}Z`, near }
  }
  const torso = outline(LAST_HIP_RING, RING_COUNT - 1)
  pieces.push({ near: torso.near, piece: { layer: 'torso', tone: 'cloth', width: 0, d: torso.d } })
  const hips = outline(0, LAST_HIP_RING)
  pieces.push({ near: hips.near, piece: { layer: 'hips', tone: 'cloth', width: 0, d: hips.d } })
  const band = edgeOf(pose, rings, BAND_RING, view)
  pieces.push({
    near: hips.near + 0.01,
    piece: {
      layer: 'hips',
      tone: 'band',
      width: 3,
      d: `M${point(shifted(band.middle, band.half, -1))}L${point(shifted(band.middle, band.half, 1))}`,
    },
  })
  const head = seen(pose, 'head', view)
  const back = seenPoint(
    -0.06 * part(pose.head, 6),
    -0.06 * part(pose.head, 7),
    -0.06 * part(pose.head, 8),
    view,
  )
  pieces.push({
    near: head.near,
    piece: { layer: 'head', tone: 'skin', width: 0, d: round(head, 8, 10.5, high) },
  })
  const knot = {
    right: head.right + back.right * 1.6,
    up: head.up + 0.03 + back.up,
    near: head.near + back.near,
  }
  pieces.push({
    near: knot.near,
    piece: { layer: 'head', tone: 'hair', width: 0, d: round(knot, 5.5, 5.5, high) },
  })
  const hair = {
    right: head.right + back.right * 0.5,
    up: head.up + 0.025,
    near: head.near + back.near * 0.5,
  }
  pieces.push({
    near: hair.near,
    piece: { layer: 'head', tone: 'hair', width: 0, d: round(hair, 8.2, 9, high) },
  })
  return pieces.sort((a, b) => a.near - b.near).map(({ piece }) => piece)
}

const part = (numbers: Float64Array, i: number): number => numbers[i] ?? 0
const shifted = (middle: Seen, half: Seen, by: number): Seen => ({
  right: middle.right + half.right * by,
  up: middle.up + half.up * by,
  near: middle.near,
})

function round({ right, up }: Seen, rx: number, ry: number, high: number): string {
  const [x, y] = [right * 100, high - up * 100]
  return `M${n(x - rx)} ${n(y)}a${rx} ${ry} 0 1 0 ${2 * rx} 0a${rx} ${ry} 0 1 0 ${-2 * rx} 0Z`
}

/** The middle of a ring in the picture, and the way from it to its right edge there. */
function edgeOf(
  pose: Pose,
  rings: Float64Array,
  ring: number,
  view: View,
): { middle: Seen; half: Seen } {
  const o = ring * RING_SIZE
  const at = (i: number) => rings[o + i] ?? 0
  const middle = seenPoint(at(0) - part(pose.over, 0), at(1), at(2) - part(pose.over, 1), view)
  const aside = seenPoint(at(3), at(4), at(5), view)
  const ahead = seenPoint(at(6), at(7), at(8), view)
  // The widest point of an ellipse seen from there.
  const wide = Math.hypot(aside.right, ahead.right) || 1e-9
  const up = (aside.right * aside.up + ahead.right * ahead.up) / wide
  return { middle, half: { right: wide, up, near: 0 } }
}
