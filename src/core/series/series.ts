import { z } from 'zod'
import { DancerLevel } from '../combination/combination'
import { addDays, Day, daysBetween } from '../diary/diary'
import { ClassType, LEAST_MINUTES, MOST_MINUTES, TeachingWay } from '../plan/plan'
import { upgrade } from '../record/upgrade'
import { TimeOfDay } from '../time/timeOfDay'

const SERIES_VERSION = 1

/** Classes a series may have, and things it may teach. */
export const MOST_DAYS = 60
const MOST_TAUGHT = 12
/** Minutes under which a class is no class of a series. */
const LEAST_SERIES_MINUTES = 20

/** A phrase, or half of one: `combination|phrase`, with `|feet` or `|on` behind it. */
const UnitId = z.string().min(1)

/** What is taught: a combination on both sides or its lead side alone, or all that is laid on a song. */
const Teaches = z.union([
  z
    .object({ combination: z.string().min(1), sides: z.enum(['both', 'lead']).optional() })
    .readonly(),
  z.object({ routine: z.string().min(1) }).readonly(),
])
export type Teaches = z.infer<typeof Teaches>

const SeriesDay = z
  .object({
    id: z.string().min(1),
    day: Day,
    /** Where this class is shorter or longer than the others. */
    minutes: z.int().min(LEAST_MINUTES).max(MOST_MINUTES).optional(),
    /** There is no class on this day, and why. */
    off: z.string().optional(),
  })
  .readonly()
export type SeriesDay = z.infer<typeof SeriesDay>

/**
 * Something taught over several dated classes. Only what somebody decided is kept: what each class
 * teaches is worked out of it, and of what was danced.
 */
export const Series = z
  .object({
    kind: z.literal('series'),
    schemaVersion: z.literal(SERIES_VERSION),
    id: z.string().min(1),
    title: z.string(),
    /** Id of the group it is for. */
    group: z.string().min(1).optional(),
    teaches: z.array(Teaches).max(MOST_TAUGHT).readonly(),
    minutes: z.int().min(LEAST_MINUTES).max(MOST_MINUTES),
    start: TimeOfDay.optional(),
    days: z.array(SeriesDay).max(MOST_DAYS).readonly(),
    wishes: z.object({ level: DancerLevel, type: ClassType, way: TeachingWay }).readonly(),
    /** Units that stay in their class. */
    locks: z.array(z.object({ unit: UnitId, day: z.string().min(1) }).readonly()).readonly(),
    /** Units that are left out. */
    dropped: z.array(UnitId).readonly(),
    /** Phrases whose feet may come a class before the rest. */
    splits: z.array(UnitId).readonly(),
  })
  .refine(({ days }) => new Set(days.map(({ id }) => id)).size === days.length, {
    message: 'two classes have the same id',
    path: ['days'],
  })
  .readonly()
export type Series = z.infer<typeof Series>

/**
 * Reads a stored series.
 * @throws UserError or ZodError when it is of a newer version, or damaged.
 */
export const readSeries = (record: Record<string, unknown>): Series =>
  Series.parse(upgrade(record, SERIES_VERSION, []))

export const newSeries = (
  id: string,
  { title, level, minutes }: { title: string; level: Series['wishes']['level']; minutes: number },
): Series => ({
  kind: 'series',
  schemaVersion: SERIES_VERSION,
  id,
  title,
  teaches: [],
  minutes: Math.max(LEAST_SERIES_MINUTES, minutes),
  days: [],
  wishes: { level, type: 'choreography', way: 'propose' },
  locks: [],
  dropped: [],
  splits: [],
})

/** The classes in the order of their days; those that are off are not among them. */
export const classDays = ({ days }: Pick<Series, 'days'>): readonly SeriesDay[] =>
  days
    .filter(({ off }) => off === undefined)
    .sort((a, b) => a.day.localeCompare(b.day) || a.id.localeCompare(b.id))

export const minutesOf = ({ minutes }: Series, day: SeriesDay): number => day.minutes ?? minutes

/** What it is taught from, without what hangs on what is gone. */
const kept = (series: Series): Series => {
  const ids = new Set(series.days.map(({ id }) => id))
  return { ...series, locks: series.locks.filter(({ day }) => ids.has(day)) }
}

/**
 * Adds a class a week, as many as are wanted, from a day on; days it has already stay as they are.
 * @param newId ids for the new ones
 */
