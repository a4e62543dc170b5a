import { createEvents, type EventAttributes } from 'ics'
import { byDate, type ClassEntry, type Group } from './diary'

/** A class as a calendar has it. */
interface Dated {
  readonly id: string
  /** `2026-11-25` and `18:30`. */
  readonly date: string
  readonly start: string
  readonly minutes: number
  readonly title: string
  readonly room?: string | undefined
  readonly next?: string | undefined
}

/** A day and a time of day as a calendar takes them. */
export function momentIn(date: string, start: string): [number, number, number, number, number] {
  const [year = 2000, month = 1, day = 1] = date.split('-').map(Number)
  const [hour = 0, minute = 0] = start.split(':').map(Number)
  return [year, month, day, hour, minute]
}

/** An event at the time of day of wherever it is read. */
export const calendarEvent = ({
  id,
  date,
  start,
  minutes,
  title,
  room,
  next,
}: Dated): EventAttributes => ({
  uid: `${id}@molten-sway`,
  productId: 'molten-sway',
  start: momentIn(date, start),
  startInputType: 'local',
  startOutputType: 'local',
  duration: { minutes },
  title,
  ...(room && { location: room }),
  ...(next && { description: next }),
})

/** @throws Error where a date can't be written. */
export function calendarText(events: EventAttributes[]): string {
  const { error, value } = createEvents(events)
  if (error || !value) throw error ?? new Error('no calendar was written')
  return value
}

/**
 * Class dates for any calendar, at the time of day of wherever it is read.
 * @throws Error where a date can't be written.
 */
export function classesIcs(classes: readonly ClassEntry[], groups: readonly Group[]): string {
  const nameOf = (id: string | undefined) => groups.find((group) => group.id === id)?.name
  return calendarText(
    [...classes].sort(byDate).map((one) =>
      calendarEvent({
        ...one,
        title: [one.title, nameOf(one.group)].filter(Boolean).join(' · '),
      }),
    ),
  )
}
