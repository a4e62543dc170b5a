import { type ArmPlace, isArmPlace, viaPlace } from '../body/places'
import { otherSide, SIDES, type Side, signOf } from '../body/side'
import type { Motion } from '../moves/motion'
import { courseOf, type Run, returnsOf } from '../simulate/course'
import { startPlaces } from '../simulate/places'
import type { Simulation } from '../simulate/simulate'
import { TICKS_PER_COUNT } from '../time/time'
import { secondsBetween, type TimeMap, ticksFrom } from '../time/timeMap'
import { ARM, armAtPlace, detourBetween } from './armPlaces'
import { type ArmChannel, armAt } from './channels'
import { eased } from './curve'
import { type Held, heldThrough, hermite, type Sending, type WayOf } from './held'
import { reachOf, timeBack, timeOf } from './isolations'
import { peak } from './moveSwings'
import { inTurn, type Repeat, repeatsIn } from './repeats'
import type { Swing } from './swings'

/** How far gestures of arm and hand go: metres, or the bend of the hand (house figures). */
const WAVE = { up: 0.09, elbow: 0.5, hand: 0.55 } as const
const HAND_CIRCLE = 0.09
const WRIST_CIRCLE = 0.55
const ROLL = { bend: 0.45, turn: 1, palm: 0.02 } as const
const GESTURE: Readonly<Record<string, readonly (readonly [ArmChannel, number])[]>> = {
  flick: [
    ['bendUp', 0.8],
    ['along', 0.03],
  ],
  brush: [
    ['up', -0.09],
    ['bendUp', -0.3],
  ],
  clap: [['clap', 1]],
  push: [
    ['along', 0.07],
    ['bendUp', 0.3],
  ],
  pull: [['along', -0.14]],
}

/** Where each arm is, and what its gestures add. */
export interface Arms {
  readonly held: Readonly<Record<Side, Held>>
  readonly swings: readonly Swing[]
}

/** No palm is faster than that over a whole way, in metres a second (a house figure). */
const FASTEST_PALM = 3.2

type Palms = Simulation['house']['palms']

/** What both arms do in a simulation; at their first places where the arms are not shown. */
export function armsOf(simulation: Simulation, shown: boolean): Arms {
  const { combination, house } = simulation
  const { arms } = startPlaces(combination.start)
  const sent: Record<Side, Sending[]> = { R: [], L: [] }
  const swings: Swing[] = []
  if (shown) {
    for (const run of courseOf(simulation))
      if (run.event.layer === 'arms') sendArms(run, simulation, sent, swings)
    for (const { part, sides, at, after } of returnsOf(simulation))
      if (part === 'arms')
        for (const side of sides)
          sent[side].push({ ...timeBack(at), way: armWay(side, [after.arms[side]], house.palms) })
  }
  const perTick = FASTEST_PALM * secondsBetween(simulation.time, 0, 1)
  const held = (side: Side) =>
    heldThrough(armAtPlace(side, arms[side], house.palms), sent[side], perTick)
  return { held: { R: held('R'), L: held('L') }, swings }
}

function sendArms(
  run: Run,
  { combination: { lead }, house, time }: Simulation,
  sent: Record<Side, Sending[]>,
  swings: Swing[],
): void {
  const { palms } = house
  const { event, move } = run
  const { what } = event
  const reached = reachOf(run, time)
  const needs = run.reach?.needs.arms
  if (reached && needs)
    for (const side of SIDES)
      if (needs[side] && needs[side] !== run.before.arms[side])
        sent[side].push({ ...reached, way: armWay(side, [needs[side]], palms) })
  if (what.kind === 'arms') {
    for (const side of SIDES) {
      const place = what[side]
      if (!place) continue
      const places = what.via ? [viaPlace[what.via], place] : [place]
      const ticks = event.ways?.[side] ?? event.length
      sent[side].push({ ...timeOf(run, time, ticks), way: armWay(side, places, palms) })
    }
  } else if (move && what.kind === 'move') {
    const all = { size: (event.size ?? 100) / 100, time, palms, rate: event.rate, via: what.via }
    for (const repeat of repeatsIn(run, move, lead))
      for (const side of SIDES)
        if (!what.arm || what.arm === side)
          danceArm(side, move.motion, repeat, all, sent[side], swings)
  }
}

