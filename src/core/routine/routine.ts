import { z } from 'zod'
import { Side } from '../body/side'
import { Pace } from '../combination/pace'
import { type Upgrade, upgrade } from '../record/upgrade'

const ROUTINE_VERSION = 5

/** Twice as fast as it is written, or half as fast. */

/** Some of a combination that is danced: as many of its counts as the piece has. */
const Dance = z
  .object({
    kind: z.literal('dance'),
    /** Id of the combination. */
    combination: z.string().min(1),
    /** The pass of its order it begins with. */
    from: z.int().min(0),
    side: Side,
    pace: Pace.optional(),
  })
  .readonly()

/** Counts in which nothing that is written is danced. */
const Rest = z
  .object({
    kind: z.literal('rest'),
    how: z.enum(['pose', 'free', 'wait', 'walk']),
    words: z.string().max(60),
  })
  .readonly()
type Rest = z.infer<typeof Rest>
export type RestHow = Rest['how']

/** Something laid on counts of a song. */
const Piece = z
  .object({
    id: z.string().min(1),
    /** Its first count, as a place of the song's counts. */
    at: z.int().min(0),
    counts: z.int().min(1),
    /** Stays as it is: no hand moves it, and no proposal takes its place. */
    locked: z.literal(true).optional(),
    /** When it begins and ends, in milliseconds of the song: where it is if the song is counted anew. */
    ms: z
      .object({ from: z.int().min(0), to: z.int().min(0) })
      .readonly()
      .optional(),
    what: z.discriminatedUnion('kind', [Dance, Rest]),
  })
  .readonly()
export type Piece = z.infer<typeof Piece>

/** Nobody waits longer between two songs, in seconds. */
export const MOST_PAUSE = 600

/** A routine that is danced after another, one run through. */
const Next = z
  .object({
    /** Its id. */
    routine: z.string().min(1),
    /** Seconds between the two. */
    pause: z.int().min(0).max(MOST_PAUSE),
  })
  .readonly()
export type Next = z.infer<typeof Next>

/** Combinations laid on a song. What is between pieces is not covered. */
export const Routine = z
  .object({
    kind: z.literal('routine'),
    schemaVersion: z.literal(ROUTINE_VERSION),
    id: z.string().min(1),
    title: z.string().max(120),
    /** Id of the song. */
    song: z.string().min(1),
    /** How many counts the song had when it was laid; its places are among those. */
    of: z.int().min(2).optional(),
    pieces: z.array(Piece).readonly(),
    next: Next.optional(),
    /** What was found and stays as it is: its code, and the piece or the section it is of. */
    leaves: z
      .array(z.object({ code: z.string().min(1), of: z.string().min(1) }).readonly())
      .readonly(),
  })
  .refine(
    ({ pieces }) =>
      pieces.every(({ at }, i) => {
        const before = pieces[i - 1]
        return !before || before.at + before.counts <= at
      }),
    { message: 'pieces lie on each other', path: ['pieces'] },
  )
  .readonly()
export type Routine = z.infer<typeof Routine>

/** Version 1 did not note how the song was counted when it was laid: by what is there now. Before 3 nothing had a pace, or was locked; before 4 nothing was left as it is; before 5 nothing followed. */
const UPGRADES: readonly Upgrade[] = [
  { from: 1, up: (record) => record },
  { from: 2, up: (record) => record },
  { from: 3, up: (record) => ({ ...record, leaves: [] }) },
  { from: 4, up: (record) => record },
]

/**
 * Reads a stored routine.
 * @throws UserError or ZodError when it is of a newer version, or damaged.
 */
export const readRoutine = (record: Record<string, unknown>): Routine =>
  Routine.parse(upgrade(record, ROUTINE_VERSION, UPGRADES))

/** A routine of a song on which nothing is laid yet. */
export const emptyRoutine = (
  id: string,
  song: { readonly id: string; readonly title: string },
): Routine => ({
  kind: 'routine',
  schemaVersion: ROUTINE_VERSION,
  id,
  title: song.title,
  song: song.id,
  pieces: [],
  leaves: [],
})

/** How one rests, in a word. */
export const REST_WORDS: Readonly<Record<RestHow, string>> = {
  pose: 'Pose',
  free: 'Free',
  wait: 'Wait',
  walk: 'Walk',
}

/** What a rest is called: as the instructor does, or by how one rests. */
export const restWords = ({ words, how }: Rest): string => words || REST_WORDS[how]

/** The count behind a piece. */
export const endOfPiece = ({ at, counts }: Piece): number => at + counts
