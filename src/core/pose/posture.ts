import type { Layer } from '../body/layers'
import { LEG_TURN, type LegPlace, type ShoulderPlace, type TrunkPlace } from '../body/places'
import { SIDES, type Side } from '../body/side'
import type { Channel } from '../moves/motion'
import { courseOf, courseSlices } from '../simulate/course'
import type { Simulation } from '../simulate/simulate'
import { TICKS_PER_COUNT } from '../time/time'
import { at, scaleOf } from './channels'
import { type Held, heldThrough, type Sending, straightTo } from './held'
import { timeOf } from './isolations'

type Amounts = Readonly<Partial<Record<Channel, number>>>

/** How far the trunk goes at each of its places, in degrees and centimetres (h). */
const TRUNK: Readonly<Record<TrunkPlace, Amounts>> = {
  upright: {},
  // From the hips, which go back a little to stay over the feet.
  forward: {
    'ribs.arch': -25,
    'ribs.forward': 9,
    'ribs.lift': -2,
    'pelvis.tuck': -11,
    'pelvis.forward': -5,
  },
  back: { 'ribs.arch': 8, 'ribs.forward': -4, 'pelvis.forward': 2 },
  arch: { 'ribs.arch': 15, 'ribs.lift': 1, 'pelvis.tuck': -4 },
  round: { 'ribs.arch': -15, 'ribs.forward': -2, 'ribs.lift': -1, 'pelvis.tuck': 8 },
  'twist-R': { 'ribs.twist': 30 },
  'twist-L': { 'ribs.twist': -30 },
  'tip-R': { 'ribs.tilt': -12, 'ribs.side': 3 },
  'tip-L': { 'ribs.tilt': 12, 'ribs.side': -3 },
}

/** How far a shoulder goes, in centimetres up and forward (h). */
const SHOULDER: Readonly<Record<ShoulderPlace, readonly [up: number, forward: number]>> = {
  level: [0, 0],
  back: [0, -4],
  forward: [0, 4],
  up: [4, 0],
  down: [-4, 0],
}

/** The channels that a posture holds somewhere. */
const HELD_CHANNELS: readonly Channel[] = [
  'ribs.arch',
  'ribs.forward',
  'ribs.lift',
  'ribs.twist',
  'ribs.tilt',
  'ribs.side',
  'pelvis.tuck',
  'pelvis.forward',
  'shoulderR.up',
  'shoulderR.forward',
  'shoulderL.up',
  'shoulderL.forward',
]
const TRUNK_CHANNELS = HELD_CHANNELS.slice(0, 8)
export const POSTURE_SIZE = HELD_CHANNELS.length

const trunkAt = (place: TrunkPlace): readonly number[] =>
  TRUNK_CHANNELS.map((channel) => (TRUNK[place][channel] ?? 0) * scaleOf(channel))

const shoulderAt = (place: ShoulderPlace): readonly number[] =>
  SHOULDER[place].map((cm) => cm / 100)

/** How the trunk, each shoulder and each leg are held through a simulation. */
export interface Posture {
  readonly legs: Readonly<Record<Side, Held>>
  readonly trunk: Held
  readonly shoulders: Readonly<Record<Side, Held>>
}

/** What holds trunk, shoulders and legs; as they stand where their layer is not shown. */
export function postureOf(simulation: Simulation, shown: ReadonlySet<Layer>): Posture {
  const isShown = shown.has('torso')
  const trunk: Sending[] = []
  const shoulders: Record<Side, Sending[]> = { R: [], L: [] }
  if (isShown) {
    for (const run of courseOf(simulation)) {
      const { what } = run.event
      const time = timeOf(run, simulation.time)
      if (what.kind === 'trunk') trunk.push({ ...time, way: straightTo(trunkAt(what.place)) })
      if (what.kind === 'shoulder')
        shoulders[what.side].push({ ...time, way: straightTo(shoulderAt(what.place)) })
    }
    for (const { returns } of courseSlices(simulation))
      for (const { part, sides, at: start, after } of returns) {
        const leg = { start, end: start + TICKS_PER_COUNT }
        if (part === 'trunk') trunk.push({ ...leg, way: straightTo(trunkAt(after.trunk)) })
        if (part === 'shoulders')
          for (const side of sides)
            shoulders[side].push({ ...leg, way: straightTo(shoulderAt(after.shoulders[side])) })
      }
  }
  const held = (side: Side) => heldThrough(shoulderAt('level'), shoulders[side])
  return {
    legs: legsOf(simulation, shown.has('legs')),
    trunk: heldThrough(trunkAt('upright'), trunk),
    shoulders: { R: held('R'), L: held('L') },
  }
}

/** Degrees by which a leg is turned out at each of its places. */
const LEG: Readonly<Record<LegPlace, readonly number[]>> = {
  home: [0],
  in: [-LEG_TURN],
  out: [LEG_TURN],
}

function legsOf(simulation: Simulation, isShown: boolean): Posture['legs'] {
  const sent: Record<Side, Sending[]> = { R: [], L: [] }
  if (isShown) {
    for (const run of courseOf(simulation)) {
      const { what } = run.event
      if (what.kind !== 'legs') continue
      for (const side of SIDES) {
        const place = what[side]
        if (place) sent[side].push({ ...timeOf(run, simulation.time), way: straightTo(LEG[place]) })
      }
    }
    for (const { returns } of courseSlices(simulation))
      for (const { part, sides, at: start, after } of returns)
        if (part === 'legs')
          for (const side of sides)
            sent[side].push({
              start,
              end: start + TICKS_PER_COUNT,
              way: straightTo(LEG[after.legs[side]]),
            })
  }
  return { R: heldThrough(LEG.home, sent.R), L: heldThrough(LEG.home, sent.L) }
}

/** Adds what is held to what is danced. */
export function addPosture(posture: Float64Array, channels: Float64Array): void {
  for (let i = 0; i < HELD_CHANNELS.length; i++) {
    const channel = at[HELD_CHANNELS[i] as Channel]
    channels[channel] = (channels[channel] as number) + (posture[i] as number)
  }
}
