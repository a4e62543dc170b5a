import type { Layer } from '../body/layers'
import { LEG_TURN, type LegPlace, type ShoulderPlace, type TrunkPlace } from '../body/places'
import type { Side } from '../body/side'
import type { Channel } from '../moves/motion'
import type { Simulation } from '../simulate/simulate'
import { at, scaleOf } from './channels'
import { type Held, heldThrough } from './held'
import { sendingsOf } from './sendings'

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
  const torso = shown.has('torso') ? simulation : undefined
  const legs = shown.has('legs') ? simulation : undefined
  const trunk = sendingsOf(torso, 'trunk', {
    to: ({ event: { what } }) => (what.kind === 'trunk' ? what.place : undefined),
    back: (places) => places.trunk,
    held: trunkAt,
  })
  const shoulder = (side: Side) =>
    sendingsOf(torso, 'shoulders', {
      side,
      to: ({ event: { what } }) =>
        what.kind === 'shoulder' && what.side === side ? what.place : undefined,
      back: (places) => places.shoulders[side],
      held: shoulderAt,
    })
  const leg = (side: Side) =>
    sendingsOf(legs, 'legs', {
      side,
      to: ({ event: { what } }) => (what.kind === 'legs' ? what[side] : undefined),
      back: (places) => places.legs[side],
      held: (place) => LEG[place],
    })
  return {
    trunk: heldThrough(trunkAt('upright'), trunk),
    shoulders: {
      R: heldThrough(shoulderAt('level'), shoulder('R')),
      L: heldThrough(shoulderAt('level'), shoulder('L')),
    },
    legs: { R: heldThrough(LEG.home, leg('R')), L: heldThrough(LEG.home, leg('L')) },
  }
}

/** Degrees by which a leg is turned out at each of its places. */
const LEG: Readonly<Record<LegPlace, readonly number[]>> = {
  home: [0],
  in: [-LEG_TURN],
  out: [LEG_TURN],
}

/** Adds what is held to what is danced. */
export function addPosture(posture: Float64Array, channels: Float64Array): void {
  for (let i = 0; i < HELD_CHANNELS.length; i++) {
    const channel = at[HELD_CHANNELS[i] as Channel]
    channels[channel] = (channels[channel] as number) + (posture[i] as number)
  }
}
