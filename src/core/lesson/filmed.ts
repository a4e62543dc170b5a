import { z } from 'zod'
import { upgrade } from '../record/upgrade'
import { type Chapter, chaptersOf } from './chapters'
import type { LessonStep } from './script'

const FILMED_VERSION = 1

/** A lesson while it is filmed: when the camera began, and when each step of its script did. */
export const Filmed = z
  .object({
    kind: z.literal('lesson'),
    schemaVersion: z.literal(FILMED_VERSION),
    /** Id of the combination. */
    id: z.string().min(1),
    stand: z.enum(['mirror', 'back']),
    /** Milliseconds since 1970. */
    begun: z.number(),
    /** The last moment: it is over. */
    ended: z.number().optional(),
    /** The steps as they were begun, in the order of their time; one may be there again. */
    marks: z.array(z.object({ step: z.int().min(0), at: z.number() }).readonly()).readonly(),
  })
  .readonly()
export type Filmed = z.infer<typeof Filmed>

/**
 * Reads a lesson that was filmed.
 * @throws UserError or ZodError when it is of a newer version, or damaged.
 */
export const readFilmed = (record: Record<string, unknown>): Filmed =>
  Filmed.parse(upgrade(record, FILMED_VERSION, []))

export const beginFilming = (id: string, stand: Filmed['stand'], now: number): Filmed => ({
  kind: 'lesson',
  schemaVersion: FILMED_VERSION,
  id,
  stand,
  begun: now,
  marks: [{ step: 0, at: now }],
})

/** The step a film has come to. */
export const stepOf = ({ marks }: Filmed): number => marks.at(-1)?.step ?? 0

/** On to a step, or back to one: filmed again, it counts from there. */
export const toStep = (filmed: Filmed, step: number, now: number): Filmed => ({
  ...filmed,
  marks: [...filmed.marks.filter((mark) => mark.step < step), { step, at: now }],
})

/** The chapters of what was filmed, by when each began. */
export const chaptersFilmed = (
  { begun, marks }: Filmed,
  script: readonly LessonStep[],
): readonly Chapter[] =>
  chaptersOf(
    marks.flatMap(({ step, at }) => {
      const title = script[step]?.chapter
      return title === undefined ? [] : [{ at: (at - begun) / 1000, title }]
    }),
  )
