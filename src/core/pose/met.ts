import type { Side } from '../body/side'
import { type Hand, isHand, type Met } from '../combination/between'
import type { PartId } from '../combination/whose'
import { handsIn, toldTo, toldWithin } from '../piece/hands'
import type { DancedMeeting } from '../piece/piece'
import { ticksFrom } from '../time/timeMap'
import { WRIST_TO_PALM } from './armPlaces'
import { eased } from './curve'
import type { Dancer } from './dancer'
import { copyInto, jointsOfSide, newPose, type Pose, placeOfJoint } from './joints'
import { ARM_LEAST, ARM_REACH, BODY } from './proportions'
import { bend } from './solve'

/** How high two hands are held, in metres of a dancer of 1.65 m (h); overhead is over the taller crown. */
const HEIGHTS = { low: 0.85, waist: 1.05, chest: 1.25, shoulder: 1.4 } as const
const OVER_CROWN = 0.1
/** From the head's middle to the crown. */
const CROWN = 0.12
/** A hand goes to a meeting and back at the most so fast, in metres a second, and takes so many seconds at least (h). */
const HAND_SPEED = 3.2
/** Eased in and out a way is half as fast again in its middle, and an elbow swings out farther than its hand. */
const EASED = 1.8
const LEAST_SECONDS = 0.2
/** From the shoulder to the middle of the palm. */
const PALM_REACH = ARM_REACH + WRIST_TO_PALM
/** A hand lies so far out from the place of a body, in metres; one that only passes is so far from what it passes. */
const ON_BODY = 0.06
const NEAR = 0.12
/** Rounds in which a point comes into the reach of both. */
const ROUNDS = 4
/** Eyes take so long to find somebody, in seconds, and the head turns so far for it, in radians. */
const LOOK_SECONDS = 0.35
const LOOK = { aside: (80 * Math.PI) / 180, up: (25 * Math.PI) / 180 } as const

type Point = Float64Array

/** A hand of this dancer on its way to a meeting, there, and back again; in ticks. */
interface HandWay {
  readonly side: Side
  readonly meeting: DancedMeeting
  readonly other: PartId
  /** Its own arm line leads both hands. */
  readonly leads: 'own' | 'other' | undefined
  readonly isFrom: boolean
  readonly begins: number
  readonly there: number
  readonly leaves: number
  readonly gone: number
}

interface LookWay {
  readonly other: PartId
  readonly begins: number
  readonly there: number
  readonly leaves: number
  readonly gone: number
}

interface Around {
  readonly part: PartId
  readonly meetings: readonly DancedMeeting[]
  /** Another dancer as she would be without any meeting. */
  readonly partner: (part: PartId) => Dancer | undefined
}

/** A dancer who meets others: her hands are where theirs are while they hold, her eyes where theirs are. */
export function metDancer(alone: Dancer, { part, meetings, partner }: Around): Dancer {
  const hers = meetings.filter(({ meeting: { what } }) =>
    what.kind === 'look'
      ? what.a === part || (what.b === part && !what.oneWay)
      : handsIn(what).some((hand) => hand.part === part),
  )
  if (hers.length === 0) return alone
  const ways = handWays(alone, hers, { part, meetings, partner })
  const looks = lookWays(alone, hers, part)
  const theirs = newPose()
  const raw = newPose()
  const point = new Float64Array(3)
  const eyes = newPose()
  return {
    ...alone,
    poseAt(tick, into) {
      const pose = alone.poseAt(tick, into)
      let isRaw = false
      for (const way of ways) {
        const share = shareAt(way, tick)
        const other = share > 0 ? partner(way.other) : undefined
        if (!other) continue
        other.poseAt(tick, theirs)
        // What leads both hands is her own line, whatever another meeting has made of the arm.
        if (!isRaw) copyInto(raw, pose)
        isRaw = true
        const [from, to] = way.isFrom ? [raw, theirs] : [theirs, raw]
        const scales = way.isFrom
          ? [scaleOf(alone), scaleOf(other)]
          : [scaleOf(other), scaleOf(alone)]
        pointOf(way.meeting.meeting.what, from, to, scales as [number, number], way, point)
        reachTo(pose, way, point, share, scaleOf(alone), theirs)
      }
      for (const way of looks) {
        const share = shareAt(way, tick)
        const other = share > 0 ? partner(way.other) : undefined
        if (other) lookAt(pose, other.poseAt(tick, eyes), share)
      }
      return pose
    },
  }
}

const scaleOf = ({ options }: Dancer): number => options.scale ?? 1

