import type { Anatomy } from './anatomy'
import {
  ARM_FROM,
  armChain,
  type Carried,
  LEG_FROM,
  legChain,
  otherBone,
  SIDE_BONES,
  spineChain,
} from './bones'
import { mix, smooth, type Vec } from './field'
import { alongArm, alongLeg } from './rest'

const JAW = 0.4

const { foot, toes } = SIDE_BONES.R

/**
 * Which bones carry a place of the skin. It hangs on the place alone, so that parts of the body
 * that overlap move as one.
 */
export function carriedAt({ trunkTube, arm, leg }: Anatomy, [x, y, z]: Vec): Carried {
  if (x < 0) return mirrored(carriedAt({ trunkTube, arm, leg } as Anatomy, [-x, y, z]))
  // The jaw goes with the head, the nape with the neck.
  if (y > 1.46 && x < 0.11) return spineChain(y - JAW * z)
  const inTrunk = trunkTube(x, y, z)
  if (y > 0.8 && x > 0.05) {
    const share = smooth(-0.035, 0.03, inTrunk - arm(x, y, z))
    const along = mix(ARM_FROM, alongArm(x, y), share)
    if (share > 0 && along > ARM_FROM) return armChain(along)
  }
  if (y < 1) {
    const share =
      smooth(-0.045, 0.045, inTrunk - leg(x, y, z)) *
      mix(1, smooth(-0.005, 0.05, x), smooth(0.72, 0.8, y))
    const down = alongLeg(x, y)
    if (down > 0.7) {
      const ahead = smooth(0.115, 0.145, -z)
      if (ahead > 0) return { first: foot, second: toes, share: 1 - ahead }
    }
    const along = mix(LEG_FROM, down > 0.7 ? down + 0.8 * Math.max(0, -z - 0.028) : down, share)
    if (along > LEG_FROM) return legChain(along)
  }
  return spineChain(y)
}

export const mirrored = ({ first, second, share }: Carried): Carried => ({
  first: otherBone(first),
  second: otherBone(second),
  share,
})
