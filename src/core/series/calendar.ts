import { createEvents, type EventAttributes } from 'ics'
import { addDays, daysBetween, type Group } from '../diary/diary'
import { classDays, minutesOf, type Series, type SeriesDay } from './series'

/** Fewer classes in the same rhythm are no rule. */
const LEAST_WEEKS = 3
const USUAL_START = '18:30'

type Moment = [number, number, number, number, number]

const momentOf = (day: string, start: string): Moment => {
  const [year = 2000, month = 1, date = 1] = day.split('-').map(Number)
  const [hour = 0, minute = 0] = start.split(':').map(Number)
  return [year, month, date, hour, minute]
}

/** The classes that follow each other by weeks, the most there are; those of another length are by themselves. */
function weekly(series: Series, days: readonly SeriesDay[]): readonly SeriesDay[] {
  const rhythms = new Map<string, SeriesDay[]>()
  const [first] = days
  for (const day of days) {
    const key = `${((daysBetween(first?.day ?? day.day, day.day) % 7) + 7) % 7} ${minutesOf(series, day)}`
    rhythms.set(key, [...(rhythms.get(key) ?? []), day])
  }
  const most = [...rhythms.values()].sort((a, b) => b.length - a.length)[0] ?? []
  return most.length >= LEAST_WEEKS ? most : []
}

/**
 * The dates of a series for any calendar: one rule for what comes each week, without the weeks that are
 * off, and an event for each class on another day.
 * @throws Error where a date can't be written.
 */
export function seriesIcs(series: Series, group: Group | undefined): string {
  const days = classDays(series)
  const start = series.start ?? USUAL_START
  const title = [series.title || 'Series', group?.name].filter(Boolean).join(' · ')
  const event = (day: SeriesDay, more: Partial<EventAttributes> = {}): EventAttributes => ({
    uid: `${series.id}-${day.id}@molten-sway`,
    productId: 'molten-sway',
    start: momentOf(day.day, start),
    startInputType: 'local',
    startOutputType: 'local',
    duration: { minutes: minutesOf(series, day) },
    title,
    ...(group?.room && { location: group.room }),
    ...more,
  })
  const inRule = weekly(series, days)
  const [first] = inRule
  const last = inRule.at(-1)
  const events = days.filter((day) => !inRule.includes(day)).map((day) => event(day))
  if (first && last) {
    const weeks = daysBetween(first.day, last.day) / 7 + 1
    const known = new Set(inRule.map(({ day }) => day))
    const without = Array.from({ length: weeks }, (_, i) => addDays(first.day, 7 * i)).filter(
      (day) => !known.has(day),
    )
    events.unshift(
      event(first, {
        recurrenceRule: `FREQ=WEEKLY;COUNT=${weeks}`,
        ...(without.length > 0 && {
          exclusionDates: without.map((day) => momentOf(day, start)),
        }),
      }),
    )
  }
  const { error, value } = createEvents(events)
  if (error || !value) throw error ?? new Error('no calendar was written')
  return value
}