interface Dancing {
  readonly size: number
  readonly time: TimeMap
  readonly palms: Palms
  readonly rate: number | undefined
  readonly via: keyof typeof viaPlace | undefined
}

/** One repeat of a move for one arm, each reading its own items in order. */
function danceArm(
  side: Side,
  motion: readonly Motion[],
  repeat: Repeat,
  all: Dancing,
  sent: Sending[],
  swings: Swing[],
): void {
  const written = repeat.left ? otherSide[side] : side
  const own = motion.filter(
    (item) => 'arm' in item && (item.arm === 'both' || item.arm === written),
  )
  // The left side comes half a turn after the right one.
  const alternates = motion.some(({ verb }) => verb === 'alternate')
  const late = alternates && written === 'L' ? 0.5 : 0
  const groups = inTurn(own.filter(({ verb }) => verb !== 'via' && verb !== 'hand'))
  const share = (repeat.end - repeat.start) / Math.max(1, groups.length)
  for (const [i, group] of groups.entries())
    for (const item of group) {
      const time = { start: repeat.start + i * share, end: repeat.start + (i + 1) * share }
      if (item.verb === 'to') {
        const { place } = item
        if (!isArmPlace(place)) continue
        const via = viaBefore(own, item) ?? all.via
        const places = via ? [viaPlace[via], place] : [place]
        sent.push({ ...time, way: armWay(side, places, all.palms) })
      } else gesture(side, item, time, late, all, swings)
    }
}

/** The way written right before a place belongs to it. */
function viaBefore(own: readonly Motion[], item: Motion) {
  const before = own[own.indexOf(item) - 1]
  return before?.verb === 'via' ? before.way : undefined
}

/** A way of a palm from some beginning: when it passes each place, and how far it swings out. */
interface Plan {
  readonly from: Float64Array
  /** Shares of the time, 0 first and 1 last. */
  readonly passes: readonly number[]
  readonly out: readonly (readonly number[])[]
}

/** However near two places of an arm are, the way between them takes its time, in metres. */
const LEAST_WAY = 0.12

function planFrom(side: Side, from: Float64Array, goals: readonly Float64Array[]): Plan {
  const sign = signOf(side)
  const point = (a: Float64Array): [number, number, number] => [
    sign * (a[0] as number),
    a[1] as number,
    a[2] as number,
  ]
  const passes = [0]
  const out: number[][] = []
  let before = from
  for (const goal of goals) {
    const [p, q] = [point(before), point(goal)]
    const [x, y, z] = detourBetween(p, q)
    const far = Math.hypot(q[0] - p[0], q[1] - p[1], q[2] - p[2]) + 2 * Math.hypot(x, y, z)
    out.push([sign * x, y, z])
    passes.push((passes.at(-1) ?? 0) + Math.max(LEAST_WAY, far))
    before = goal
  }
  const whole = passes.at(-1) ?? 1
  return { from, passes: passes.map((pass) => pass / whole), out }
}

/**
 * Through these places to the last, each stretch with as much time as it is long, and round the
 * body where the straight way would go through it.
 */
