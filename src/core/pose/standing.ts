import {
  type ArmPlace,
  type Compass,
  compassOffset,
  type Gaze,
  palmAt,
  viaPlace,
} from '../body/places'
import { SIDES, type Side, signOf } from '../body/side'
import type { Event, Start } from '../combination/combination'
import { mirrorWhat } from '../combination/mirror'
import { passAt } from '../combination/passes'
import { type Channel, compassPath } from '../moves/motion'
import type { Layer, Move } from '../moves/move'
import { type Simulation, stateAt } from '../simulate/simulate'
import { TICKS_PER_COUNT } from '../time/time'

/**
 * The standing body: a small flat figure seen from behind, so its right is the dancer's.
 * Metres and degrees; the dancing figure of a later room has the whole pose.
 */
export interface StandingBody {
  /** -1 over the left foot, 1 over the right, 0 between. */
  readonly weight: number
  readonly hips: Shift
  readonly ribs: Shift
  readonly palms: Readonly<Record<Side, { right: number; up: number }>>
  readonly head: { readonly turn: number; readonly nod: number; readonly tilt: number }
  /** How far each foot is lifted, in metres. */
  readonly lifted: Readonly<Record<Side, number>>
}

interface Shift {
  readonly right: number
  readonly up: number
  /** Degrees, right side up. */
  readonly tilt: number
}

const NO_SHIFT: Shift = { right: 0, up: 0, tilt: 0 }
/** Seen flat, forward shows as a little lower: a house figure for the picture only. */
const FORWARD_AS_UP = -0.35
const SHARP_TICKS = 4
const PASSING_LIFT_M = 0.05
const STEP_TICKS = 8

const eased = (x: number): number => {
  const t = Math.min(1, Math.max(0, x))
  return t * t * (3 - 2 * t)
}
const between = (a: number, b: number, t: number): number => a + (b - a) * t

interface Running {
  readonly event: Event
  /** Ticks since it began. */
  readonly since: number
  readonly move: Move | undefined
}

/** The standing body at a tick, with only the given layers moving. Ticks need not be whole. */
export function standingAt(
  simulation: Simulation,
  at: number,
  layers: ReadonlySet<Layer>,
): StandingBody {
  const { vocabulary } = simulation
  const pass = passAt(simulation.passes, at)
  const { start } = simulation.combination
  const before = (layer: Layer): readonly Running[] => {
    if (!pass || !layers.has(layer)) return []
    // Places last from one phrase to the next, so the phrase before is looked at too.
    const known = simulation.passes.slice(Math.max(0, pass.index - 1), pass.index + 1)
    return known.flatMap((p) =>
      p.events
        .filter((event) => event.layer === layer && p.at + event.at <= at)
        .map((event) => ({
          event,
          since: at - p.at - event.at,
          move: event.what.kind === 'move' ? vocabulary.find(event.what.move) : undefined,
        })),
    )
  }
  const feet = layers.has('feet') ? feetAt(simulation, at) : stillFeet(start)
  return {
    ...feet,
    hips: shiftOf('hips', before('hips'), start.hips),
    ribs: shiftOf('ribs', before('torso'), start.ribs),
    palms: palmsOf(before('arms'), start),
    head: headOf(before('head'), start.gaze),
  }
}

const sideShare = (weight: 'L' | 'R' | 'both'): number => (weight === 'both' ? 0 : signOf(weight))

const stillFeet = (start: Start) => ({
  weight: sideShare(start.weight) * 0.3,
  lifted: { R: 0, L: 0 },
})

function feetAt(simulation: Simulation, at: number) {
  const now = stateAt(simulation, at)
  const next = simulation.danced.find((danced) => danced.at > at)
  // The weight is there as the step lands, so it leaves before it.
  const gone = next ? eased(1 - (next.at - at) / STEP_TICKS) : 0
  const then = next?.after ?? now
  const lift = (side: Side) => {
    const air = now.feet[side].contact === 'air' ? 2.4 * PASSING_LIFT_M : 0
    const moving = next?.action.foot === side && gone > 0 && gone < 1
    return air + (moving ? PASSING_LIFT_M * Math.sin(Math.PI * gone) : 0)
  }
  return {
    weight: between(sideShare(now.weight), sideShare(then.weight), gone),
    lifted: { R: lift('R'), L: lift('L') },
  }
}

