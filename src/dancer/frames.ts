import { otherSide, type Side } from '../core/body/side'
import type { Dancers } from '../core/performance/performance'
import { posedAt, type Seam } from '../core/performance/seam'
import type { Dancer } from '../core/pose/dancer'
import { type Joint, newPose, type Pose, placeOfJoint } from '../core/pose/joints'
import { areaOfOne } from '../core/space/space'
import { TICKS_PER_COUNT } from '../core/time/time'
import type { OnStage } from './stage'

/** How far apart two dancers stand at least, in metres. */
const APART = 1.35
/** The last counts a trail goes back, one mark for each tick. */
const TRAIL_TICKS = 30
const TRAILS: readonly Joint[] = ['crestR', 'crestL', 'palmR', 'palmL']

/** What is in a frame beside the dancer. */
export interface FrameChoice {
  /** The other side beside it. */
  readonly both: boolean
  /** The way of the joints over the last counts. */
  readonly trails: boolean
  /** The ghost of the next count's pose. */
  readonly next: boolean
}

/** Fills a frame of the stage again and again, without making anything new. */
export interface Frames {
  /** What is shown at a tick: the side, or it and the other one beside it. */
  readonly at: (
    side: Side,
    tick: number,
    choice: FrameChoice,
    seam?: Seam | undefined,
  ) => readonly OnStage[]
}

interface Slot {
  readonly pose: Pose
  readonly ghost: Pose
  readonly past: Pose
  readonly trails: readonly Float64Array[]
}

const newSlot = (): Slot => ({
  pose: newPose(),
  ghost: newPose(),
  past: newPose(),
  trails: TRAILS.map(() => new Float64Array(3 * TRAIL_TICKS)),
})

/** @param reads which joints leave a trail; by a chosen layer. */
export function createFrames(dancers: Dancers, joints: readonly Joint[]): Frames {
  const slots: readonly [Slot, Slot] = [newSlot(), newSlot()]
  // Far enough apart that they never meet, each on the side it dances.
  let known: { half: number; isRightBeside: boolean } | undefined
  const places = () => {
    if (known) return known
    const { left, right } = areaOfOne(dancers.R.simulation)
    known = {
      half: (APART + 2 * Math.min(right, Math.max(0, -left))) / 2,
      isRightBeside: -left <= right,
    }
    return known
  }
  const fill = (
    slot: Slot,
    dancer: Dancer,
    tick: number,
    aside: number,
    choice: FrameChoice,
    seam: Seam | undefined,
    next: Dancer,
  ): OnStage => {
    posedAt(dancer, tick, seam, next, slot.pose, slot.past)
    if (choice.next)
      dancer.poseAt((Math.floor(tick / TICKS_PER_COUNT) + 1) * TICKS_PER_COUNT, slot.ghost)
    if (choice.trails) fillTrails(slot, dancer, tick, joints)
    return {
      pose: slot.pose,
      aside,
      trails: choice.trails ? slot.trails.slice(0, joints.length) : [],
      ghost: choice.next ? slot.ghost : undefined,
    }
  }
  return {
    at(side, tick, choice, seam) {
      if (!choice.both)
        return [fill(slots[0], dancers[side], tick, 0, choice, seam, dancers[seam?.side ?? side])]
      const { half, isRightBeside } = places()
      const beside = (one: Side) => ((one === 'R') === isRightBeside ? half : -half)
      return [side, otherSide[side]].map((one, i) =>
        fill(slots[i === 0 ? 0 : 1], dancers[one], tick, beside(one), choice, seam, dancers[one]),
      )
    },
  }
}

/** The joints whose way is worth seeing. */
export const trailJoints = (only: string | undefined): readonly Joint[] =>
  only === 'arms'
    ? ['palmR', 'palmL']
    : only === 'torso' || only === 'head'
      ? [only === 'torso' ? 'chest' : 'head']
      : only === 'hips'
        ? ['crestR', 'crestL']
        : TRAILS

/** The way is carried along with the dancer, so that a circle stays a circle while she walks. */
function fillTrails(slot: Slot, dancer: Dancer, tick: number, joints: readonly Joint[]): void {
  const { over } = slot.pose
  for (let i = 0; i < TRAIL_TICKS; i++) {
    const past = dancer.poseAt(tick - (TRAIL_TICKS - 1 - i), slot.past)
    for (const [k, joint] of joints.entries()) {
      const trail = slot.trails[k]
      const at = placeOfJoint[joint]
      if (!trail) continue
      trail[3 * i] = (past.joints[at] ?? 0) + (over[0] ?? 0) - (past.over[0] ?? 0)
      trail[3 * i + 1] = past.joints[at + 1] ?? 0
      trail[3 * i + 2] = (past.joints[at + 2] ?? 0) + (over[1] ?? 0) - (past.over[1] ?? 0)
    }
  }
}
