import type { PartId } from '../combination/whose'
import type { DancedMeeting } from '../simulate/company'
import { ticksFrom } from '../time/timeMap'
import { eased } from './curve'
import type { Dancer } from './dancer'
import { JOINTS, newPose, type Pose, placeOfJoint } from './joints'

/** Who gives half of her weight to another one tilts so far towards her, in radians (h). */
const TILT = (8 * Math.PI) / 180
const TILT_SHARE = 50
/** She goes into a lean, and out of it, over so many seconds. */
const LEAN_SECONDS = 0.5

const BELOW = /^(pelvis|heel|ankle|ball|toe|knee|hip|crest)/
/** Where the joints over the pelvis begin in the numbers of a pose. */
const OVER_PELVIS = JOINTS.filter((joint) => !BELOW.test(joint)).map((joint) => placeOfJoint[joint])

interface Lean {
  readonly other: Dancer
  /** Radians, when she is all the way in it. */
  readonly angle: number
  readonly from: number
  readonly there: number
  readonly until: number
  readonly gone: number
}

/**
 * A dancer whose partners carry some of her weight: her trunk tilts towards them while they do.
 * @param partner another dancer as she would be without any meeting
 */
export function leaningDancer(
  dancer: Dancer,
  part: PartId,
  meetings: readonly DancedMeeting[],
  partner: (part: PartId) => Dancer | undefined,
): Dancer {
  const { time } = dancer.simulation
  const leans = meetings.flatMap(({ meeting: { what }, from, until }): readonly Lean[] => {
    const other = what.kind === 'support' && what.of === part ? partner(what.by) : undefined
    if (what.kind !== 'support' || !other) return []
    const there = Math.min(from + ticksFrom(time, from, LEAN_SECONDS), (from + until) / 2)
    const gone = until + ticksFrom(time, until, LEAN_SECONDS)
    return [{ other, angle: (TILT * what.share) / TILT_SHARE, from, there, until, gone }]
  })
  if (leans.length === 0) return dancer
  const theirs = newPose()
  return {
    ...dancer,
    poseAt(tick, into) {
      const pose = dancer.poseAt(tick, into)
      for (const { other, angle, from, there, until, gone } of leans) {
        if (tick <= from || tick >= gone) continue
        const coming = eased(Math.min(1, (tick - from) / (there - from)))
        const going = tick > until ? eased((gone - tick) / (gone - until)) : 1
        tilt(pose, other.poseAt(tick, theirs), angle * Math.min(coming, going))
      }
      return pose
    },
  }
}

/** Tilts all over the pelvis towards somebody. */
function tilt({ joints, chest, head, palms }: Pose, theirs: Pose, angle: number): void {
  const { pelvis } = placeOfJoint
  const x = (theirs.joints[pelvis] as number) - (joints[pelvis] as number)
  const z = (theirs.joints[pelvis + 2] as number) - (joints[pelvis + 2] as number)
  const far = Math.hypot(x, z)
  if (far < 1e-6) return
  const [right, forward] = [x / far, z / far]
  const [cos, sin] = [Math.cos(angle), Math.sin(angle)]
  const turned = (of: Float64Array, at: number, from: Float64Array | undefined, origin: number) => {
    const [ox, oy, oz] = from
      ? [from[origin] as number, from[origin + 1] as number, from[origin + 2] as number]
      : [0, 0, 0]
    const up = (of[at + 1] as number) - oy
    const along = ((of[at] as number) - ox) * right + ((of[at + 2] as number) - oz) * forward
    const by = along * cos + up * sin - along
    of[at] = (of[at] as number) + by * right
    of[at + 2] = (of[at + 2] as number) + by * forward
    of[at + 1] = oy + up * cos - along * sin
  }
  for (const at of OVER_PELVIS) turned(joints, at, joints, pelvis)
  for (let at = 0; at < 9; at += 3) {
    turned(chest, at, undefined, 0)
    turned(head, at, undefined, 0)
  }
  for (let at = 0; at < 6; at += 3) turned(palms, at, undefined, 0)
}
