import { z } from 'zod'

/** A time of day: `18:30`. */
export const TimeOfDay = z.string().regex(/^([01]\d|2[0-3]):[0-5]\d$/)

/** The time of day some seconds later, to the minute; past midnight it begins again. */
export function laterBy(start: string, seconds: number): string {
  const [hours = 0, minutes = 0] = start.split(':').map(Number)
  const at = (hours * 60 + minutes + Math.floor(seconds / 60)) % (24 * 60)
  const two = (value: number) => String(value).padStart(2, '0')
  return `${two(Math.floor(at / 60))}:${two(at % 60)}`
}
