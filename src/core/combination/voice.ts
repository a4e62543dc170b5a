import { z } from 'zod'
import { Tick, tick } from '../time/time'
import { PartId } from './whose'

/** As late as a part may come in: most of a phrase of 64. */
const LATEST = 64 * 12

/** How many ticks later something is danced than another one dances it. */
export const Later = Tick.refine((ticks) => ticks >= 0 && ticks <= LATEST, 'is too late')

/** In a phrase a part dances what another one dances in it, some counts later or as its image. */
export const Voice = z
  .object({
    part: PartId,
    of: PartId,
    /** Ticks later than the other one. */
    by: Later,
    mirrored: z.literal(true).optional(),
  })
  .refine(({ part, of }) => part !== of, 'follows herself')
  .readonly()
export type Voice = z.infer<typeof Voice>

/** The voice of a part in a phrase, where it has one. */
export const voiceOf = (
  { voices }: { readonly voices?: readonly Voice[] | undefined },
  part: PartId,
): Voice | undefined => voices?.find((one) => one.part === part)

/** Whom a part may follow among others: nobody follows whom she is followed by. */
export const leadersFor = (
  part: PartId,
  parts: readonly PartId[],
  voices: readonly Voice[],
): readonly PartId[] => {
  const others = voices.filter((one) => one.part !== part)
  return parts.filter((id) => id !== part && areVoices([...others, { part, of: id, by: tick(0) }]))
}

/** Whether the voices of a phrase lead to somebody who dances by herself, and no part has two. */
export function areVoices(voices: readonly Voice[]): boolean {
  if (new Set(voices.map(({ part }) => part)).size !== voices.length) return false
  return voices.every(({ part }) => {
    const seen = new Set<PartId>()
    let at: PartId | undefined = part
    while (at !== undefined) {
      if (seen.has(at)) return false
      seen.add(at)
      at = voiceOf({ voices }, at)?.of
    }
    return true
  })
}