/** How far a hand or a look has gone over to a meeting at a tick. */
function shareAt(
  { begins, there, leaves, gone }: Pick<HandWay, 'begins' | 'there' | 'leaves' | 'gone'>,
  tick: number,
): number {
  if (tick <= begins || tick >= gone) return 0
  const coming = there > begins ? eased((tick - begins) / (there - begins)) : 1
  const going = gone > leaves && tick > leaves ? eased((gone - tick) / (gone - leaves)) : 1
  return Math.min(coming, going)
}

function handWays(
  alone: Dancer,
  hers: readonly DancedMeeting[],
  { part, partner }: Around,
): readonly HandWay[] {
  const { simulation } = alone
  const ways: HandWay[] = []
  for (const one of [...hers].sort((a, b) => a.from - b.from)) {
    const { what } = one.meeting
    if (what.kind !== 'hold' && what.kind !== 'touch') continue
    const isFrom = what.from.part === part
    const own = isFrom ? what.from : what.to
    const other = partner(isFrom ? what.to.part : what.from.part)
    if (!isHand(own) || !other) continue
    const told = toldTo(simulation, own.side)
    const leads = leadsIn(what.from, what.to, one, isFrom ? [alone, other] : [other, alone], isFrom)
    const before = Math.max(
      told.findLast(({ until }) => until <= one.from)?.until ?? Number.NEGATIVE_INFINITY,
      ways.findLast(({ side, leaves }) => side === own.side && leaves <= one.from)?.leaves ??
        Number.NEGATIVE_INFINITY,
    )
    const draft = { leads, isFrom, meeting: one }
    const ticks = (at: number) => ticksOf(alone, at, wayLong(alone, other, own.side, draft, at))
    const coming = ticks(one.from)
    const begins = Math.max(one.from - coming, before)
    ways.push({
      ...draft,
      side: own.side,
      other: isFrom ? what.to.part : what.from.part,
      begins,
      there: Math.min(Math.max(one.from, begins + coming), (one.from + one.until) / 2),
      leaves: one.until,
      gone: one.until + ticks(one.until),
    })
  }
  // From one meeting to the next a hand goes straight: it leaves the first one when it is at the second.
  return ways.map((way) => {
    const next = ways.find(
      (one) =>
        one !== way &&
        one.side === way.side &&
        one.begins >= way.leaves - 1e-9 &&
        one.begins < way.gone,
    )
    return next ? { ...way, leaves: next.there, gone: next.there } : way
  })
}

/** Whose arm line says where two hands go while they hold: the first one's, where she is told anything. */
function leadsIn(
  from: Hand,
  to: Met,
  one: DancedMeeting,
  [first, second]: readonly [Dancer, Dancer],
  isFrom: boolean,
): HandWay['leads'] {
  if (!isHand(to)) return undefined
  const isTold = (dancer: Dancer, side: Side) =>
    toldWithin(toldTo(dancer.simulation, side), one).length > 0
  if (isTold(first, from.side)) return isFrom ? 'own' : 'other'
  if (isTold(second, to.side)) return isFrom ? 'other' : 'own'
  return undefined
}

/** How many ticks a way of so many metres takes from a tick on. */
function ticksOf({ simulation: { time } }: Dancer, at: number, metres: number): number {
  const seconds = Math.max(LEAST_SECONDS, (EASED * metres) / HAND_SPEED)
  return ticksFrom(time, at, seconds)
}

const own = newPose()
const theirs = newPose()
const spot = new Float64Array(3)

/** Metres from where a hand would be at a tick to where it meets. */
function wayLong(
  alone: Dancer,
  other: Dancer,
  side: Side,
  way: Pick<HandWay, 'leads' | 'isFrom' | 'meeting'>,
  at: number,
): number {
  alone.poseAt(at, own)
  other.poseAt(at, theirs)
  const [from, to] = way.isFrom ? [own, theirs] : [theirs, own]
  const [a, b] = way.isFrom ? [alone, other] : [other, alone]
  pointOf(way.meeting.meeting.what, from, to, [scaleOf(a), scaleOf(b)], way, spot)
  const palm = jointsOfSide[side].palm
  return Math.hypot(...[0, 1, 2].map((i) => (own.joints[palm + i] ?? 0) - (spot[i] ?? 0)))
}

