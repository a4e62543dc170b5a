import type { EventAttributes } from 'ics'
import { calendarEvent, calendarText, momentIn } from '../diary/calendar'
import { addDays, daysBetween, type Group } from '../diary/diary'
import { classDays, minutesOf, type Series, type SeriesDay } from './series'

/** Fewer classes in the same rhythm are no rule. */
const LEAST_WEEKS = 3
const USUAL_START = '18:30'

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
  const event = (day: SeriesDay): EventAttributes =>
    calendarEvent({
      id: `${series.id}-${day.id}`,
      date: day.day,
      start,
      minutes: minutesOf(series, day),
      title,
      room: group?.room,
    })
  const inRule = weekly(series, days)
  const [first] = inRule
  const last = inRule.at(-1)
  const events = days.filter((day) => !inRule.includes(day)).map(event)
  if (first && last) {
    const weeks = daysBetween(first.day, last.day) / 7 + 1
    const known = new Set(inRule.map(({ day }) => day))
    const without = Array.from({ length: weeks }, (_, i) => addDays(first.day, 7 * i)).filter(
      (day) => !known.has(day),
    )
    events.unshift({
      ...event(first),
      recurrenceRule: `FREQ=WEEKLY;COUNT=${weeks}`,
      ...(without.length > 0 && { exclusionDates: without.map((day) => momentIn(day, start)) }),
    })
  }
  return calendarText(events)
}
