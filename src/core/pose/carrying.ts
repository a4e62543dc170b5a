import { SIDES, type Side } from '../body/side'
import type { Carried, Prop } from '../combination/carried'
import { isCloth } from '../props/acts'
import { lagOf, placeOn } from '../props/cloth'
import { type DoneAct, followProps } from '../props/follow'
import { isAtOnce } from '../props/held'
import type { Simulation } from '../simulate/simulate'
import { secondsBetween } from '../time/timeMap'
import { type Body, type Hangs, hangCloth, openFan, ringSkirt } from './clothShapes'
import { eased } from './curve'
import { newPose, type Pose, placeOfJoint } from './joints'
import { handOf, type Point, pointAt, unit } from './points'

/** A thing as it is seen at a moment: a net of points in metres of the room, row by row, the upper edge first. */
export interface CarriedShape {
  readonly prop: Prop
  readonly columns: number
  readonly rows: number
  /** Right, up and forward of each. */
  readonly points: Float64Array
  /** Nothing of it is there to be seen: another one has it. */
  isHere: boolean
}

/** A dancer so many ticks before. */
type Earlier = (ticks: number, into: Pose) => Pose

/** What one dancer carries, ready to be seen at any tick. */
export interface Carrying {
  readonly shapes: readonly CarriedShape[]
  /**
   * Brings every shape to where it is at a tick; the same for a tick however it is reached.
   * @param earlier where she was shortly before; absent for a pose that stands still
   */
  readonly at: (tick: number, pose: Pose, earlier: Earlier | undefined) => void
}

const NETS: Readonly<Record<Prop['kind'], readonly [columns: number, rows: number]>> = {
  veil: [15, 5],
  scarf: [11, 3],
  skirt: [19, 4],
  fan: [9, 2],
  stick: [2, 1],
}

/** What trails behind comes from so long before, each with its share; in parts of the time a cloth takes. */
const TRAILING = [
  [0.33, 0.6],
  [0.85, 0.4],
] as const
/** The least of that time, in seconds: a short cloth swings too. */
const LEAST_LAG = 0.3
/** A cloth in the air comes down so fast, in metres a second; a stick as things fall. */
const FLOATS = 1.2
const GRAVITY = 9.81

/** What is carried in a dance, with nets of its own; nothing where the hands are empty. */
export const carryingOf = (simulation: Simulation): Carrying | undefined =>
  simulation.combination.carried ? carrying(simulation) : undefined

function carrying(simulation: Simulation): Carrying {
  const { acts } = followProps(simulation)
  const things = (simulation.combination.carried ?? []).map((prop) => ({
    prop,
    acts: acts.filter((one) => one.prop.id === prop.id),
    shape: newShape(prop),
  }))
  const past = [newPose(), newPose()] as const
  const thrown = newPose()
  return {
    shapes: things.map(({ shape }) => shape),
    at(tick, pose, earlier) {
      const seconds = secondsBetween(simulation.time, tick, tick + 1)
      for (const { prop, acts: own, shape } of things) {
        const moment = momentAt(prop, own, tick)
        const lag = Math.max(LEAST_LAG, lagOf(prop, moment.now.drape, simulation.house))
        // A stick and a fan are where the hand is.
        const trails = earlier && isCloth(prop.kind)
        const ago = TRAILING.map(([share], i) =>
          trails ? earlier((share * lag) / seconds, past[i as 0 | 1]) : pose,
        )
        const body: Body = { pose, ago, weights: TRAILING.map(([, weight]) => weight) }
        if (moment.now.drape === 'air' && moment.last && earlier) {
          const since = tick - moment.last.from
          const from = earlier(since, thrown)
          inTheAir(shape, moment, {
            body: { ...body, pose: from, ago: [from] },
            seconds: since * seconds,
          })
        } else shapeAt(shape, moment, body)
      }
    },
  }
}

const newShape = (prop: Prop): CarriedShape => {
  const [columns, rows] = NETS[prop.kind]
  return { prop, columns, rows, points: new Float64Array(3 * columns * rows), isHere: true }
}

/** How a thing is held at a tick: what it was, what it becomes, and how far it has come. */
interface Moment {
  readonly before: Carried
  readonly now: Carried
  readonly share: number
  readonly last: DoneAct | undefined
}

function momentAt(prop: Prop, acts: readonly DoneAct[], tick: number): Moment {
  const last = acts.findLast(({ from }) => from <= tick)
  if (!last) return { before: prop.start, now: prop.start, share: 1, last }
  const long = isAtOnce(last) ? Math.min(6, last.until - last.from) : last.until - last.from
  // What comes out of the air is there when it is caught.
  const isCaught = last.before.drape === 'air'
  const share = isCaught ? 1 : eased(Math.min(1, Math.max(0, (tick - last.from) / long)))
  return { before: last.before, now: last.after, share, last }
}

