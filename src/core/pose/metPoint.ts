import { type Hand, isHand, isOfHands, type Met, type OfHands } from '../combination/between'
import type { DancedMeeting } from '../simulate/company'
import { WRIST_TO_PALM } from './armPlaces'
import { jointsOfSide, type Pose, placeOfJoint } from './joints'
import { ARM_REACH } from './proportions'

/** How high two hands are held, in metres of a dancer of 1.65 m (h); overhead is over the taller crown. */
const HEIGHTS = { low: 0.85, waist: 1.05, chest: 1.25, shoulder: 1.4 } as const
const OVER_CROWN = 0.1
/** From the head's middle to the crown. */
const CROWN = 0.12
/** From the shoulder to the middle of the palm. */
const PALM_REACH = ARM_REACH + WRIST_TO_PALM
/** A hand lies so far out from the place of a body, in metres; one that only passes is so far from what it passes. */
const ON_BODY = 0.06
const NEAR = 0.12
/** Rounds in which a point comes into the reach of both. */
const ROUNDS = 4

export type Point = Float64Array

/** Whose arm line leads both hands, and whether this dancer is the first of the two. */
interface Led {
  readonly leads: 'own' | 'other' | undefined
  readonly isFrom: boolean
}

/** The point two of a meeting meet in, from both bodies without it. */
export function pointOf(
  what: DancedMeeting['meeting']['what'],
  from: Pose,
  to: Pose,
  scales: readonly [number, number],
  { leads, isFrom }: Led,
  out: Point,
): void {
  if (!isOfHands(what)) return
  const a = jointsOfSide[what.from.side]
  if (!isHand(what.to)) {
    bodySpot(to, what.to, from.joints, a.shoulder, scales[1], out)
    into(out, from, a.shoulder, PALM_REACH * scales[0])
    return
  }
  const b = jointsOfSide[what.to.side]
  if (leads !== undefined) {
    const isFirst = (leads === 'own') === isFrom
    copy(isFirst ? from.joints : to.joints, isFirst ? a.palm : b.palm, out)
  } else {
    for (let i = 0; i < 3; i++)
      out[i] = ((from.joints[a.shoulder + i] as number) + (to.joints[b.shoulder + i] as number)) / 2
    out[1] = heightOf(what, from, to, scales)
  }
  for (let i = 0; i < ROUNDS; i++) {
    into(out, from, a.shoulder, PALM_REACH * scales[0])
    into(out, to, b.shoulder, PALM_REACH * scales[1])
  }
  if (what.kind === 'touch' && what.as === 'near')
    passBy(out, isFrom ? from : to, isFrom ? to : from)
}

function heightOf(what: OfHands, from: Pose, to: Pose, scales: readonly [number, number]): number {
  const scale = (scales[0] + scales[1]) / 2
  const height = what.kind === 'hold' ? (what.height ?? 'waist') : 'chest'
  if (height !== 'overhead') return HEIGHTS[height] * scale
  const head = placeOfJoint.head + 1
  return (
    Math.max(from.joints[head] as number, to.joints[head] as number) + (CROWN + OVER_CROWN) * scale
  )
}

/** A little on this side of a point, for a hand that passes without contact. */
function passBy(out: Point, own: Pose, other: Pose): void {
  const chest = placeOfJoint.chest
  let far = 0
  for (const i of [0, 2])
    far += ((other.joints[chest + i] as number) - (own.joints[chest + i] as number)) ** 2
  const by = NEAR / 2 / (Math.sqrt(far) || 1)
  for (const i of [0, 2])
    out[i] =
      (out[i] as number) -
      ((other.joints[chest + i] as number) - (own.joints[chest + i] as number)) * by
}

const SPOTS = {
  shoulder: 'shoulder',
  elbow: 'elbow',
  wrist: 'wrist',
  hip: 'crest',
  knee: 'knee',
  foot: 'ankle',
} as const

/** A place of a body, a hand's thickness outside of it, on the side that is said or the nearer one. */
function bodySpot(
  pose: Pose,
  { on, side }: Exclude<Met, Hand>,
  from: Float64Array,
  shoulder: number,
  scale: number,
  out: Point,
): void {
  const { joints, chest } = pose
  const middle =
    on === 'head' ? placeOfJoint.head : on === 'back' ? placeOfJoint.chest : placeOfJoint.waist
  if (on === 'head' || on === 'back' || on === 'waist') copy(joints, middle, out)
  else {
    const [r, l] = [jointsOfSide.R[SPOTS[on]], jointsOfSide.L[SPOTS[on]]]
    const near =
      side ?? (far(joints, r, from, shoulder) <= far(joints, l, from, shoulder) ? 'R' : 'L')
    copy(joints, near === 'R' ? r : l, out)
  }
  // Outwards: away from the spine towards who lays the hand there; a back from behind.
  let x = (from[shoulder] as number) - (out[0] as number)
  let z = (from[shoulder + 2] as number) - (out[2] as number)
  if (on === 'back') {
    x = -(chest[6] as number)
    z = -(chest[8] as number)
  } else if (side && on === 'waist') {
    const sign = side === 'R' ? 1 : -1
    x = sign * (chest[0] as number)
    z = sign * (chest[2] as number)
  }
  const long = Math.hypot(x, z) || 1
  const thick = on === 'waist' || on === 'back' || on === 'head' ? ON_BODY + 0.07 : ON_BODY
  out[0] = (out[0] as number) + (x / long) * thick * scale
  out[2] = (out[2] as number) + (z / long) * thick * scale
}

const copy = (joints: Float64Array, at: number, out: Point): void => {
  for (let i = 0; i < 3; i++) out[i] = joints[at + i] as number
}

export const far = (a: Float64Array, i: number, b: Float64Array, j: number): number =>
  Math.hypot(
    (a[i] as number) - (b[j] as number),
    (a[i + 1] as number) - (b[j + 1] as number),
    (a[i + 2] as number) - (b[j + 2] as number),
  )

/** Brings a point into the reach of a shoulder. */
function into(out: Point, { joints }: Pose, shoulder: number, reach: number): void {
  const long = far(out, 0, joints, shoulder)
  if (long <= reach) return
  for (let i = 0; i < 3; i++) {
    const base = joints[shoulder + i] as number
    out[i] = base + (((out[i] as number) - base) * reach) / long
  }
}
