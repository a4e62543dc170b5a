import type { PartId } from '../combination/whose'
import type { DancedMeeting } from '../simulate/company'
import { ticksFrom } from '../time/timeMap'
import type { Dancer } from './dancer'
import { type Pose, placeOfJoint } from './joints'

/** Eyes take so long to find somebody, in seconds, and the head turns so far for it, in radians. */
const LOOK_SECONDS = 0.35
const LOOK = { aside: (80 * Math.PI) / 180, up: (25 * Math.PI) / 180 } as const

/** A look on its way to somebody, there, and back again; in ticks. */
interface LookWay {
  readonly other: PartId
  readonly begins: number
  readonly there: number
  readonly leaves: number
  readonly gone: number
}

/** The looks of a dancer at her partners. */
export function lookWays(
  { simulation }: Dancer,
  hers: readonly DancedMeeting[],
  part: PartId,
): readonly LookWay[] {
  return hers.flatMap(({ meeting: { what }, from, until }) => {
    if (what.kind !== 'look') return []
    const soon = ticksFrom(simulation.time, from, LOOK_SECONDS)
    const other = what.a === part ? what.b : what.a
    const late = ticksFrom(simulation.time, until, LOOK_SECONDS)
    return [{ other, begins: from - soon, there: from, leaves: until, gone: until + late }]
  })
}

const way = new Float64Array(3)

/** Turns the head to a partner's, as far as a neck goes. */
export function lookAt(pose: Pose, other: Pose, share: number): void {
  const { joints, chest, head } = pose
  const at = placeOfJoint.head
  let right = 0
  let up = 0
  let forward = 0
  for (let i = 0; i < 3; i++) {
    const to = (other.joints[at + i] as number) - (joints[at + i] as number)
    right += to * (chest[i] as number)
    up += to * (chest[3 + i] as number)
    forward += to * (chest[6 + i] as number)
  }
  const yaw = clamp(Math.atan2(right, forward), LOOK.aside)
  const pitch = clamp(Math.atan2(up, Math.hypot(right, forward)), LOOK.up)
  const wanted = (i: number): number =>
    Math.cos(pitch) *
      (Math.sin(yaw) * (chest[i] as number) + Math.cos(yaw) * (chest[6 + i] as number)) +
    Math.sin(pitch) * (chest[3 + i] as number)
  // Forward goes over to the partner; right and up follow square to it.
  let long = 0
  for (let i = 0; i < 3; i++) {
    way[i] = (head[6 + i] as number) * (1 - share) + wanted(i) * share
    long += (way[i] as number) ** 2
  }
  const by = 1 / (Math.sqrt(long) || 1)
  for (let i = 0; i < 3; i++) head[6 + i] = (way[i] as number) * by
  square(head)
}

const clamp = (value: number, most: number): number => Math.max(-most, Math.min(most, value))

/** Makes up and right square to forward again. */
function square(m: Float64Array): void {
  let dot = 0
  for (let i = 0; i < 3; i++) dot += (m[3 + i] as number) * (m[6 + i] as number)
  let long = 0
  for (let i = 0; i < 3; i++) {
    m[3 + i] = (m[3 + i] as number) - dot * (m[6 + i] as number)
    long += (m[3 + i] as number) ** 2
  }
  const by = 1 / (Math.sqrt(long) || 1)
  for (let i = 0; i < 3; i++) m[3 + i] = (m[3 + i] as number) * by
  m[0] = (m[4] as number) * (m[8] as number) - (m[5] as number) * (m[7] as number)
  m[1] = (m[5] as number) * (m[6] as number) - (m[3] as number) * (m[8] as number)
  m[2] = (m[3] as number) * (m[7] as number) - (m[4] as number) * (m[6] as number)
}
