import { SIDES, type Side } from '../body/side'
import { type Channel, MOTION_CHANNELS } from '../moves/motion'

/** What an arm can do on top of where it is: metres and shares, in the chest's frame. */
const ARM_CHANNELS = [
  'right',
  'up',
  'forward',
  'along',
  'clap',
  'bendUp',
  'bendIn',
  'roll',
  'elbow',
] as const
export type ArmChannel = (typeof ARM_CHANNELS)[number]

const NAMES: readonly string[] = [
  ...MOTION_CHANNELS,
  ...SIDES.flatMap((side) => ARM_CHANNELS.map((name) => `arm${side}.${name}`)),
]

/** How many numbers a body's channels take: all that is added up at one moment. */
export const CHANNELS = NAMES.length

const places = new Map(NAMES.map((name, i) => [name, i]))
const placeOf = (name: string): number => places.get(name) ?? 0

/** Where each channel of the motion language stands among the numbers. */
export const at = Object.fromEntries(
  MOTION_CHANNELS.map((name) => [name, placeOf(name)]),
) as Readonly<Record<Channel, number>>

/** The places of the channels that isolate: what of a body moves while the rest is still. */
export const ISOLATED: readonly number[] = MOTION_CHANNELS.filter((channel) =>
  /^(pelvis|ribs|waist|shoulder)/.test(channel),
).map((channel) => at[channel])

export const armAt: Readonly<Record<Side, Readonly<Record<ArmChannel, number>>>> = {
  R: armPlaces('R'),
  L: armPlaces('L'),
}

function armPlaces(side: Side): Readonly<Record<ArmChannel, number>> {
  return Object.fromEntries(
    ARM_CHANNELS.map((name) => [name, placeOf(`arm${side}.${name}`)]),
  ) as Record<ArmChannel, number>
}

/** Centimetres are stored as metres; degrees stay degrees. */
export const scaleOf = (channel: Channel): number =>
  /\.(side|forward|rise|lift|up|bend|out)$/.test(channel) ? 0.01 : 1

/** The channel on the other side, and the sign it has there (model 6). */
export function acrossOf(channel: Channel): { readonly channel: Channel; readonly sign: 1 | -1 } {
  if (/^(shoulder|leg)R/.test(channel))
    return { channel: channel.replace('R', 'L') as Channel, sign: 1 }
  if (/^(shoulder|leg)L/.test(channel))
    return { channel: channel.replace('L', 'R') as Channel, sign: 1 }
  return { channel, sign: /\.(side|tilt|twist|turn)$/.test(channel) ? -1 : 1 }
}
