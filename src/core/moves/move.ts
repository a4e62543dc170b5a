import { z } from 'zod'
import { Layer } from '../body/layers'
import { TICKS_PER_COUNT, Tick } from '../time/time'
import { readMotion } from './motion'
import { readPattern } from './pattern'

/** The families everybody is offered; the first five are those of the songs and of the first sheets. */
export const FIRST_FAMILIES = ['belly', 'bollywood', 'polynesian', 'latin', 'general'] as const
export const FAMILIES: readonly string[] = [
  ...FIRST_FAMILIES,
  'afro',
  'hip-hop',
  'street',
  'jazz',
  'contemporary',
]

/** A family of dances: one of those, or an instructor's own word. */
export const Family = z.string().regex(/^\p{Ll}[\p{Ll}\p{N}-]{0,23}$/u, 'is no word for a family')
export type Family = z.infer<typeof Family>

/** Words for families as they are stored; what can be none is left out. */
export const familiesNamed = (words: readonly string[]): readonly Family[] => [
  ...new Set(
    words
      .map((word) => word.trim().toLowerCase().replace(/\s+/g, '-'))
      .filter((word) => Family.safeParse(word).success),
  ),
]

/** All families that are known, and those that somebody uses, each once. */
export const familiesWith = (used: Iterable<Family>): readonly Family[] => [
  ...new Set([...FAMILIES, ...used]),
]

/** How a move behaves in time: stays, runs through, strikes, trembles, or steps. */
export const MoveKind = z.enum(['place', 'path', 'accent', 'texture', 'steps'])
export type MoveKind = z.infer<typeof MoveKind>

/** A part of the body that a move needs for itself. */
export const BodyPart = z.enum([
  'feet',
  'legR',
  'legL',
  'knees',
  'pelvis',
  'waist',
  'ribs',
  'shoulders',
  'armR',
  'armL',
  'handR',
  'handL',
  'fingersR',
  'fingersL',
  'head',
])
export type BodyPart = z.infer<typeof BodyPart>

/** What a move needs of the body, the floor or the class (model 8). */
export const Need = z.enum([
  'soft-knees',
  'flat-feet',
  'weight-one',
  'weight-both',
  'heel-up-working',
  'free-working-leg',
  'space-side',
  'space-forward',
  'space-back',
  'warm-neck',
  'warm-back',
])

/** What repetitions of a move load. */
export const Risk = z.enum(['neck', 'back', 'knees', 'impact'])
export type Risk = z.infer<typeof Risk>

export const Sided = z.enum(['side', 'direction', 'none'])
export type Sided = z.infer<typeof Sided>

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
    sided: Sided,
    needs: listOf(Need),
    demand: z.coerce.number().int().min(1).max(5),
    risk: listOf(Risk),
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

/**
 * A move an instructor made herself. Its motion or its pattern is kept as the text it was
 * written in; what is left out is plain: one count, no demand to speak of, no side.
 */
export const OwnMove = z
  .object({
    id: z.string().regex(/^[a-z0-9-]+$/),
    name: z.string().min(1),
    layer: Layer,
    kind: MoveKind,
    /** Steps of the feet, written from weight on L. */
    pattern: z.string().min(1).optional(),
    motion: z.string().min(1).optional(),
    counts: z.number().positive().max(16),
    sided: Sided,
    claims: z.array(BodyPart).min(1).readonly(),
    /** Where it ends: `on-R`, `both`, a place, or `=` for where it began. */
    to: z.string().min(1).optional(),
    demand: z.int().min(1).max(5).optional(),
    /** Where it starts: a place, or `*` for anywhere. */
    from: z.string().min(1).optional(),
    /** Seconds it is comfortable in at the quickest. */
    fastest: z.number().positive().max(60).optional(),
    needs: z.array(Need).min(1).readonly().optional(),
    risk: z.array(Risk).min(1).readonly().optional(),
    /** Ids of the forms lower and higher levels dance. */
    easier: z.string().min(1).optional(),
    harder: z.string().min(1).optional(),
    /** What the caller says; else its name. */
    cue: z.string().min(1).optional(),
    /** What else it is called. */
    aka: z.array(z.string().min(1)).min(1).readonly().optional(),
    families: z.array(Family).readonly().optional(),
    feel: z.string().min(1).optional(),
    care: z.string().min(1).optional(),
  })
  .superRefine((own, context) => {
    const read = Move.safeParse(rowOf(own))
    if (!read.success)
      context.addIssue({
        code: 'custom',
        message: missingIn(own) ?? read.error.issues[0]?.message ?? 'is no move',
        path: [own.layer === 'feet' ? 'pattern' : 'motion'],
      })
  })
  .readonly()
export type OwnMove = z.infer<typeof OwnMove>

/** What is not there is named as missing. */
const missingIn = ({ layer, pattern, motion }: Partial<OwnMove>): string | undefined =>
  layer === 'feet' && !pattern
    ? 'a pattern is missing'
    : layer !== 'feet' && !motion
      ? 'a motion is missing'
      : undefined

/** Seconds a count an own move is comfortable at, where nobody has said: a house figure. */
const USUAL_SECONDS_A_COUNT = 0.4

/** An own move as a row of the table, so that one reader reads both. */
const rowOf = (own: OwnMove): Record<string, string> => ({
  id: own.id,
  name: own.name,
  aka: (own.aka ?? []).join('|'),
  families: (own.families ?? ['general']).join('|'),
  layer: own.layer,
  kind: own.kind,
  claims: own.claims.join('|'),
  from: own.from ?? '*',
  to: own.to ?? '=',
  motion: own.motion ?? '',
  pattern: own.pattern ?? '',
  counts: String(own.counts),
  fastest_s: String(own.fastest ?? own.counts * USUAL_SECONDS_A_COUNT),
  sided: own.sided,
  needs: (own.needs ?? []).join('|'),
  demand: String(own.demand ?? 2),
  risk: (own.risk ?? []).join('|'),
  feel: own.feel ?? own.name,
  watch: '',
  care: own.care ?? '',
  easier: own.easier ?? '',
  harder: own.harder ?? '',
  cue: own.cue ?? own.name.toLowerCase(),
})

export const moveOfOwn = (own: OwnMove): Move => Move.parse(rowOf(own))