/** The point two of a meeting meet in, from both bodies without it. */
function pointOf(
  what: DancedMeeting['meeting']['what'],
  from: Pose,
  to: Pose,
  scales: readonly [number, number],
  { leads, isFrom }: Pick<HandWay, 'leads' | 'isFrom'>,
  out: Point,
): void {
  if (what.kind !== 'hold' && what.kind !== 'touch') return
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

function heightOf(
  what: Extract<DancedMeeting['meeting']['what'], { kind: 'hold' | 'touch' }>,
  from: Pose,
  to: Pose,
  scales: readonly [number, number],
): number {
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

const far = (a: Float64Array, i: number, b: Float64Array, j: number): number =>
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

const way = new Float64Array(3)
const pole = new Float64Array(3)

/** The arm solved anew: the palm gone over to a point, the fingers along the arm. */
function reachTo(
  pose: Pose,
  { side, meeting }: HandWay,
  point: Point,
  share: number,
  scale: number,
  partner: Pose,
): void {
  const { joints, palms } = pose
  const { shoulder, elbow, wrist, palm, fingers } = jointsOfSide[side]
  // Where the fingers point: their own way, gone over into the way of the arm.
  let long = 0
  const armLong = far(point, 0, joints, shoulder) || 1
  for (let i = 0; i < 3; i++) {
    const hand =
      ((joints[fingers + i] as number) - (joints[wrist + i] as number)) / (BODY.hand * scale)
    const arm = ((point[i] as number) - (joints[shoulder + i] as number)) / armLong
    way[i] = hand + (arm - hand) * share
    long += (way[i] as number) ** 2
  }
  const by = 1 / (Math.sqrt(long) || 1)
  for (let i = 0; i < 3; i++) {
    way[i] = (way[i] as number) * by
    // The elbow goes over from where it is to where a held one hangs.
    const middle = ((joints[shoulder + i] as number) + (joints[wrist + i] as number)) / 2
    pole[i] = ((joints[elbow + i] as number) - middle) * (1 - share)
  }
  // Down where the arm is held out, outwards and back where it is held up or hangs: never along it.
  const steep = (((point[1] as number) - (joints[shoulder + 1] as number)) / armLong) ** 2
  const out = (side === 'R' ? 0.2 : -0.2) * steep
  const back = 0.05 + 0.15 * steep
  for (let i = 0; i < 3; i++)
    pole[i] =
      (pole[i] as number) +
      share *
        (out * (pose.chest[i] as number) -
          back * (pose.chest[6 + i] as number) -
          (i === 1 ? 0.25 * (1 - steep) : 0))
  for (let i = 0; i < 3; i++) {
    const target = (joints[palm + i] as number) * (1 - share) + (point[i] as number) * share
    joints[wrist + i] = target - (way[i] as number) * WRIST_TO_PALM * scale
  }
  keepInReach(joints, shoulder, wrist, scale)
  bend(joints, shoulder, wrist, elbow, BODY.upperArm * scale, BODY.forearm * scale, pole)
  for (let i = 0; i < 3; i++) {
    joints[palm + i] = (joints[wrist + i] as number) + (way[i] as number) * WRIST_TO_PALM * scale
    joints[fingers + i] = (joints[wrist + i] as number) + (way[i] as number) * BODY.hand * scale
  }
  // The palm looks at the other one.
  const o = side === 'R' ? 0 : 3
  const chest = placeOfJoint.chest
  const { what } = meeting.meeting
  if (what.kind === 'touch' && what.as === 'back') return
  let looks = 0
  let along = 0
  for (let i = 0; i < 3; i++) {
    spot[i] = (partner.joints[chest + i] as number) - (joints[palm + i] as number)
    along += (spot[i] as number) * (way[i] as number)
  }
  for (let i = 0; i < 3; i++) {
    spot[i] = (spot[i] as number) - along * (way[i] as number)
    looks += (spot[i] as number) ** 2
  }
  const towards = 1 / (Math.sqrt(looks) || 1)
  for (let i = 0; i < 3; i++)
    palms[o + i] = (palms[o + i] as number) * (1 - share) + (spot[i] as number) * towards * share
}

function keepInReach(joints: Float64Array, shoulder: number, wrist: number, scale: number): void {
  const long = far(joints, shoulder, joints, wrist) || 1e-9
  const wanted = Math.min(ARM_REACH * scale, Math.max(ARM_LEAST * scale, long))
  if (wanted === long) return
  for (let i = 0; i < 3; i++) {
    const base = joints[shoulder + i] as number
    joints[wrist + i] = base + (((joints[wrist + i] as number) - base) * wanted) / long
  }
}

function lookWays(
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

/** Turns the head to a partner's, as far as a neck goes. */
function lookAt(pose: Pose, other: Pose, share: number): void {
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
