import { z } from 'zod'
import { TICKS_PER_COUNT, Tick } from '../time/time'
import { readMotion } from './motion'
import { readPattern } from './pattern'

export const LAYERS = ['feet', 'hips', 'torso', 'arms', 'head'] as const
/** What moves, from the floor up. */
export const Layer = z.enum(LAYERS)
export type Layer = z.infer<typeof Layer>

export const Family = z.enum(['belly', 'bollywood', 'polynesian', 'latin', 'general'])
export type Family = z.infer<typeof Family>

/** How a move behaves in time: stays, runs through, strikes, trembles, or steps. */
export const MoveKind = z.enum(['place', 'path', 'accent', 'texture', 'steps'])
export type MoveKind = z.infer<typeof MoveKind>

/** A part of the body that a move needs for itself. */
export const BodyPart = z.enum([
  'feet',
  'knees',
  'pelvis',
  'waist',
  'ribs',
  'shoulders',
  'armR',
  'armL',
  'handR',
  'handL',
  'head',
])
export type BodyPart = z.infer<typeof BodyPart>

const list = z.string().transform((text) => (text === '' ? [] : text.split('|')))
const listOf = <T extends z.ZodType<unknown, string>>(item: T) => list.pipe(z.array(item))
const readBy = <T>(read: (text: string) => T) =>
  z.string().transform((text, context): T => {
    try {
      return read(text)
    } catch (error) {
      context.addIssue({ code: 'custom', message: String(error) })
      return z.NEVER
    }
  })

/** One row of the vocabulary, as the instructor's table holds it. Written for the right side. */
export const Move = z
  .object({
    id: z.string().regex(/^[a-z0-9-]+$/),
    name: z.string().min(1),
    aka: list,
    families: listOf(Family),
    layer: Layer,
    kind: MoveKind,
    claims: listOf(BodyPart),
    from: z.string(),
    to: z.string(),
    motion: readBy(readMotion),
    pattern: readBy((text) => (text === '' ? [] : readPattern(text))),
    /** The usual length. */
    counts: z.coerce
      .number()
      .positive()
      .transform((counts) => counts * TICKS_PER_COUNT)
      .pipe(Tick),
    fastest_s: z.coerce.number().positive(),
    sided: z.enum(['side', 'direction', 'none']),
    needs: list,
    demand: z.coerce.number().int().min(1).max(5),
    risk: listOf(z.enum(['neck', 'back', 'knees', 'impact'])),
    feel: z.string().min(1),
    watch: z.string(),
    care: z.string(),
    easier: z.string(),
    harder: z.string(),
    cue: z.string(),
  })
  .superRefine((row, context) => {
    if ((row.kind === 'steps') !== row.pattern.length > 0)
      context.addIssue({
        code: 'custom',
        message: `${row.id}: steps have a pattern, others do not`,
      })
    if ((row.kind === 'steps') === row.motion.length > 0)
      context.addIssue({ code: 'custom', message: `${row.id}: steps have no motion, others do` })
  })
  .transform(({ counts, ...row }) => ({ ...row, length: counts }))
  .readonly()
export type Move = z.infer<typeof Move>