function armWay(side: Side, places: readonly ArmPlace[], palms: Palms): WayOf {
  const goals = places.map((place) => Float64Array.from(armAtPlace(side, place, palms)))
  let plan: Plan | undefined
  return (s, from, out) => {
    // Worked out once: a way is always asked with the same beginning.
    if (plan?.from !== from) plan = planFrom(side, from, goals)
    const { passes } = plan
    let leg = 0
    while (leg < goals.length - 1 && s > (passes[leg + 1] as number)) leg++
    const begins = passes[leg] as number
    const takes = (passes[leg + 1] as number) - begins
    const t = (s - begins) / takes
    const b = leg === 0 ? from : (goals[leg - 1] as Float64Array)
    const c = goals[leg] as Float64Array
    const a = leg === 0 ? undefined : leg === 1 ? from : (goals[leg - 2] as Float64Array)
    const d = goals[leg + 1]
    const before = a ? takes / ((passes[leg + 1] as number) - (passes[leg - 1] as number)) : 0
    const behind = d ? takes / ((passes[leg + 2] as number) - begins) : 0
    hermite(out, a, b, c, d, t, before, behind)
    const e = eased(t)
    const bulge = 4 * e * (1 - e)
    const away = plan.out[leg] as readonly number[]
    for (let i = 0; i < 3; i++)
      out[ARM.palm + i] = (out[ARM.palm + i] as number) + (away[i] as number) * bulge
  }
}

/** What a gesture adds to one arm. */
function gesture(
  side: Side,
  item: Motion,
  { start, end }: { start: number; end: number },
  late: number,
  { size, time, rate }: Dancing,
  swings: Swing[],
): void {
  const channels = armAt[side]
  const sign = signOf(side)
  const swing = (channel: ArmChannel, amount: number, perTick: number, ahead: number) => {
    const ramp = Math.min((end - start) / 4, ticksFrom(time, start, 0.2))
    swings.push({
      channel: channels[channel],
      amount: amount * size,
      start,
      end,
      shape: { kind: 'oscillation', perTick, ahead, ramp },
    })
  }
  const own = 'rate' in item ? item.rate : undefined
  const perTick =
    rate !== undefined
      ? rate / TICKS_PER_COUNT
      : own?.per === 'count'
        ? own.cycles / TICKS_PER_COUNT
        : (own?.cycles ?? 1) / (end - start)
  switch (item.verb) {
    case 'wave': {
      // What the wave begins with moves first, each next part a quarter of a turn later.
      const lag = (part: 'shoulder' | 'elbow' | 'wrist') =>
        -Math.max(0, item.parts.indexOf(part)) / 6 - late
      swing('elbow', WAVE.elbow, perTick, lag('elbow'))
      swing('up', WAVE.up, perTick, lag('wrist'))
      swing('bendUp', -WAVE.hand, perTick, lag('wrist') - 1 / 6)
      break
    }
    case 'circle': {
      const inwards = item.way === 'in' || item.way === 'ccw' ? 1 : -1
      if (item.joint === 'hand') {
        swing('right', HAND_CIRCLE * sign, perTick, 0.25)
        swing('up', HAND_CIRCLE, perTick, inwards > 0 ? 0 : 0.5)
      } else {
        swing('bendUp', WRIST_CIRCLE, perTick, 0.25 - late)
        swing('bendIn', WRIST_CIRCLE * inwards, perTick, -late)
      }
      swing('roll', ROLL.turn * inwards * 0.5, perTick, -late)
      break
    }
    case 'roll': {
      const inwards = item.way === 'in' ? 1 : -1
      swing('bendUp', ROLL.bend, perTick, -late)
      swing('bendIn', ROLL.bend * inwards, perTick, 0.25 - late)
      swing('roll', ROLL.turn * inwards, perTick, 0.25 - late)
      swing('up', ROLL.palm, perTick, -late)
      break
    }
    default:
      for (const [channel, amount] of GESTURE[item.verb] ?? []) {
        const share = end - start
        const begins = start + late * share
        swings.push(
          peak(
            {
              channel: channels[channel],
              amount: amount * size,
              at: item.verb === 'brush' ? begins + share / 2 : begins,
              until: begins + share * (item.verb === 'brush' ? 1 : 0.9),
              sharp: item.verb !== 'brush',
            },
            time,
          ),
        )
      }
  }
}
