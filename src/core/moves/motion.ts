import { z } from 'zod'
import { Hand } from '../body/hands'
import { ArmPlace, COMPASS, Compass, Via } from '../body/places'
import { oneOf } from '../body/words'

export const MOTION_CHANNELS = [
  'pelvis.side',
  'pelvis.forward',
  'pelvis.rise',
  'pelvis.tilt',
  'pelvis.twist',
  'pelvis.tuck',
  'ribs.side',
  'ribs.forward',
  'ribs.lift',
  'ribs.tilt',
  'ribs.twist',
  'ribs.arch',
  'shoulderR.up',
  'shoulderR.forward',
  'shoulderL.up',
  'shoulderL.forward',
  'head.turn',
  'head.nod',
  'head.tilt',
  'head.side',
  'head.forward',
  'legR.turn',
  'legL.turn',
  'knees.bend',
  'waist.out',
  'body.lean',
  'body.tilt',
] as const
/**
 * What can be moved by an amount (model 12): centimetres or degrees, written for the right
 * side. `body.lean` is the whole body from the ankles, forward +; `body.tilt` to the side,
 * right side up +; `waist.out` the belly, forward +; `head.side` a slide without a tilt, `head.forward`
 * one to the front; `legR.turn` the right leg from the hip, outwards +.
 */
export const Channel = z.enum(MOTION_CHANNELS)
export type Channel = z.infer<typeof Channel>

const Arm = z.enum(['R', 'L', 'both'])
const Size = z.enum(['small', 'large'])
/** How often something goes round: a count, or over the whole move. */
const Rate = z.object({ cycles: z.number().positive(), per: z.enum(['count', 'move']) })
/** Items of the same part of the body come one after the other; one `with` the item before goes together with it. */
const joined = { with: z.literal(true).optional() }

/** Where the head or an arm can be sent, besides the compass. */
const HEAD_PLACES = [
  'front',
  'up',
  'down',
  'shoulder-R',
  'shoulder-L',
  'hand-R',
  'hand-L',
  'tilt-R',
  'tilt-L',
] as const
const Place = z.enum([...Compass.options, ...HEAD_PLACES, ...ArmPlace.exclude(['front']).options])
/** Whether the head can be sent there. */
export const isHeadPlace = oneOf([...COMPASS, ...HEAD_PLACES])

/**
 * What a move does to the body, read from the vocabulary's motion column. One item after
 * another for the same part of the body, together for different parts.
 */
export const Motion = z.discriminatedUnion('verb', [
  z.object({ verb: z.literal('to'), arm: Arm.optional(), place: Place, ...joined }),
  z.object({ verb: z.literal('via'), arm: Arm, way: Via, ...joined }),
  z.object({ verb: z.literal('arc'), places: z.array(Place).min(2), ...joined }),
  z.object({
    verb: z.literal('circle'),
    arm: Arm.optional(),
    joint: z.enum(['wrist', 'hand']).optional(),
    way: z.enum(['cw', 'ccw', 'in', 'out']),
    size: Size.optional(),
    rate: Rate.optional(),
    ...joined,
  }),
  z.object({
    verb: z.literal('eight'),
    plane: z.enum(['horizontal', 'vertical']),
    loops: z.enum(['outward', 'inward', 'down', 'up']),
    size: Size.optional(),
    rate: Rate.optional(),
    ...joined,
  }),
  z.object({
    verb: z.literal('peak'),
    channel: Channel,
    amount: z.number(),
    sharp: z.boolean(),
    ...joined,
  }),
  z.object({
    verb: z.literal('osc'),
    channel: Channel,
    amount: z.number(),
    rate: Rate,
    /** Degrees ahead of a sine that starts at 0 going up. */
    phase: z.number().optional(),
    ...joined,
  }),
  z.object({
    verb: z.literal('wave'),
    arm: Arm.optional(),
    parts: z
      .array(z.enum(['head', 'ribs', 'waist', 'pelvis', 'shoulder', 'elbow', 'wrist']))
      .min(2),
    plane: z.enum(['side', 'front']).optional(),
    ...joined,
  }),
  z.object({
    verb: z.literal('roll'),
    arm: Arm.optional(),
    way: z.enum(['in', 'out']).optional(),
    rate: Rate.optional(),
    ...joined,
  }),
  z.object({
    verb: z.enum(['flick', 'brush', 'clap', 'push', 'pull']),
    arm: Arm.optional(),
    ...joined,
  }),
  /** How a hand is held while the move is danced. */
  z.object({ verb: z.literal('hand'), arm: Arm, hand: Hand, ...joined }),
  /** The left side does all this half a turn after the right one. */
  z.object({ verb: z.literal('alternate') }),
])
export type Motion = z.infer<typeof Motion>

const ITEM = /^(?:(R|L|both):)?([a-z]+)(?:\((.*)\))?$/

/**
 * Reads a motion such as `arc(L>FL>F>FR>R)&osc(pelvis.tilt 4, 1/move)`. `+` is “and then”
 * for the same part of the body, `&` “together with”.
 * @throws Error that names the item that cannot be read.
 */
