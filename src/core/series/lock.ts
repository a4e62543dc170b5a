import { listed } from '../plan/drill'
import { type Around, type Course, columnOf, courseOf } from './course'
import { lockedIn, type Series } from './series'
import { unitName } from './words'

/** What comes of a wish to have a unit in a class. */
export type Lock =
  | { readonly series: Series; readonly why?: undefined }
  /** Why it can't be, and what could be done. */
  | { readonly why: string; readonly series?: undefined }

/** A unit in a class it is to stay in, where that class has room for it and what comes before it. */
export function lockOf(
  series: Series,
  course: Course,
  around: Around,
  [unit, day]: readonly [string, string],
): Lock {
  const column = course.columns.find((one) => one.day.id === day)
  const own = course.units.find(({ id }) => id === unit)
  if (!column || !own) return { why: 'That class is not here any more.' }
  if (column.isPast) return { why: 'That class is over: what it taught stays as it was.' }
  const locked = lockedIn(series, unit, day)
  const after = courseOf(locked, around)
  if (columnOf(after, unit)?.day.id === day && after.left.length <= course.left.length)
    return { series: locked }
  const seconds = [...column.units.filter(({ id }) => id !== unit), own].reduce(
    (sum, one) => sum + one.seconds,
    0,
  )
  const over = Math.ceil((seconds - column.room) / 60)
  if (over > 0) {
    const others = column.units.filter(({ id }) => id !== unit)
    return {
      why: `Full: ${over} ${over === 1 ? 'minute' : 'minutes'} over. Lengthen it${others.length > 0 ? `, or move ${listed(others.map(unitName))}` : ''}.`,
    }
  }
  const before = course.units.slice(0, course.units.indexOf(own)).filter(({ id }) => {
    const at = columnOf(course, id)
    return !at || at.index > column.index
  })
  return {
    why:
      before.length > 0
        ? `${listed(before.map(unitName))} ${before.length === 1 ? 'comes' : 'come'} before ${unitName(own)}, and there is no room for all of it by then.`
        : `What comes after ${unitName(own)} would have no room.`,
  }
}
