import { z } from 'zod'
import { Side } from '../body/side'
import { Start } from './start'
import { Later } from './voice'
import { PartId } from './whose'

/** Two to eight parts: more are groups that dance one of them. */
export const MOST_PARTS = 8
/** As many dancers of one part as stand in a line. */
const MOST_OF_A_PART = 12
/** Metres from the middle of the piece a dancer may stand, each way. */
const FARTHEST = 30

const Metres = z.number().min(-FARTHEST).max(FARTHEST)

/** What one of several dancers dances of a combination: who it is, where, and from which start. */
export const Part = z
  .object({
    id: PartId,
    /** What she is called: `Amber`. */
    name: z.string().min(1),
    /** Where its dancers stand on count 1, in metres from the middle of the piece; most parts have one. */
    at: z
      .array(z.object({ right: Metres, forward: Metres }).readonly())
      .min(1)
      .max(MOST_OF_A_PART)
      .readonly(),
    /** The foot she leads with, where that is not the others'. */
    lead: Side.optional(),
    /** How she stands on count 1, where that is not as the others do. */
    start: Start.optional(),
    /** What all dance she dances as their image. */
    mirrored: z.literal(true).optional(),
    /** Ticks later than the others she dances all of it. */
    delay: Later.refine((ticks) => ticks > 0, 'is no delay').optional(),
    /** Metres from the floor to the crown. */
    height: z.number().min(1).max(2.3).optional(),
  })
  .readonly()
export type Part = z.infer<typeof Part>