export function withWeeks(
  series: Series,
  { from, weeks, newId }: { from: string; weeks: number; newId: () => string },
): Series {
  const known = new Set(series.days.map(({ day }) => day))
  const added = Array.from({ length: weeks }, (_, i) => addDays(from, 7 * i))
    .filter((day) => !known.has(day))
    .map((day) => ({ id: newId(), day }))
  return { ...series, days: [...series.days, ...added].slice(0, MOST_DAYS) }
}

const dayChanged = (series: Series, id: string, change: (day: SeriesDay) => SeriesDay): Series => ({
  ...series,
  days: series.days.map((one) => (one.id === id ? change(one) : one)),
})

export const movedDay = (series: Series, id: string, day: string): Series =>
  dayChanged(series, id, (one) => ({ ...one, day }))

export const timedDay = (series: Series, id: string, minutes: number | undefined): Series =>
  dayChanged(series, id, ({ minutes: _, ...one }) => ({
    ...one,
    ...(minutes !== undefined && { minutes }),
  }))

/** No class on a day, or one again. */
export const offDay = (series: Series, id: string, off: string | undefined): Series =>
  dayChanged(series, id, ({ off: _, ...one }) => ({ ...one, ...(off !== undefined && { off }) }))

export const withoutDay = (series: Series, id: string): Series =>
  kept({ ...series, days: series.days.filter((one) => one.id !== id) })

/** A unit in a class it stays in; anywhere again without one. */
export const lockedIn = (series: Series, unit: string, day: string | undefined): Series => ({
  ...series,
  locks: [
    ...series.locks.filter((one) => one.unit !== unit),
    ...(day === undefined ? [] : [{ unit, day }]),
  ],
})

const toggled = (list: readonly string[], one: string, isIn: boolean): readonly string[] => [
  ...list.filter((other) => other !== one),
  ...(isIn ? [one] : []),
]

/** Leaves a unit out, or takes it back. */
export const dropped = (series: Series, unit: string, isOut: boolean): Series => ({
  ...lockedIn(series, unit, undefined),
  dropped: toggled(series.dropped, unit, isOut),
})

/** A phrase whose feet may come a class before the rest, or all at once again. */
export const splitUnit = (series: Series, unit: string, isSplit: boolean): Series => ({
  ...series,
  locks: series.locks.filter((one) => !one.unit.startsWith(`${unit}|`) && one.unit !== unit),
  splits: toggled(series.splits, unit, isSplit),
})

/** Adds what is taught, or takes it out. */
export const taughtIn = (series: Series, what: Teaches, isIn: boolean): Series => {
  const key = JSON.stringify('routine' in what ? { routine: what.routine } : what.combination)
  const others = series.teaches.filter(
    (one) => JSON.stringify('routine' in one ? { routine: one.routine } : one.combination) !== key,
  )
  return {
    ...series,
    teaches: isIn ? [...others, what].slice(0, MOST_TAUGHT) : others,
    ...(!isIn &&
      'combination' in what && {
        locks: series.locks.filter(({ unit }) => !unit.startsWith(`${what.combination}|`)),
      }),
  }
}

/** Earlier or later among what is taught. */
export function taughtMoved(series: Series, index: number, by: -1 | 1): Series {
  const to = index + by
  const one = series.teaches[index]
  if (!one || to < 0 || to >= series.teaches.length) return series
  const others = series.teaches.filter((_, i) => i !== index)
  return { ...series, teaches: [...others.slice(0, to), one, ...others.slice(to)] }
}

/** What has to be put right before anything can be worked out, and how. */
export function wrongWith(
  series: Series,
  today: string,
): { readonly what: string; readonly toDo: string } | undefined {
  const days = classDays(series)
  if (series.teaches.length === 0)
    return {
      what: 'Nothing is taught yet.',
      toDo: 'Choose what to teach and the dates; the rest is worked out.',
    }
  if (days.length === 0) return { what: 'No dates yet.', toDo: 'Add at least one date.' }
  const short = days.find((day) => minutesOf(series, day) < LEAST_SERIES_MINUTES)
  if (short)
    return {
      what: `Too short for a series: ${LEAST_SERIES_MINUTES} minutes at least.`,
      toDo: `Give the class of ${short.day} more time, or take it out.`,
    }
  if (days.every(({ day }) => daysBetween(day, today) > 0))
    return { what: 'All dates are over.', toDo: 'Add dates to go on, or look at what was danced.' }
  return undefined
}