/** Where hips or ribs have come to by the places and paths so far, and what swings on top now. */
function shiftOf(part: 'hips' | 'ribs', running: readonly Running[], from: Compass): Shift {
  let place = from
  let shift = offsetOf(part, from)
  let swing = NO_SHIFT
  for (const { event, since, move } of running) {
    const path = pathOf(event, move, place)
    if (path) {
      shift = alongPath(part, path, since / event.length)
      place = path.at(-1) ?? place
    } else if (move && since < event.length) {
      swing = added(swing, swingOf(part, event, move, since))
    }
  }
  return added(shift, swing)
}

const offsetOf = (part: 'hips' | 'ribs', place: Compass): Shift => {
  const { right, forward } = compassOffset(part, place)
  return { right, up: forward * FORWARD_AS_UP, tilt: 0 }
}

const added = (a: Shift, b: Shift): Shift => ({
  right: a.right + b.right,
  up: a.up + b.up,
  tilt: a.tilt + b.tilt,
})

function pathOf(
  event: Event,
  move: Move | undefined,
  from: Compass,
): readonly Compass[] | undefined {
  if (event.what.kind === 'at') return [from, event.what.place]
  if (!move || event.what.kind !== 'move') return undefined
  const path = compassPath(move.motion)
  if (path.length === 0) return undefined
  const left = event.what.side === 'L' || event.what.way === 'ccw'
  const own = left ? path.map(mirrorPlace) : path
  return move.to === '=' ? [from, ...own, from] : [from, ...own]
}

function mirrorPlace(place: Compass): Compass {
  const mirrored = mirrorWhat({ kind: 'at', place })
  return mirrored.kind === 'at' ? mirrored.place : place
}

function alongPath(part: 'hips' | 'ribs', path: readonly Compass[], share: number): Shift {
  const legs = path.length - 1
  const along = Math.min(1, Math.max(0, share)) * legs
  const leg = Math.min(legs - 1, Math.floor(along))
  const [a, b] = [path[leg] ?? 'C', path[leg + 1] ?? 'C']
  const [from, to] = [offsetOf(part, a), offsetOf(part, b)]
  const t = legs === 1 ? eased(along - leg) : along - leg
  return {
    right: between(from.right, to.right, t),
    up: between(from.up, to.up, t),
    tilt: 0,
  }
}

/** Accents and textures, from the move's own motion. */
function swingOf(part: 'hips' | 'ribs', event: Event, move: Move, since: number): Shift {
  const channelPart = part === 'hips' ? 'pelvis' : 'ribs'
  const mirrored = event.what.kind === 'move' && event.what.side === 'L' ? -1 : 1
  const every = (event.what.kind === 'move' && event.what.every) || move.length
  const phase = since % every
  let shift = NO_SHIFT
  for (const [i, item] of move.motion.entries()) {
    if (item.verb === 'osc' && item.channel.startsWith(channelPart)) {
      const { cycles, per } = item.rate
      const round = cycles * (per === 'count' ? since / TICKS_PER_COUNT : phase / every)
      const angle = 2 * Math.PI * round + ((item.phase ?? 0) * Math.PI) / 180
      shift = added(
        shift,
        channelShift(item.channel, item.amount * Math.sin(angle) * signOn(item.channel, mirrored)),
      )
    } else if (item.verb === 'peak' && item.channel.startsWith(channelPart)) {
      const begins = (i * every) / move.motion.length
      const fall = item.sharp ? SHARP_TICKS * 1.5 : every / move.motion.length
      const past = phase - begins
      if (past >= 0)
        shift = added(
          shift,
          channelShift(
            item.channel,
            item.amount * (1 - eased(past / fall)) * signOn(item.channel, mirrored),
          ),
        )
    } else if (item.verb === 'eight') {
      const turn = (2 * Math.PI * phase) / every
      const side = compassOffset(part, 'R').right
      shift = added(shift, {
        right: mirrored * side * Math.sin(turn),
        up: side * 0.3 * Math.sin(2 * turn),
        tilt: 0,
      })
    } else if (item.verb === 'wave' && item.parts.includes(channelPart)) {
      const late = item.parts.indexOf(channelPart) / 4
      shift = added(shift, {
        right: 0,
        up: 0.03 * Math.sin(2 * Math.PI * (phase / every - late)),
        tilt: 0,
      })
    }
  }
  return shift
}

