import type { Side } from '../body/side'
import { type Hand, isHand, isOfHands, type Met } from '../combination/between'
import type { PartId } from '../combination/whose'
import { handsIn, toldTo, toldWithin } from '../piece/hands'
import type { DancedMeeting } from '../simulate/company'
import { ticksFrom } from '../time/timeMap'
import { WRIST_TO_PALM } from './armPlaces'
import { eased } from './curve'
import type { Dancer } from './dancer'
import { copyInto, jointsOfSide, newPose, type Pose, placeOfJoint } from './joints'
import { lookAt, lookWays } from './looking'
import { far, type Point, pointOf } from './metPoint'
import { ARM_LEAST, ARM_REACH, BODY } from './proportions'
import { bend } from './solve'

/** A hand goes to a meeting and back at the most so fast, in metres a second, and takes so many seconds at least (h). */
const HAND_SPEED = 3.2
/** Eased in and out a way is half as fast again in its middle, and an elbow swings out farther than its hand. */
const EASED = 1.8
const LEAST_SECONDS = 0.2

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
    if (!isOfHands(what)) continue
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
