import { type ArmPlace, type Palms, palmAt } from '../body/places'
import { type Side, signOf } from '../body/side'
import { BODY } from './proportions'

type Three = readonly [number, number, number]

/** How the arm is held at a place, for the right one: right, up, forward (house directions). */
interface Holding {
  /** Where the fingers point. */
  readonly fingers: Three
  /** Where the elbow points, away from the line from shoulder to wrist. */
  readonly elbow: Three
  /** Where the palm looks. */
  readonly palm: Three
  /** How much of it goes with the hips, goes with the head, or hangs down, 0 to 1. */
  readonly hips?: number
  readonly head?: number
  readonly hangs?: number
}

const HOLDING: Readonly<Record<ArmPlace, Holding>> = {
  low: { fingers: [0.15, -1, 0.1], elbow: [0.5, 0, -1], palm: [-1, 0, 0], hangs: 1 },
  'low-v': {
    fingers: [0.6, -0.75, 0.2],
    elbow: [0.3, 0.2, -1],
    palm: [-0.3, -0.3, 0.9],
    hangs: 0.6,
  },
  'demi-second': { fingers: [0.85, -0.4, 0.25], elbow: [0, -0.3, -1], palm: [0, -0.7, 0.7] },
  hips: { fingers: [-0.5, -0.5, 0.8], elbow: [1, 0, -0.5], palm: [-1, 0, 0], hips: 1 },
  second: { fingers: [0.98, 0.05, 0.15], elbow: [0, -0.7, -0.7], palm: [0, -0.8, 0.6] },
  level: { fingers: [-1, 0, 0.1], elbow: [1, -0.2, 0], palm: [0, -1, 0] },
  front: { fingers: [0, 0.05, 1], elbow: [0.7, -0.7, 0], palm: [0, -1, 0] },
  'front-low': { fingers: [0, -0.45, 0.9], elbow: [0.8, -0.3, -0.4], palm: [0, -0.9, -0.4] },
  'front-high': { fingers: [0, 0.7, 0.7], elbow: [0.9, -0.5, 0], palm: [0, -0.6, 0.8] },
  'high-v': { fingers: [0.55, 0.82, 0.1], elbow: [0.6, -0.3, -0.7], palm: [-0.7, 0.4, 0.5] },
  crown: { fingers: [-0.75, 0.65, 0.1], elbow: [1, 0, 0.1], palm: [-0.3, -0.9, 0.2] },
  'diagonal-up': { fingers: [0.65, 0.75, 0.15], elbow: [0.3, -0.5, -0.8], palm: [-0.4, 0.3, 0.8] },
  'diagonal-down': { fingers: [0.65, -0.7, 0.2], elbow: [0.2, 0.1, -1], palm: [0, -0.4, 0.9] },
  prayer: { fingers: [-0.05, 0.95, 0.3], elbow: [1, -0.6, 0], palm: [-1, 0, 0] },
  'cross-chest': { fingers: [-0.65, 0.75, -0.05], elbow: [0.9, -0.5, 0.3], palm: [0, -0.2, -1] },
  'cross-low': { fingers: [-0.6, -0.75, 0.1], elbow: [1, 0, 0], palm: [0, 0, -1], hangs: 0.5 },
  temple: { fingers: [-0.35, 0.9, -0.2], elbow: [1, -0.3, 0.3], palm: [-1, 0, -0.3], head: 1 },
  brow: { fingers: [-0.95, 0.2, 0.1], elbow: [1, -0.3, 0.1], palm: [0, -1, 0.2], head: 1 },
  cheek: { fingers: [-0.2, 0.95, -0.25], elbow: [1, -0.8, 0.2], palm: [-1, 0, 0], head: 1 },
  ear: { fingers: [-0.3, 0.9, -0.2], elbow: [1, -0.1, 0], palm: [-1, 0, 0], head: 1 },
  'behind-head': { fingers: [-0.95, 0.25, 0], elbow: [1, 0.3, 0], palm: [0, 0, 1], head: 1 },
  'behind-back': { fingers: [-0.95, 0.25, 0], elbow: [1, 0, -0.6], palm: [0, 0, -1], hips: 0.8 },
  'shoulder-opposite': {
    fingers: [-0.85, 0.5, -0.15],
    elbow: [0.6, -0.9, 0.3],
    palm: [0, -0.2, -1],
  },
  lips: { fingers: [-0.45, 0.85, -0.1], elbow: [1, -0.9, 0.3], palm: [-0.3, 0, -1], head: 1 },
  eyes: { fingers: [-0.8, 0.55, 0], elbow: [1, -0.6, 0.3], palm: [0, 0, -1], head: 1 },
  heart: { fingers: [-0.85, 0.5, -0.1], elbow: [1, -0.6, 0.2], palm: [0, 0, -1] },
  waist: { fingers: [-0.6, -0.2, 0.75], elbow: [1, -0.3, -0.3], palm: [0, -0.9, -0.4], hips: 0.4 },
  thigh: { fingers: [-0.1, -0.9, 0.4], elbow: [0.9, 0, -0.5], palm: [-0.3, 0.2, -1], hips: 0.8 },
  knee: { fingers: [-0.1, -0.75, 0.65], elbow: [0.9, 0, -0.4], palm: [0, -0.6, -0.8] },
  floor: { fingers: [0, -0.85, 0.5], elbow: [0.8, 0.1, -0.4], palm: [0, -0.5, -0.9] },
  'head-top': { fingers: [-0.9, 0.25, 0], elbow: [1, 0.4, 0.1], palm: [0, -1, 0], head: 1 },
  'low-middle': { fingers: [-0.3, -0.6, 0.75], elbow: [0.9, -0.1, -0.3], palm: [0, 0.9, -0.3] },
  across: { fingers: [-0.9, 0.05, 0.45], elbow: [0.5, -0.8, 0.3], palm: [0.2, -0.9, 0.3] },
  corner: { fingers: [0.7, 0.05, 0.7], elbow: [0.2, -0.9, -0.3], palm: [0, -0.9, 0.4] },
  'corner-across': { fingers: [-0.6, 0.05, 0.8], elbow: [0.7, -0.8, 0.2], palm: [0, -0.9, 0.3] },
}

