import { describe, expect, it } from 'vitest'
import { SIDES } from '../body/side'
import { vocabulary } from '../moves/vocabulary'
import { type Joint, jointOf, newPose, type Pose } from '../pose/joints'
import { moveLoop } from '../pose/moveLoop'

type Point = readonly [number, number, number]

const minus = (a: Point, b: Point): Point => [a[0] - b[0], a[1] - b[1], a[2] - b[2]]
const dot = (a: Point, b: Point) => a[0] * b[0] + a[1] * b[1] + a[2] * b[2]
const between = (a: Point, b: Point, t: number): Point => [
  a[0] + (b[0] - a[0]) * t,
  a[1] + (b[1] - a[1]) * t,
  a[2] + (b[2] - a[2]) * t,
]
const held = (value: number) => Math.min(1, Math.max(0, value))

/** A part of the body: between two points, so thick. */
interface Capsule {
  readonly name: string
  readonly from: Point
  readonly to: Point
  readonly thick: number
}

/** How deep one part is in another, in metres; below 0 where they are apart. */
function depth(one: Capsule, other: Capsule): number {
  const [a, b] = [minus(one.to, one.from), minus(other.to, other.from)]
  const r = minus(one.from, other.from)
  const [aa, bb, ab, ar, br] = [dot(a, a), dot(b, b), dot(a, b), dot(a, r), dot(b, r)]
  const flat = aa * bb - ab * ab
  let s = flat > 1e-12 ? held((ab * br - ar * bb) / flat) : 0
  let t = (ab * s + br) / bb
  if (t < 0) s = held(-ar / aa)
  else if (t > 1) s = held((ab - ar) / aa)
  t = held(t)
  const off = minus(between(one.from, one.to, s), between(other.from, other.to, t))
  return one.thick + other.thick - Math.hypot(...off)
}

/** The arms, and what they must not go through; the legs from above the knee down. */
function partsOf(pose: Pose) {
  const at = (joint: Joint) => jointOf(pose, joint)
  const part = (name: string, from: Point, to: Point, thick: number): Capsule => ({
    name,
    from,
    to,
    thick,
  })
  const arms = SIDES.flatMap((side) => {
    const [elbow, wrist] = [at(`elbow${side}`), at(`wrist${side}`)]
    return [
      part('upper arm', between(at(`shoulder${side}`), elbow, 0.45), elbow, 0.034),
      part('forearm', elbow, between(elbow, wrist, 0.9), 0.026),
      part('hand', wrist, between(wrist, at(`fingers${side}`), 0.9), 0.014),
    ]
  })
  const trunk = [
    part(
      'chest',
      between(at('chest'), at('waist'), 0.1),
      between(at('chest'), at('neck'), 0.35),
      0.092,
    ),
    part('waist', at('waist'), between(at('waist'), at('pelvis'), 0.3), 0.075),
    part('hips', at('pelvis'), between(at('pelvis'), at('waist'), 0.2), 0.1),
    part('head', at('head'), between(at('head'), at('neck'), 0.3), 0.075),
  ]
  const legs = SIDES.map((side) => [
    part('shin', at(`knee${side}`), at(`ankle${side}`), 0.034),
    part('foot', at(`heel${side}`), at(`toe${side}`), 0.028),
  ])
  return { arms, trunk, legs }
}

/**
 * How deep parts may be in each other, in metres: hands touch where that is the move, and a quick
 * crossing brushes the other foot for a moment.
 */
const TOUCHES: Readonly<Record<string, number>> = {
  'cross-walk': 0.028,
  'samba-whisk': 0.018,
  clap: 0.023,
  'lotus-hands': 0.029,
  'fold-drop': 0.029,
}
const AT_MOST = 0.01
/** Looks at each move. */
const LOOKS = 48

describe('the parts of the body in the vocabulary’s own moves', () => {
  it('do not go through each other: arms through trunk and head, arm through arm, leg through leg', () => {
    const pose = newPose()
    const through = new Set<string>()
    for (const move of vocabulary.moves)
      for (const side of SIDES) {
        const loop = moveLoop(move, side, vocabulary)
        const most = TOUCHES[move.id] ?? AT_MOST
        const look = (some: readonly Capsule[], others: readonly Capsule[], deep: number) => {
          for (const one of some)
            for (const other of others)
              if (depth(one, other) > deep) through.add(`${move.id}: ${one.name}, ${other.name}`)
        }
        for (let i = 0; i < LOOKS; i++) {
          loop.dancer.poseAt((i * loop.length) / LOOKS, pose)
          const { arms, trunk, legs } = partsOf(pose)
          const [right = [], left = []] = legs
          look(arms, trunk, AT_MOST)
          look(arms.slice(0, arms.length / 2), arms.slice(arms.length / 2), most)
          look(right, left, most)
        }
      }
    expect([...through]).toEqual([])
  })
})
