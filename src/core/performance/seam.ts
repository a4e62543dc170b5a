import type { Dancing } from '../combination/dancing'
import { eased } from '../pose/curve'
import type { Dancer } from '../pose/dancer'
import { blendInto, type Pose } from '../pose/joints'

/** The end of a segment, where the next one already begins: how far it has gone over into that. */
export interface Seam {
  readonly dancing: Dancing
  /** Of the dance that follows; below 0, before its first count. */
  readonly tick: number
  /** 0 where it only begins, up to 1. */
  readonly share: number
}

/** The last ticks lead over into what follows: its first step is on the way already. */
const SEAM_TICKS = 9

/** The seam so many ticks before the next segment begins, from a tick of its side; none before it is near. */
export const seamBefore = (left: number, dancing: Dancing, from: number): Seam | undefined =>
  left < SEAM_TICKS
    ? { dancing, tick: from - left, share: eased(1 - left / SEAM_TICKS) }
    : undefined

/**
 * The pose of a dancer at a tick, gone over into the next one's as far as the seam has.
 * @param past a pose that is written over on the way
 */
export function posedAt(
  dancer: Dancer,
  tick: number,
  seam: Seam | undefined,
  next: Dancer,
  into: Pose,
  past: Pose,
): Pose {
  dancer.poseAt(tick, into)
  if (seam) blendInto(into, next.poseAt(seam.tick, past), seam.share)
  return into
}