export function readMotion(text: string): readonly Motion[] {
  if (text.trim() === '') return []
  // A plus inside brackets is a sign, not a joint between items.
  const joints = text.split(/([+&])(?![^(]*\))/)
  return joints.flatMap((item, i) => {
    if (i % 2 === 1) return []
    const found = ITEM.exec(item.trim())
    if (!found) throw new Error(`“${item}” is no motion`)
    const [, arm, verb = '', inner = ''] = found
    const fields = fieldsOf(
      verb,
      inner
        .split(',')
        .map((arg) => arg.trim())
        .filter(Boolean),
    )
    const read = Motion.safeParse({
      verb,
      ...(arm && { arm }),
      ...fields,
      ...(joints[i - 1] === '&' && { with: true }),
    })
    if (!read.success) throw new Error(`“${item}” is no motion`, { cause: read.error })
    return [read.data]
  })
}

const RATE = /^([\d.]+)\/(count|move)$/
const optional = (args: readonly string[], words: readonly string[]) =>
  args.find((arg) => words.includes(arg))
function rateIn(args: readonly string[]): object {
  const found = args.map((arg) => RATE.exec(arg)).find(Boolean)
  return found ? { rate: { cycles: Number(found[1]), per: found[2] } } : {}
}
const sizeIn = (args: readonly string[]): object => {
  const size = optional(args, Size.options)
  return size ? { size } : {}
}

function fieldsOf(verb: string, args: readonly string[]): Record<string, unknown> {
  const [first = ''] = args
  switch (verb) {
    case 'to':
      return { place: first }
    case 'via':
      return { way: first }
    case 'arc':
      return { places: first.split('>') }
    case 'circle': {
      const joint = optional(args, ['wrist', 'hand'])
      const way = optional(args, ['cw', 'ccw', 'in', 'out'])
      return { ...(joint && { joint }), way, ...sizeIn(args), ...rateIn(args) }
    }
    case 'eight':
      return { plane: first, loops: args[1], ...sizeIn(args), ...rateIn(args) }
    case 'peak': {
      const [channel, amount, edge] = first.split(/\s+/)
      return { channel, amount: Number(amount), sharp: edge === 'sharp' }
    }
    case 'osc': {
      const [channel, amount] = first.split(/\s+/)
      const phase = args[2] === undefined ? {} : { phase: Number(args[2]) }
      return { channel, amount: Number(amount), ...rateIn(args), ...phase }
    }
    case 'wave': {
      const plane = args[1]
      return { parts: first.split('>'), ...(plane && { plane }) }
    }
    case 'hand': {
      const words = first.split(/\s+/)
      const palm = words.indexOf('palm')
      const shape = words[0] === 'palm' ? undefined : words[0]
      return { hand: { ...(shape && { shape }), ...(palm >= 0 && { palm: words[palm + 1] }) } }
    }
    case 'roll': {
      const way = optional(args, ['in', 'out'])
      return { ...(way && { way }), ...rateIn(args) }
    }
    default:
      return {}
  }
}

/** Where a place lies from above: right, and forward. What is no place of a ring lies in its middle. */
const AROUND: Readonly<Partial<Record<z.infer<typeof Place>, readonly [number, number]>>> = {
  R: [1, 0],
  L: [-1, 0],
  F: [0, 1],
  B: [0, -1],
  FR: [0.7, 0.7],
  FL: [-0.7, 0.7],
  BR: [0.7, -0.7],
  BL: [-0.7, -0.7],
  'tilt-R': [1, 0],
  'tilt-L': [-1, 0],
  down: [0, 1],
  up: [0, -1],
}

/** Which way round a motion goes on the right side, seen from above; undefined where it goes both ways, or neither. */
export function turningOf(motion: readonly Motion[]): 'cw' | 'ccw' | undefined {
  let area = 0
  for (const item of motion) {
    if (item.verb === 'circle' && (item.way === 'cw' || item.way === 'ccw')) return item.way
    if (item.verb !== 'arc') continue
    const points = item.places.map((place) => AROUND[place] ?? ([0, 0] as const))
    for (const [i, [x, y]] of points.entries()) {
      const [nextX, nextY] = points[i + 1] ?? [x, y]
      area += nextX * y - x * nextY
    }
  }
  return area > 1e-9 ? 'cw' : area < -1e-9 ? 'ccw' : undefined
}

/** The places of the compass a motion runs through, written for the right side; empty for one that has no path of its own. */
export function compassPath(motion: readonly Motion[]): readonly Compass[] {
  return motion.flatMap((item) => {
    const places =
      item.verb === 'arc'
        ? item.places
        : item.verb === 'to'
          ? [item.place]
          : item.verb === 'circle'
            ? ['R', 'BR', 'B', 'BL', 'L', 'FL', 'F', 'FR', 'R'] // clockwise from above: right, back, left, front
            : []
    return places.flatMap((place) => {
      const read = Compass.safeParse(place)
      return read.success ? [read.data] : []
    })
  })
}
