import type { Side } from '../body/side'
import { addDays, byDate, type ClassEntry, countsOn, daysBetween, weekOf } from './diary'
import { reachedIn } from './reached'

/** Counts danced on each side in a week. */
export interface WeekCounts {
  /** Its Monday. */
  readonly week: string
  readonly counts: Readonly<Record<Side, number>>
}

/** Week by week from the first class to the last, weeks without a class as well. */
export function countsByWeek(classes: readonly ClassEntry[]): readonly WeekCounts[] {
  const sums = new Map<string, { R: number; L: number }>()
  for (const { date, danced } of classes) {
    const week = weekOf(date)
    const sum = sums.get(week) ?? { R: 0, L: 0 }
    for (const drill of danced) {
      sum.R += countsOn(drill, 'R')
      sum.L += countsOn(drill, 'L')
    }
    sums.set(week, sum)
  }
  const weeks = [...sums.keys()].sort()
  const [first] = weeks
  const last = weeks.at(-1)
  if (first === undefined || last === undefined) return []
  const all: WeekCounts[] = []
  for (let week = first; week <= last; week = addDays(week, 7))
    all.push({ week, counts: sums.get(week) ?? { R: 0, L: 0 } })
  return all
}

/** How fast a phrase was danced, class by class. */
export interface TempoLine {
  readonly combination: string
  readonly title: string
  readonly points: readonly {
    readonly day: string
    readonly tempo: number
    readonly isClean: boolean
  }[]
}

/** The fastest tempo of each phrase in each class, on the feet. */
export function tempoByPhrase(classes: readonly ClassEntry[]): readonly TempoLine[] {
  const lines = new Map<
    string,
    { combination: string; title: string; points: Map<string, { tempo: number; isClean: boolean }> }
  >()
  for (const { date, danced } of [...classes].sort(byDate))
    for (const { combination, combinationTitle, phrases, layers, tempo, verdict } of danced) {
      if (combination === undefined || !layers.includes('feet')) continue
      for (const { id, name } of phrases) {
        const key = `${combination}|${id}`
        const line = lines.get(key) ?? {
          combination,
          title: `${combinationTitle ?? ''} ${name}`.trim(),
          points: new Map(),
        }
        const before = line.points.get(date)
        if (!before || tempo > before.tempo)
          line.points.set(date, { tempo, isClean: verdict === 'clean' })
        lines.set(key, line)
      }
    }
  return [...lines.values()].map(({ combination, title, points }) => ({
    combination,
    title,
    points: [...points].map(([day, point]) => ({ day, ...point })),
  }))
}

/** The load of what was danced in a class: mean load times counts, by class. */
export const loadByClass = (
  classes: readonly ClassEntry[],
): readonly {
  readonly id: string
  readonly day: string
  readonly title: string
  readonly load: number
  readonly mean: number
}[] =>
  [...classes].sort(byDate).map(({ id, date, title, danced }) => {
    const counts = danced.reduce(
      (sum, drill) => sum + countsOn(drill, 'R') + countsOn(drill, 'L'),
      0,
    )
    const load = danced.reduce(
      (sum, drill) => sum + drill.load * (countsOn(drill, 'R') + countsOn(drill, 'L')),
      0,
    )
    return { id, day: date, title, load, mean: counts === 0 ? 0 : load / counts }
  })

/** Phrases nobody has danced for some days, the longest first. */
export const untouched = (classes: readonly ClassEntry[], today: string, days: number) =>
  reachedIn(classes)
    .map((one) => ({ ...one, days: daysBetween(one.lastDay, today) }))
    .filter((one) => one.days >= days)
    .sort((a, b) => b.days - a.days)