const MOST_POINTS = Math.max(...Object.values(NETS).map(([columns, rows]) => columns * rows))
const scratch = [new Float64Array(3 * MOST_POINTS), new Float64Array(3 * MOST_POINTS)] as const

function shapeAt(shape: CarriedShape, { before, now, share, last }: Moment, body: Body): void {
  const { prop, points } = shape
  shape.isHere = isThere(now, prop) || (share < 1 && isThere(before, prop))
  if (!shape.isHere) return
  if (prop.kind === 'stick') {
    stickInto(points, prop, share < 0.5 ? before : now, body.pose)
    return
  }
  const into = (carried: Carried, out: Float64Array) => {
    if (prop.kind === 'fan') openFan(out, shape, carried, body)
    else if (prop.kind === 'skirt') ringSkirt(out, shape, carried, body)
    else hangCloth(out, shape, hangsOf(prop, carried, body.pose), body)
  }
  if (share >= 1 || before === now) {
    into(now, points)
    return
  }
  const [a, b] = scratch
  const isOver = last?.act.act === 'over' || last?.act.act === 'under'
  // Over the head it goes, not through it.
  const way = isOver ? { ...now, drape: 'overhead' as const } : undefined
  const isFirst = share < 0.5
  into(way && !isFirst ? way : before, a)
  into(way && isFirst ? way : now, b)
  const by = way ? (isFirst ? 2 * share : 2 * share - 1) : share
  for (let i = 0; i < points.length; i++)
    points[i] = (a[i] as number) + ((b[i] as number) - (a[i] as number)) * by
}

/** Whether she has it, or it lies or hangs where she is. */
const isThere = ({ hands, drape }: Carried, { kind }: Prop): boolean =>
  kind === 'skirt' || Boolean(hands.R || hands.L) || (drape !== 'none' && drape !== 'air')

/** Where a cloth hangs from: the hands that are on it, and where along its upper edge. */
function hangsOf({ size }: Prop, { hands, drape, wound }: Carried, pose: Pose): Hangs {
  const held = SIDES.flatMap((side) => {
    const [feature] = hands[side]?.at ?? []
    if (!feature) return []
    const [along] = placeOn(size, feature)
    return [{ side, along: along / size.long, palm: palmOf(pose, side) }]
  })
  return { size, drape, wound, held: held.sort((a, b) => a.along - b.along) }
}

const palmOf = (pose: Pose, side: Side): Point => pointAt(pose.joints, placeOfJoint[`palm${side}`])

/** A stick through the hand, or between both: upwards where it is free. */
function stickInto(out: Float64Array, { size }: Prop, { hands }: Carried, pose: Pose): void {
  const [right, left] = [hands.R, hands.L]
  const side: Side = right ? 'R' : 'L'
  const at = palmOf(pose, side)
  const [feature = 'end'] = (right ?? left)?.at ?? []
  const share = placeOn(size, feature)[0] / size.long
  const along = right && left ? between(palmOf(pose, 'L'), palmOf(pose, 'R')) : gripOf(pose, side)
  for (const [i, end] of [0, 1].entries())
    for (let k = 0; k < 3; k++)
      out[3 * i + k] = (at[k] as number) + (along[k] as number) * size.long * (end - share)
}

/** The way a fist holds a stick: out past the thumb, ahead and a little up. */
function gripOf(pose: Pose, side: Side): Point {
  const { ahead, thumb } = handOf(pose, side)
  return unit([
    0.7 * thumb[0] + 0.5 * ahead[0],
    0.7 * thumb[1] + 0.5 * ahead[1] + 0.5,
    0.7 * thumb[2] + 0.5 * ahead[2],
  ])
}

const between = (a: Point, b: Point): Point => unit([b[0] - a[0], b[1] - a[1], b[2] - a[2]])

interface Thrown {
  readonly body: Body
  /** Since it was thrown. */
  readonly seconds: number
}

/** A thing in the air: as it left the hand, and up and down again from there. */
function inTheAir(shape: CarriedShape, { before }: Moment, { body, seconds }: Thrown): void {
  shapeAt(shape, { before, now: before, share: 1, last: undefined }, body)
  const isStick = shape.prop.kind === 'stick'
  // So hard that it is back after the time most throws take.
  const up = isStick
    ? GRAVITY * 0.375 * seconds - (GRAVITY * seconds * seconds) / 2
    : 0.5 * seconds - (FLOATS * seconds * seconds) / 2
  for (let i = 1; i < shape.points.length; i += 3)
    shape.points[i] = Math.max(0.02, (shape.points[i] as number) + up)
}