/** On the other side only what goes sideways or round changes its sign (model 6). */
const signOn = (channel: Channel, mirrored: 1 | -1): 1 | -1 =>
  /\.(side|tilt|twist|turn)$/.test(channel) ? mirrored : 1

function channelShift(channel: string, amount: number): Shift {
  switch (channel.split('.')[1]) {
    case 'side':
      return { right: amount / 100, up: 0, tilt: 0 }
    case 'rise':
    case 'lift':
      return { right: 0, up: amount / 100, tilt: 0 }
    case 'tilt':
      return { right: 0, up: 0, tilt: amount }
    case 'forward':
      return { right: 0, up: (amount / 100) * FORWARD_AS_UP, tilt: 0 }
    case 'twist':
      return { right: 0, up: 0, tilt: amount * 0.5 }
    default:
      return { right: 0, up: (amount / 1000) * FORWARD_AS_UP, tilt: 0 }
  }
}

/** The places the arms are sent to, in turn; each way takes the event's time. */
function palmsOf(running: readonly Running[], start: Start): StandingBody['palms'] {
  const palms = { R: palmAt('R', start.arms.R), L: palmAt('L', start.arms.L) }
  for (const { event, since, move } of running) {
    for (const side of SIDES) {
      const to = armTarget(event, move, side)
      if (!to) continue
      const [from, goal] = [palms[side], palmAt(side, to.place)]
      const through = to.through && palmAt(side, to.through)
      const t = eased(since / event.length)
      palms[side] = through
        ? t < 0.5
          ? mixed(from, through, t * 2)
          : mixed(through, goal, t * 2 - 1)
        : mixed(from, goal, t)
    }
  }
  return palms
}

const mixed = <T extends { right: number; up: number; forward: number }>(
  a: T,
  b: T,
  t: number,
) => ({
  right: between(a.right, b.right, t),
  up: between(a.up, b.up, t),
  forward: between(a.forward, b.forward, t),
})

function armTarget(
  { what }: Event,
  move: Move | undefined,
  side: Side,
): { place: ArmPlace; through?: ArmPlace | undefined } | undefined {
  if (what.kind === 'arms') {
    const place = what[side]
    return place && { place, through: what.via && viaPlace[what.via] }
  }
  if (!move || what.kind !== 'move') return undefined
  const written: Side = what.side === 'L' ? (side === 'R' ? 'L' : 'R') : side
  for (const item of move.motion) {
    if (item.verb === 'to' && (item.arm === 'both' || item.arm === written))
      return { place: item.place as ArmPlace }
  }
  return undefined
}

const GAZE_ANGLES: Readonly<Record<Gaze, StandingBody['head']>> = {
  front: { turn: 0, nod: 0, tilt: 0 },
  R: { turn: 60, nod: 0, tilt: 0 },
  L: { turn: -60, nod: 0, tilt: 0 },
  up: { turn: 0, nod: -25, tilt: 0 },
  down: { turn: 0, nod: 30, tilt: 0 },
  'over-R': { turn: 80, nod: 0, tilt: 0 },
  'over-L': { turn: -80, nod: 0, tilt: 0 },
  'hand-R': { turn: 45, nod: 5, tilt: 0 },
  'hand-L': { turn: -45, nod: 5, tilt: 0 },
  'tilt-R': { turn: 0, nod: 0, tilt: 18 },
  'tilt-L': { turn: 0, nod: 0, tilt: -18 },
}

function headOf(running: readonly Running[], from: Gaze): StandingBody['head'] {
  let head = GAZE_ANGLES[from]
  for (const { event, since, move } of running) {
    const gaze = gazeTarget(event, move)
    if (!gaze) continue
    const to = GAZE_ANGLES[gaze]
    const t = eased(since / event.length)
    head = {
      turn: between(head.turn, to.turn, t),
      nod: between(head.nod, to.nod, t),
      tilt: between(head.tilt, to.tilt, t),
    }
  }
  return head
}

function gazeTarget({ what }: Event, move: Move | undefined): Gaze | undefined {
  if (what.kind === 'look') return what.gaze
  const item = move?.motion[0]
  if (what.kind !== 'move' || item?.verb !== 'to') return undefined
  const gaze = item.place.replace('shoulder-', 'over-') as Gaze
  if (!(gaze in GAZE_ANGLES)) return undefined
  const mirrored = what.side === 'L' ? mirrorWhat({ kind: 'look', gaze }) : undefined
  return mirrored?.kind === 'look' ? mirrored.gaze : gaze
}
