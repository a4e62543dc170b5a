import { SIDES, type Side } from '../body/side'
import type { DancerHair } from '../house/dancerLook'
import { jointsOfSide, newPose, type Pose, placeOfJoint } from '../pose/joints'
import { braidOf } from './braid'
import { clamp } from './field'
import { fringeOf, hangCoins } from './fringe'
import type { Hanging } from './hanging'
import { layBones } from './layBones'
import type { Rig } from './rig'
import { skirtOf } from './skirt'
import { FRAME_SIZE, frameOf, MOMENTS_AGO, swingWeights } from './swing'
import type { WornHips } from './worn'

/** A dancer a little before, so that what hangs knows where it comes from. */
export type Before = (ticks: number, into: Pose) => Pose

/** All that hangs on a dancer. */
export interface HangingThings {
  readonly strands: Hanging | undefined
  readonly skirt: Hanging | undefined
  readonly braid: Hanging | undefined
  /** Nine numbers a coin: where it is, where it looks, and which way it hangs. */
  readonly coins: Float32Array
  /**
   * Lays the bones, with the fingers as they trail, and hangs all else as it hangs at a moment: in
   * the pose, and after those shortly before.
   * @param before absent for a pose that stands still; @param ticksASecond how fast they go by.
   */
  readonly hang: (
    rig: Rig,
    pose: Pose,
    scale: number,
    before: Before | undefined,
    ticksASecond: number,
  ) => void
}

const FAST = swingWeights(3.4, 0.22)
const SLOW = swingWeights(1.9, 0.3)
const HAIR = swingWeights(1.5, 0.4)
/** Makes what hangs, ready to be hung again and again. */
export function hangingThings(
  { strands, coins, panels }: WornHips,
  hair: DancerHair,
): HangingThings {
  const lag = {
    fast: new Float64Array(FRAME_SIZE),
    slow: new Float64Array(FRAME_SIZE),
    head: new Float64Array(FRAME_SIZE),
  }
  const now = new Float64Array(FRAME_SIZE)
  const nowHead = new Float64Array(FRAME_SIZE)
  const was = new Float64Array(FRAME_SIZE)
  const past = newPose()

  const look = (pose: Pose, scale: number, before: Before | undefined, ticks: number, rig: Rig) => {
    for (const one of [lag.fast, lag.slow, lag.head]) one.fill(0)
    rig.trailing.R = 0
    rig.trailing.L = 0
    if (!before) return
    frameOf(now, pose, pose.pelvis, 'pelvis', scale)
    frameOf(nowHead, pose, pose.head, 'head', scale)
    for (const [k, ago] of MOMENTS_AGO.entries()) {
      before(ago * ticks, past)
      frameOf(was, past, past.pelvis, 'pelvis', scale)
      for (let i = 0; i < FRAME_SIZE; i++) {
        const off = (was[i] as number) - (now[i] as number)
        lag.fast[i] = (lag.fast[i] as number) + (FAST[k] as number) * off
        lag.slow[i] = (lag.slow[i] as number) + (SLOW[k] as number) * off
      }
      frameOf(was, past, past.head, 'head', scale)
      for (let i = 0; i < FRAME_SIZE; i++)
        lag.head[i] =
          (lag.head[i] as number) +
          (HAIR[k] as number) * ((was[i] as number) - (nowHead[i] as number))
      if (k === 1) for (const side of SIDES) rig.trailing[side] = trailOf(pose, past, side, ago)
    }
  }

  const fringe = strands.length > 0 ? fringeOf(strands) : undefined
  const skirt = panels.length > 0 ? skirtOf(panels) : undefined
  const braid = hair === 'braid' ? braidOf() : undefined
  const coinNumbers = new Float32Array(9 * coins.length)
  return {
    strands: fringe?.drawn,
    skirt: skirt?.drawn,
    braid: braid?.drawn,
    coins: coinNumbers,
    hang(rig, pose, scale, before, ticksASecond) {
      look(pose, scale, before, ticksASecond, rig)
      // Only now: the fingers trail by what was looked at.
      layBones(rig, pose, scale)
      fringe?.hang(rig, pose, scale, lag)
      skirt?.hang(rig, pose, scale, lag)
      braid?.hang(rig, lag.head)
      hangCoins(coinNumbers, coins, rig, lag.fast)
    },
  }
}

/** Fingers trail the hand: by how fast the palm goes the way it looks. */
function trailOf(pose: Pose, past: Pose, side: Side, ago: number): number {
  const palm = jointsOfSide[side].palm
  const { chest } = placeOfJoint
  const o = side === 'R' ? 0 : 3
  let ahead = 0
  for (let i = 0; i < 3; i++)
    ahead +=
      ((pose.joints[palm + i] as number) -
        (pose.joints[chest + i] as number) -
        (past.joints[palm + i] as number) +
        (past.joints[chest + i] as number)) *
      (pose.palms[o + i] as number)
  return clamp((-ahead / ago) * 0.45, -0.4, 0.5)
}
