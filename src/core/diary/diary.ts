import {
  addDays as daysLater,
  differenceInCalendarDays,
  formatISO,
  parseISO,
  startOfISOWeek,
} from 'date-fns'
import { z } from 'zod'
import { Layer } from '../body/layers'
import type { Side } from '../body/side'
import { DancerLevel } from '../combination/combination'
import { DrillKind } from '../plan/drill'
import { InSeries } from '../plan/inSeries'
import { type Upgrade, upgrade } from '../record/upgrade'
import { FASTEST_RATE, SLOWEST_RATE } from '../song/rate'
import { Tempo } from '../time/tempo'
import { TimeOfDay } from '../time/timeOfDay'
import { TaughtAs } from './changes'

const CLASS_VERSION = 5
export const GROUP_VERSION = 1

/** A day as it is written in a calendar: `2026-11-25`. */
export const Day = z.iso.date()
/** How a drill went. */
export const Verdict = z.enum(['clean', 'not-yet'])
export type Verdict = z.infer<typeof Verdict>

/** What was danced of one phrase or more in one go, at one tempo, as the floor wrote it down. */
export const DancedDrill = z
  .object({
    id: z.string().min(1),
    kind: DrillKind,
    title: z.string(),
    combination: z.string().min(1).optional(),
    /** What it was called then, since it may be renamed or gone. */
    combinationTitle: z.string().optional(),
    /** Ids of the phrases, each once, what they were called, and how they were. */
    phrases: z
      .array(
        z.object({ id: z.string().min(1), name: z.string(), as: TaughtAs.optional() }).readonly(),
      )
      .readonly(),
    layers: z.array(Layer).readonly(),
    /** Rounds that were danced to their end, a side. */
    rounds: z.object({ R: z.int().min(0), L: z.int().min(0) }).readonly(),
    /** Counts of a round. */
    counts: z.int().min(0),
    tempo: Tempo,
    /** Mean load of a count. */
    load: z.number().min(0),
    verdict: Verdict.optional(),
    /** Danced in easier forms. */
    eased: z.literal(true).optional(),
    /** Danced with a song: what that was called, its speed, and the counts of a round from each side. */
    song: z
      .object({
        title: z.string(),
        rate: z.number().min(SLOWEST_RATE).max(FASTEST_RATE),
        counts: z.object({ R: z.int().min(0), L: z.int().min(0) }).readonly(),
      })
      .readonly()
      .optional(),
  })
  .readonly()
export type DancedDrill = z.infer<typeof DancedDrill>

/** A class that was given or is to come. */
export const ClassEntry = z
  .object({
    kind: z.literal('class'),
    schemaVersion: z.literal(CLASS_VERSION),
    id: z.string().min(1),
    date: Day,
    start: TimeOfDay,
    /** Id of its group. */
    group: z.string().min(1).optional(),
    title: z.string(),
    minutes: z.int().min(1).max(600),
    room: z.string(),
    /** Id of its plan. */
    plan: z.string().min(1).optional(),
    /** The class of a series it is. */
    series: InSeries.optional(),
    danced: z.array(DancedDrill).readonly(),
    notes: z.string(),
    /** What to do next time. */
    next: z.string(),
  })
  .readonly()
export type ClassEntry = z.infer<typeof ClassEntry>

/** What a class is begun with; its room is its group's. */
interface NewClass extends Pick<ClassEntry, 'id' | 'date' | 'start' | 'title' | 'minutes'> {
  readonly plan?: string | undefined
  readonly group?: Group | undefined
  readonly series?: InSeries | undefined
}

/** A class in which nothing was danced yet. */
export const newClass = ({ plan, group, series, ...given }: NewClass): ClassEntry => ({
  kind: 'class',
  schemaVersion: CLASS_VERSION,
  ...given,
  ...(plan !== undefined && { plan }),
  ...(group && { group: group.id }),
  ...(series && { series }),
  room: group?.room ?? '',
  danced: [],
  notes: '',
  next: '',
})

/** People who come to the same class. Which ones is nobody's business here. */
export const Group = z
  .object({
    kind: z.literal('group'),
    schemaVersion: z.literal(GROUP_VERSION),
    id: z.string().min(1),
    name: z.string().min(1),
    level: DancerLevel,
    minutes: z.int().min(10).max(180),
    room: z.string(),
  })
  .readonly()
export type Group = z.infer<typeof Group>

/** Version 2 knows more kinds of steps, 3 how a phrase was taught, 4 songs, 5 series; what was written before is as it was. */
const CLASS_UPGRADES: readonly Upgrade[] = [
  { from: 1, up: (entry) => entry },
  { from: 2, up: (entry) => entry },
  { from: 3, up: (entry) => entry },
  { from: 4, up: (entry) => entry },
]

/**
 * Reads a stored class, of this version or an older one.
 * @throws UserError or ZodError when it is of a newer version, or damaged.
 */
export const readClass = (record: Record<string, unknown>): ClassEntry =>
  ClassEntry.parse(upgrade(record, CLASS_VERSION, CLASS_UPGRADES))

/** As `readClass`, for a group. */
export const readGroup = (record: Record<string, unknown>): Group =>
  Group.parse(upgrade(record, GROUP_VERSION, []))

/** In the order they were given. */
export const byDate = (a: ClassEntry, b: ClassEntry): number =>
  a.date.localeCompare(b.date) || a.start.localeCompare(b.start) || a.id.localeCompare(b.id)

/** Counts danced on a side. */
export const countsOn = ({ rounds, counts, song }: DancedDrill, side: Side): number =>
  song ? (rounds.R + rounds.L) * song.counts[side] : rounds[side] * counts

const written = (date: ReturnType<typeof parseISO>): string =>
  formatISO(date, { representation: 'date' })

/** Whole days from one day to another. */
export const daysBetween = (from: string, to: string): number =>
  differenceInCalendarDays(parseISO(to), parseISO(from))

/** The Monday of the week of a day. */
export const weekOf = (day: string): string => written(startOfISOWeek(parseISO(day)))

export const addDays = (day: string, days: number): string =>
  written(daysLater(parseISO(day), days))
