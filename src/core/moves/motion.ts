import { z } from 'zod'
import { Compass } from '../body/places'

/**
 * What a move does to the body, read from the vocabulary's motion column. One item after
 * another for the same part of the body, together for different parts.
 */
export const Motion = z.discriminatedUnion('verb', [
  z.object({ verb: z.literal('to'), arm: z.string().optional(), place: z.string() }),
  z.object({ verb: z.literal('via'), arm: z.string().optional(), way: z.string() }),
  z.object({ verb: z.literal('arc'), places: z.array(z.string()).min(2) }),
  z.object({ verb: z.literal('circle'), arm: z.string().optional(), args: z.array(z.string()) }),
  z.object({ verb: z.literal('eight'), plane: z.string(), loops: z.string() }),
  z.object({
    verb: z.literal('peak'),
    channel: z.string(),
    amount: z.number(),
    sharp: z.boolean(),
  }),
  z.object({
    verb: z.literal('osc'),
    channel: z.string(),
    amount: z.number(),
    perCount: z.number().positive(),
  }),
  z.object({ verb: z.literal('wave'), arm: z.string().optional(), parts: z.array(z.string()) }),
  z.object({
    verb: z.enum(['roll', 'flick', 'brush', 'clap', 'push', 'pull']),
    arm: z.string().optional(),
  }),
])
export type Motion = z.infer<typeof Motion>

const ITEM = /^(?:(R|L|both):)?([a-z]+)(?:\((.*)\))?$/

/**
 * Reads a motion such as `arc(L>FL>F>FR>R)` or `osc(pelvis.tilt 4, 2/count)+...`.
 * @throws Error that names the item that cannot be read.
 */
export function readMotion(text: string): readonly Motion[] {
  if (text.trim() === '') return []
  // A plus inside brackets is a sign, not a joint between items.
  return text.split(/\+(?![^(]*\))/).map((item) => {
    const found = ITEM.exec(item.trim())
    if (!found) throw new Error(`“${item}” is no motion`)
    const [, arm, verb = '', inner = ''] = found
    const read = Motion.safeParse({ verb, ...(arm && { arm }), ...fieldsOf(verb, inner) })
    if (!read.success) throw new Error(`“${item}” is no motion`, { cause: read.error })
    return read.data
  })
}

function fieldsOf(verb: string, inner: string): Record<string, unknown> {
  const args = inner.split(',').map((arg) => arg.trim())
  const [first = ''] = args
  switch (verb) {
    case 'to':
      return { place: first }
    case 'via':
      return { way: first }
    case 'arc':
      return { places: first.split('>') }
    case 'circle':
      return { args }
    case 'eight':
      return { plane: first, loops: args[1] }
    case 'peak': {
      const [channel, amount, edge] = first.split(/\s+/)
      return { channel, amount: Number(amount), sharp: edge === 'sharp' }
    }
    case 'osc': {
      const [channel, amount] = first.split(/\s+/)
      return { channel, amount: Number(amount), perCount: Number.parseFloat(args[1] ?? '') }
    }
    case 'wave':
      return { parts: first.split('>') }
    default:
      return {}
  }
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
