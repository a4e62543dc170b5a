import type { PerspectiveCamera } from 'three'
import type { Layer } from '../core/body/layers'
import { placeOfJoint } from '../core/pose/joints'
import type { MoveLoop } from '../core/pose/moveLoop'
import type { View } from '../core/pose/views'
import type { OnStage } from './onStage'

/** What is looked at: all of the dancer, the part of her that a layer moves, or her hands before her. */
export type Frame = 'all' | Layer | 'hands'

/** What a move that is danced by itself is seen on. */
export const frameOf = ({ isOfHands, layer }: Pick<MoveLoop, 'isOfHands' | 'layer'>): Frame =>
  isOfHands ? 'hands' : layer

interface Framing {
  /** What the picture is about; for all of her the floor point she is over. */
  readonly on: 'over' | 'pelvis' | 'chest' | 'head'
  /** Where the middle of the picture is over that, and how much of the room is seen up and down, in metres. */
  readonly up: number
  readonly high: number
  /** How high the camera stands over the middle, as a share of its distance. */
  readonly lift: number
}

const FRAMES: Readonly<Record<Frame, Framing>> = {
  all: { on: 'over', up: 0.99, high: 2.2, lift: 0.11 },
  hips: { on: 'pelvis', up: -0.02, high: 0.86, lift: 0.05 },
  torso: { on: 'chest', up: 0.02, high: 0.92, lift: 0.03 },
  arms: { on: 'chest', up: 0.14, high: 1.62, lift: 0.05 },
  hands: { on: 'chest', up: 0.02, high: 0.74, lift: 0.08 },
  feet: { on: 'over', up: 0.3, high: 0.95, lift: 0.16 },
  legs: { on: 'over', up: 0.5, high: 1.3, lift: 0.1 },
  head: { on: 'head', up: -0.03, high: 0.58, lift: 0.02 },
}
/** Where a part usually is, in metres: the camera follows its height only a little. */
const USUAL_UP = { pelvis: 0.91, chest: 1.27, head: 1.59 } as const
/** How much of a part's way the camera goes along with: the frame stands still, the hips move. */
const FOLLOWS = { aside: 0.15, up: 0.4 } as const
/** How high the camera stands to see what goes round, as a share of its distance. */
const RAISED = 0.42
/** What goes farther than this from where it usually is, in metres, takes the camera along. */
const STAYS_WITHIN = 0.14
/** How wide a dancer is, as a share of how high the picture is. */
const WIDE = 0.62
/** The camera's opening, in degrees: long enough that nothing near is blown up. */
export const OPENING = 26
const ABOVE_MORE = 1.1
const ABOVE_UP = 0.9

/** How far round the dancer each view stands, in radians from behind. */
const TURNS: Readonly<Record<Exclude<View, 'above'>, number>> = {
  behind: 0,
  side: Math.PI / 2,
  mirror: Math.PI,
  facing: Math.PI,
  partner: 0,
}
export const turnOf = (view: View): number => (view === 'above' ? 0 : TURNS[view])

/** How wide somebody sees who stands near, in degrees. */
const EYES = 74
/** How far before the middle of her head her eyes are, in metres. */
const EYES_AHEAD = 0.1

/** Where a camera looks, in the room as three has it, and how far apart the dancers stand there. */
export interface Aimed {
  readonly x: number
  readonly z: number
  readonly spread: number
}

/** A little of the way of a part, and all of it once it would leave the picture. */
function followed(off: number, share: number): number {
  const over = Math.max(0, Math.abs(off) - STAYS_WITHIN)
  return off * share + Math.sign(off) * over * (1 - share)
}

/** Looks through the eyes of one dancer at the middle of the others. */
function aimFrom(camera: PerspectiveCamera, own: OnStage, others: readonly OnStage[]): Aimed {
  const joint = ({ pose }: OnStage, name: 'head' | 'chest') => {
    const at = placeOfJoint[name]
    return [pose.joints[at] ?? 0, pose.joints[at + 1] ?? 0, -(pose.joints[at + 2] ?? 0)] as const
  }
  const [x, y, z] = joint(own, 'head')
  const to = [0, 1, 2].map(
    (k) => others.reduce((sum, one) => sum + (joint(one, 'chest')[k] ?? 0), 0) / others.length,
  )
  const [tx = 0, ty = 0, tz = 0] = to
  const far = Math.hypot(tx - x, tz - z) || 1
  camera.up.set(0, 1, 0)
  camera.position.set(x + ((tx - x) / far) * EYES_AHEAD, y, z + ((tz - z) / far) * EYES_AHEAD)
  camera.lookAt(tx, ty - 0.1, tz)
  return { x: tx, z: tz, spread: far }
}

/** Points the camera at the dancers. */
export function aim(
  camera: PerspectiveCamera,
  figures: readonly OnStage[],
  view: View,
  frame: Frame,
  aspect: number,
  isRaised = false,
): Aimed {
  const viewer = view === 'partner' ? figures.find(({ isViewer }) => isViewer) : undefined
  const opening = viewer ? EYES : OPENING
  if (camera.fov !== opening) {
    camera.fov = opening
    camera.updateProjectionMatrix()
  }
  if (viewer) {
    const others = figures.filter((one) => one !== viewer)
    if (others.length > 0) return aimFrom(camera, viewer, others)
  }
  const { on, up, high, lift } = FRAMES[frame]
  const isSide = view === 'side'
  const isMirror = view === 'mirror'
  let x = 0
  let y = 0
  let z = 0
  let left = Number.POSITIVE_INFINITY
  let right = Number.NEGATIVE_INFINITY
  for (const { pose, aside } of figures) {
    const [overX = 0, overZ = 0] = pose.over
    // From the side they stand one before the other in the room, or one would hide the other.
    const dx = isSide ? 0 : aside
    const dz = isSide ? -aside : 0
    const share = 1 / figures.length
    if (on === 'over') {
      x += (overX + dx) * share
      z += (-overZ + dz) * share
    } else {
      const at = placeOfJoint[on]
      const [jx = 0, jy = 0, jz = 0] = pose.joints.subarray(at, at + 3)
      x += (overX + followed(jx - overX, FOLLOWS.aside) + dx) * share
      z += (-overZ - followed(jz - overZ, FOLLOWS.aside) + dz) * share
      y += (USUAL_UP[on] + followed(jy - USUAL_UP[on], FOLLOWS.up)) * share
    }
    const across = isSide ? overZ + aside : overX + aside
    left = Math.min(left, across)
    right = Math.max(right, across)
  }
  const spread = figures.length > 0 ? right - left : 0
  const seen = { x: isMirror ? -x : x, z, spread }
  const half = Math.tan((OPENING * Math.PI) / 360)
  const far = Math.max(high / 2 / half, (high * WIDE + spread) / 2 / half / aspect)
  camera.up.set(0, 1, 0)
  if (view === 'above') {
    camera.up.set(0, 0, -1)
    camera.position.set(seen.x, far + ABOVE_MORE, z + 0.001)
    camera.lookAt(seen.x, ABOVE_UP, z)
    return seen
  }
  const turn = turnOf(view)
  camera.position.set(
    seen.x + Math.sin(turn) * far,
    y + up + (isRaised ? RAISED : lift) * far,
    z + Math.cos(turn) * far,
  )
  camera.lookAt(seen.x, y + up, z)
  return seen
}
