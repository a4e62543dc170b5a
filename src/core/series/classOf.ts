import { nextClassOf } from '../diary/reached'
import { emptyPlan, type Planned, planAgain } from '../plan/edits'
import { type Known, NOTHING_KNOWN, type Plan, type PlanWishes, type Review } from '../plan/plan'
import { taughtKey } from '../plan/teaching'
import type { Practised } from '../practice/sentPage'
import { type Around, type Column, type Course, entryOf } from './course'
import { classDays, type Series } from './series'
import { layersOfUnit, type SeriesUnit, taughtOf, wishesIn } from './units'
import { classTitle } from './words'

/** What is known when a class of a series is planned. */
export interface Planning extends Around {
  /** What students sent back. */
  readonly practised: readonly Practised[]
}

/** More combinations no class is planned from. */
const MOST_COMBINATIONS = 8

/** What is known of a group on a day: by the diary, and of what is planned until then as if it was danced. */
function knownOn(series: Series, course: Course, column: Column, planning: Planning): Known {
  const own = classDays(series).flatMap((day) => entryOf(series, day, planning.classes) ?? [])
  const { level } = series.wishes
  const seen =
    nextClassOf(
      own,
      { level, minutes: column.minutes },
      planning.materials,
      column.day.day,
      planning.practised,
    )?.wishes.known ?? NOTHING_KNOWN
  const until = course.columns.filter(({ isPast, index }) => !isPast && index < column.index)
  const units = until.flatMap(({ units: some }) => some)
  const reviews = units.map((unit): Review => {
    const tempo = planning.materials.find(unit.combination)
    return {
      combination: unit.combination,
      phrases: [unit.phrase],
      layers: [...layersOfUnit(unit, planning.materials)],
      tempo: tempo ? wishesOf(series, unit, planning).tempoNow : 80,
      because: 'taught before',
    }
  })
  return {
    ...seen,
    reviews: [...seen.reviews, ...reviews],
    taught: [
      ...seen.taught,
      ...units.flatMap((unit) =>
        layersOfUnit(unit, planning.materials).map((layer) =>
          taughtKey(unit.combination, unit.phrase, layer),
        ),
      ),
    ],
  }
}

function wishesOf(series: Series, unit: SeriesUnit, { materials, routines }: Around): PlanWishes {
  const taught = taughtOf(series, materials, routines).find(
    ({ combination }) => combination.id === unit.combination,
  )
  if (!taught) throw new Error('a unit is of what is taught')
  return wishesIn(series, taught)
}

/** What a class of a series is planned from; undefined where there is nothing to dance. */
function classWishes(
  series: Series,
  course: Course,
  column: Column,
  planning: Planning,
): PlanWishes | undefined {
  const known = knownOn(series, course, column, planning)
  const until = course.columns
    .filter(({ index }) => index <= column.index)
    .flatMap(({ isPast, units, taught }) => (isPast ? taught : units))
  const combinations = [
    ...new Set([
      ...column.units.map(({ combination }) => combination),
      ...until.map(({ combination }) => combination),
    ]),
  ].slice(0, MOST_COMBINATIONS)
  const [unit] = [...column.units, ...until.toReversed()]
  if (!unit) return undefined
  return {
    ...wishesOf(series, unit, planning),
    combinations,
    minutes: column.minutes,
    known: {
      ...known,
      reviews: known.reviews.filter(({ combination }) => combinations.includes(combination)),
    },
    seen: 'none',
    ...(series.start !== undefined && { startsAt: series.start }),
    only: column.units.map(({ combination, phrase, half }) => ({
      combination,
      phrase,
      ...(half === 'feet' && { feet: true as const }),
    })),
  }
}

/**
 * Plans a class of a series: the planner with what is new in it, and as much of what is due as leaves
 * room for that.
 * @param plan the one it has already: what was fixed in it by hand stays
 * @returns undefined where there is nothing to dance in it
 */
export function planOfClass(
  series: Series,
  course: Course,
  column: Column,
  planning: Planning & { readonly newId: () => string; readonly plan?: Plan | undefined },
): Planned | undefined {
  const wishes = classWishes(series, course, column, planning)
  if (!wishes) return undefined
  const title = classTitle(series, course, column.index)
  const { plan: known } = planning
  const base: Plan = {
    ...(known ?? emptyPlan(planning.newId(), title, wishes)),
    title: known?.title ?? title,
    ...(series.group !== undefined && { group: series.group }),
    series: { id: series.id, day: column.day.id },
  }
  for (let many = wishes.known.reviews.length; ; many--) {
    const reviews = wishes.known.reviews.slice(0, many)
    const planned = planAgain(
      { ...base, wishes: { ...wishes, known: { ...wishes.known, reviews } } },
      planning.materials,
    )
    // What is new goes first: it was given its minutes.
    if (many === 0 || planned.proposal.left.length === 0) return planned
  }
}
