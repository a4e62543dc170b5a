import { z } from 'zod'
import { Layer } from '../body/layers'
import { Side } from '../body/side'
import { type Combination, DancerLevel, teachTempoOf } from '../combination/combination'
import { type Upgrade, upgrade } from '../record/upgrade'
import { Tempo } from '../time/tempo'
import { TimeOfDay } from '../time/timeOfDay'
import { Drill } from './drill'
import { InSeries } from './inSeries'

export const PLAN_VERSION = 5

/** Minutes of a class of which nothing else is said. */
const USUAL_MINUTES = 60

/** A class of no more minutes is a slot. */
export const SLOT_MINUTES = 20

/** Minutes a class may last. */
export const LEAST_MINUTES = 10
export const MOST_MINUTES = 180

/** The ways of teaching (domain), or whichever suits the combination: a phrase, a layer, or a count at a time. */
export const TeachingWay = z.enum(['phrases', 'layers', 'counts', 'propose'])
export type TeachingWay = z.infer<typeof TeachingWay>

/** What kind of class it is. */
export const ClassType = z.enum(['drop-in', 'technique', 'choreography', 'slot'])
export type ClassType = z.infer<typeof ClassType>

/** Which sides are danced: both, the lead side alone, the other one once all is known, or whichever suits. */
export const SidesWish = z.enum(['both', 'lead', 'last', 'propose'])
export type SidesWish = z.infer<typeof SidesWish>

/** How many of the class have danced it before. */
export const Seen = z.enum(['none', 'some', 'all'])
export type Seen = z.infer<typeof Seen>

/** Something that was taught before and is danced again first. */
export const Review = z
  .object({
    combination: z.string().min(1),
    phrases: z.array(z.string().min(1)).readonly(),
    layers: z.array(Layer).min(1).readonly(),
    tempo: Tempo,
    /** Why it is due, in words. */
    because: z.string(),
    /** What of it was changed since it was taught, a line each. */
    changed: z.array(z.string().min(1)).readonly().optional(),
  })
  .readonly()
export type Review = z.infer<typeof Review>

/** What the diary knows of a group, for planning. */
export const Known = z
  .object({
    reviews: z.array(Review).readonly(),
    /** What needs no teaching any more: `combination|phrase|layer`. */
    taught: z.array(z.string()).readonly(),
    /** The side that had fewer counts, and how many fewer, by combination. */
    weaker: z
      .record(z.string(), z.object({ side: Side, behind: z.int().min(0) }).readonly())
      .readonly(),
  })
  .readonly()
export type Known = z.infer<typeof Known>

export const NOTHING_KNOWN: Known = { reviews: [], taught: [], weaker: {} }

/** What a class is planned from. */
export const PlanWishes = z
  .object({
    combinations: z.array(z.string().min(1)).min(1).max(8).readonly(),
    minutes: z.int().min(LEAST_MINUTES).max(MOST_MINUTES),
    level: DancerLevel,
    /** What the class can dance today, and what it is meant to reach. */
    tempoNow: Tempo,
    tempoTarget: Tempo,
    way: TeachingWay,
    seen: Seen,
    known: Known,
    type: ClassType,
    sides: SidesWish,
    /** The highest level in the room, where they are mixed; the class is planned by `level`. */
    levelTo: DancerLevel.optional(),
    /** Time of day it begins: `18:30`. */
    startsAt: TimeOfDay.optional(),
    /** Of what is new only this is taught, as a series has shared it out: of a phrase all, or only its feet. */
    only: z
      .array(
        z
          .object({
            combination: z.string().min(1),
            phrase: z.string().min(1),
            feet: z.literal(true).optional(),
          })
          .readonly(),
      )
      .readonly()
      .optional(),
  })
  .readonly()
export type PlanWishes = z.infer<typeof PlanWishes>

/** A class, drill by drill. */
export const Plan = z
  .object({
    kind: z.literal('plan'),
    schemaVersion: z.literal(PLAN_VERSION),
    id: z.string().min(1),
    title: z.string(),
    /** Id of the group it was planned for. */
    group: z.string().min(1).optional(),
    /** The class of a series it was planned for. */
    series: InSeries.optional(),
    wishes: PlanWishes,
    drills: z.array(Drill).readonly(),
    /** What was taken out by hand and is not proposed again: keys of drills. */
    without: z.array(z.string()).readonly(),
  })
  .refine(({ drills }) => new Set(drills.map(({ id }) => id)).size === drills.length, {
    message: 'two drills have the same id',
    path: ['drills'],
  })
  .readonly()
export type Plan = z.infer<typeof Plan>

/** Before version 2 every class was of one kind, and danced on both sides; before 3 nobody knew what was changed, before 4 no song, before 5 no series. */
const UPGRADES: readonly Upgrade[] = [
  {
    from: 1,
    up: (plan) => ({
      ...plan,
      wishes: { type: 'drop-in', sides: 'both', ...(plan.wishes as object) },
    }),
  },
  { from: 2, up: (plan) => plan },
  { from: 3, up: (plan) => plan },
  { from: 4, up: (plan) => plan },
]

/**
 * Reads a stored plan, of this version or an older one.
 * @throws UserError or ZodError when it is of a newer version, or damaged.
 */
export const readPlan = (record: Record<string, unknown>): Plan =>
  Plan.parse(upgrade(record, PLAN_VERSION, UPGRADES))

/** Whole seconds of the class. */
export const classSeconds = ({ minutes }: Pick<PlanWishes, 'minutes'>): number => minutes * 60

/** What a combination is planned by before anything else is said. @param level of the house, for those that name none */
export const wishesFor = (combination: Combination, level: DancerLevel): PlanWishes => ({
  combinations: [combination.id],
  minutes: USUAL_MINUTES,
  level: combination.level ?? level,
  tempoNow: Math.min(teachTempoOf(combination), combination.tempo),
  tempoTarget: combination.tempo,
  way: 'propose',
  seen: 'none',
  known: NOTHING_KNOWN,
  type: 'drop-in',
  sides: 'propose',
})