/**
 * An arm as numbers in the chest's frame: the palm, how the hand is bent against the forearm,
 * where the elbow points, where the palm looks, how much goes with hips and head, how much hangs.
 */
export const ARM_SIZE = 15
export const ARM = {
  palm: 0,
  fingers: 3,
  elbow: 6,
  looks: 9,
  hips: 12,
  head: 13,
  hangs: 14,
} as const

const unit = ([x, y, z]: Three): Three => {
  const long = Math.hypot(x, y, z)
  return [x / long, y / long, z / long]
}

/** The arm of a side at a named place. */
export function armAtPlace(side: Side, place: ArmPlace, palms: Palms): number[] {
  const { right, up, forward } = palmAt(side, place, palms)
  const { fingers, elbow, palm, hips = 0, head = 0, hangs = 0 } = HOLDING[place]
  const sign = signOf(side)
  const across = ([x, y, z]: Three): number[] => [sign * x, y, z]
  return [
    right,
    up,
    forward,
    ...across(unit(fingers)),
    ...across(unit(elbow)),
    ...across(unit(palm)),
    hips,
    head,
    hangs,
  ]
}

/** From the wrist to the middle of the palm, in metres. */
export const WRIST_TO_PALM = BODY.hand / 2

/** Where hands must not go, in the chest's frame: half as wide and deep, from down to up. */
const TRUNK = { aside: 0.185, deep: 0.135, from: -0.46, to: 0.17 } as const
const HEAD = { up: BODY.headAboveChest, radius: 0.125 } as const
const CLEAR = 0.03

/** How far a point is outside the body; below 0 within it. */
function outside(x: number, y: number, z: number): number {
  const round = Math.hypot(x / TRUNK.aside, z / TRUNK.deep)
  const trunk = y > TRUNK.from && y < TRUNK.to ? (round - 1) * TRUNK.deep : 1
  return Math.min(trunk, Math.hypot(x, y - HEAD.up, z) - HEAD.radius)
}

const DETOURS: readonly Three[] = [
  [1, 0, 0],
  [0.8, 0, 0.6],
  [0.8, 0, -0.6],
  [0.4, 0, 0.9],
  [0.5, 0.6, 0.6],
]
const DETOUR_STEP = 0.06
const MOST_DETOUR = 9

/**
 * How far a palm must swing out on its way so that it goes round the trunk and the head: right,
 * up and forward at the middle of the way, for the right arm.
 */
export function detourBetween(from: Three, to: Three): Three {
  // A place may itself lie close to the body: no way there can be clearer than its ends.
  const needs = Math.min(CLEAR, outside(...from) - 1e-6, outside(...to) - 1e-6)
  for (let step = 0; step <= MOST_DETOUR; step++)
    for (const [x, y, z] of DETOURS) {
      const by = step * DETOUR_STEP
      const out: Three = [x * by, y * by, z * by]
      if (isClear(from, to, out, needs)) return out
    }
  return [MOST_DETOUR * DETOUR_STEP, 0, 0]
}

function isClear(from: Three, to: Three, out: Three, needs: number): boolean {
  for (let i = 1; i < 16; i++) {
    const s = i / 16
    const bulge = 4 * s * (1 - s)
    const point = [0, 1, 2].map(
      (k) => (from[k] ?? 0) + ((to[k] ?? 0) - (from[k] ?? 0)) * s + (out[k] ?? 0) * bulge,
    )
    if (outside(point[0] ?? 0, point[1] ?? 0, point[2] ?? 0) < needs) return false
  }
  return true
}
