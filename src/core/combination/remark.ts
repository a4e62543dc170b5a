import { z } from 'zod'
import { Side } from '../body/side'
import { MOST_PHRASE_COUNTS, Tick, TickLength } from '../time/time'
import { Who } from './whose'

/** What a word of the sheet is about: called, sung, noted, held in a hand, a picture, breath, face, or what to get ready for. */
export const RemarkKind = z.enum([
  'say',
  'words',
  'note',
  'prop',
  'pose',
  'breath',
  'face',
  'prepare',
])
export type RemarkKind = z.infer<typeof RemarkKind>

/** What the caller says on each count: its number, on some counts only or on all, its word, the name of what begins, or nothing. */
export const CountCalls = z
  .object({
    says: z.enum(['numbers', 'words', 'names', 'none']),
    counts: z.array(z.int().min(1).max(MOST_PHRASE_COUNTS)).min(1).readonly().optional(),
  })
  .refine(({ says, counts }) => says === 'numbers' || !counts, {
    message: 'only numbers are said on some counts',
    path: ['counts'],
  })
  .readonly()
export type CountCalls = z.infer<typeof CountCalls>

/** A word of the sheet that belongs to a place in time, not to one move. */
export const Remark = z
  .object({
    id: z.string().min(1),
    kind: RemarkKind,
    at: Tick,
    length: TickLength,
    /** Of a pose it may be empty; of breath it is `in` or `out`. */
    text: z.string(),
    /** Whom it is said to or noted of, where not of all. */
    who: Who.optional(),
    /** The tick of the phrase that one prepares for. */
    for: Tick.optional(),
    /** The hand that holds a prop. */
    hand: Side.optional(),
    /** Stays as written when the combination is mirrored. */
    kept: z.literal(true).optional(),
    /** No number is said on the counts it covers. */
    only: z.literal(true).optional(),
  })
  .refine(({ kind, only }) => kind === 'say' || !only, {
    message: 'only what is said can be said alone',
    path: ['only'],
  })
  .refine(({ kind, hand, kept }) => kind === 'prop' || (!hand && !kept), {
    message: 'only a prop is held in a hand',
    path: ['hand'],
  })
  .refine(({ kind, text }) => kind === 'pose' || text.length > 0, {
    message: 'says nothing',
    path: ['text'],
  })
  .refine(({ kind, text }) => kind !== 'breath' || text === 'in' || text === 'out', {
    message: 'breathes neither in nor out',
    path: ['text'],
  })
  .refine((remark) => (remark.kind === 'prepare') === (remark.for !== undefined), {
    message: 'only what prepares says for which count',
    path: ['for'],
  })
  .readonly()
export type Remark = z.infer<typeof Remark>
