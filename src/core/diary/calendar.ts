import { createEvents, type EventAttributes } from 'ics'
import { byDate, type ClassEntry, type Group } from './diary'

/**
 * Class dates for any calendar, at the time of day of wherever it is read.
 * @throws Error where a date can't be written.
 */
export function classesIcs(classes: readonly ClassEntry[], groups: readonly Group[]): string {
  const nameOf = (id: string | undefined) => groups.find((group) => group.id === id)?.name
  const events = [...classes].sort(byDate).map((one): EventAttributes => {
    const [year = 2000, month = 1, day = 1] = one.date.split('-').map(Number)
    const [hour = 0, minute = 0] = one.start.split(':').map(Number)
    return {
      uid: `${one.id}@molten-sway`,
      productId: 'molten-sway',
      start: [year, month, day, hour, minute],
      startInputType: 'local',
      startOutputType: 'local',
      duration: { minutes: one.minutes },
      title: [one.title, nameOf(one.group)].filter(Boolean).join(' · '),
      ...(one.room && { location: one.room }),
      ...(one.next && { description: one.next }),
    }
  })
  const { error, value } = createEvents(events)
  if (error || !value) throw error ?? new Error('no calendar was written')
  return value
}
