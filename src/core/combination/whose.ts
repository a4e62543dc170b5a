import { z } from 'zod'

/** The part of a combination that is for one dancer alone. */
export const ONLY_PART = 'alone'

/** Stands for a dancer whose partners are not there: what she dances then in place of a meeting. */
export const SOLO = 'solo'

/** The middle of the piece, where a place is seen from nobody. */
export const CENTRE = 'centre'

/** Words that are no names of parts. */
const KEPT_WORDS: ReadonlySet<string> = new Set([SOLO, ONLY_PART, CENTRE])

/** The id of a part, as the sheet writes it behind `@`: what one of several dancers dances. */
export const PartId = z
  .string()
  .regex(/^[\p{L}\p{N}-]{1,20}$/u)
  .refine((id) => !KEPT_WORDS.has(id), 'is a word of its own')
export type PartId = z.infer<typeof PartId>

/** Who dances something that not everybody does: parts, or a dancer without her partners. */
export const Who = z
  .array(z.union([PartId, z.literal(SOLO)]))
  .min(1)
  .readonly()
  .refine((who) => new Set(who).size === who.length, 'names somebody twice')
export type Who = z.infer<typeof Who>

/** What may be for some dancers only. */
interface Whose {
  readonly who?: Who | undefined
}

/** Whether nobody in particular is named: all dance it. */
export const isShared = ({ who }: Whose): boolean => who === undefined

/** Whether it is danced only where the partners are not there. */
export const isSolo = ({ who }: Whose): boolean => who?.includes(SOLO) === true

/** Whether it names a part. */
export const isOwnOf = (one: Whose, part: PartId): boolean =>
  one.who?.includes(part) === true && !isSolo(one)

/** Whether a part dances it with the others: its own, or what all do. */
export const isDancedBy = (one: Whose, part: PartId): boolean => isShared(one) || isOwnOf(one, part)
