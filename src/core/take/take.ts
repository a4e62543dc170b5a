import { z } from 'zod'
import { Side } from '../body/side'
import type { Moment, Performance } from '../performance/performance'
import { type Upgrade, upgrade } from '../record/upgrade'
import { TICKS_PER_COUNT } from '../time/time'
import { secondsBetween } from '../time/timeMap'

const TAKE_VERSION = 2
/** How far the pictures of a camera may be late, in milliseconds. */
const MOST_NUDGE = 1000

/** A count of a dance, and where it is in the film. */
const DancedCount = z
  .object({
    side: Side,
    /** Of that side's dance; below 0 where it was counted in. */
    tick: z.int(),
    /** Milliseconds from the film's beginning. */
    ms: z.int(),
  })
  .readonly()

/** The room, filmed while a combination, or a routine with its song, was danced. The film itself is kept apart. */
export const Take = z
  .object({
    kind: z.literal('take'),
    schemaVersion: z.literal(TAKE_VERSION),
    id: z.string().min(1),
    at: z.iso.datetime(),
    title: z.string().max(120),
    /** What was danced, by its id. */
    of: z.object({ kind: z.enum(['combination', 'routine']), id: z.string().min(1) }).readonly(),
    /** Every count of one time through, in its order. */
    danced: z.array(DancedCount).max(4000).readonly(),
    /** The pictures are that much later than they were taken to be, in milliseconds. */
    nudge: z.int().min(-MOST_NUDGE).max(MOST_NUDGE),
    /** What the camera calls itself: the next film of it is as late. */
    camera: z.string().max(200),
    seconds: z.number().min(0),
    bytes: z.int().min(0),
    /** Of the film: `video/webm`. */
    type: z.string().max(200),
  })
  .refine(({ danced }) => danced.every(({ ms }, i) => ms > (danced[i - 1]?.ms ?? -Infinity)), {
    message: 'a count is not behind the one before it',
    path: ['danced'],
  })
  .readonly()
export type Take = z.infer<typeof Take>

/** Version 1 knew no routines. */
const UPGRADES: readonly Upgrade[] = [
  {
    from: 1,
    up: ({ combination, ...take }) => ({ ...take, of: { kind: 'combination', id: combination } }),
  },
]

/**
 * Reads a stored take.
 * @throws UserError or ZodError when it is of a newer version, or damaged.
 */
export const readTake = (record: Record<string, unknown>): Take =>
  Take.parse(upgrade(record, TAKE_VERSION, UPGRADES))

/** A take that is begun: nothing is filmed yet. */
export const newTake = (
  about: Pick<Take, 'id' | 'at' | 'title' | 'of' | 'camera' | 'nudge' | 'type'>,
): Take => ({
  ...about,
  kind: 'take',
  schemaVersion: TAKE_VERSION,
  danced: [],
  seconds: 0,
  bytes: 0,
})

/** Where the counts of a performance are in a film, once through. @param begins milliseconds of the film at its start */
export function dancedIn({ segments }: Performance, begins: number): Take['danced'] {
  let from = begins
  return segments.flatMap(({ dancing, from: first, length, time }) => {
    const own = from
    from += 1000 * time.secondsAt(length)
    return Array.from({ length: Math.ceil(length / TICKS_PER_COUNT) }, (_, i) => ({
      side: dancing.side,
      tick: first + i * TICKS_PER_COUNT,
      ms: Math.round(own + 1000 * time.secondsAt(i * TICKS_PER_COUNT)),
    }))
  })
}

/** The counts of a film in which what is danced goes on otherwise from a moment of it on, in milliseconds. */
export const goneOn = (
  before: Take['danced'],
  { from, danced }: { readonly from: number; readonly danced: Take['danced'] },
): Take['danced'] => [
  ...before.filter(({ ms }) => ms <= from),
  ...danced.filter(({ ms }) => ms > from),
]

/** Where a tick of a side's dance is in the film, in seconds; undefined where that was not danced in it. */
export function secondIn(
  { danced, nudge }: Pick<Take, 'danced' | 'nudge'>,
  side: Side,
  tick: number,
): number | undefined {
  for (const [i, one] of danced.entries()) {
    if (one.side !== side || tick < one.tick || tick >= one.tick + TICKS_PER_COUNT) continue
    const [next, before] = [danced[i + 1], danced[i - 1]]
    const gap = next ? next.ms - one.ms : before ? one.ms - before.ms : 0
    return (one.ms + nudge + (gap * (tick - one.tick)) / TICKS_PER_COUNT) / 1000
  }
  return undefined
}

/** The pace of a film is told over so many ticks. */
const OVER = 6

/**
 * What of a take goes with what is danced now: a second of its film, and how fast that goes by then.
 * Undefined where that was not danced in it.
 */
export function besideDance(
  take: Pick<Take, 'danced' | 'nudge'>,
  { dancing, tick, at, segment }: Pick<Moment, 'dancing' | 'tick' | 'at' | 'segment'>,
): { readonly second: number; readonly rate: number } | undefined {
  const secondAt = (by: number) => secondIn(take, dancing.side, tick + by)
  const [before, second, after] = [secondAt(-OVER), secondAt(0), secondAt(OVER)]
  if (second === undefined) return undefined
  // At its ends it goes by as it was filmed, as far as anybody knows.
  if (before === undefined || after === undefined) return { second, rate: 1 }
  return { second, rate: (after - before) / secondsBetween(segment.time, at - OVER, at + OVER) }
}

/** A take whose pictures are some milliseconds later, or earlier. */
export const nudgedTake = (take: Take, by: number): Take => ({
  ...take,
  nudge: Math.max(-MOST_NUDGE, Math.min(MOST_NUDGE, take.nudge + by)),
})
