import { format } from 'date-fns'

/** The day it is, where the instructor is. */
export const today = (): string => format(new Date(), 'yyyy-MM-dd')

/** The time of day, where the instructor is. */
export const timeNow = (): string => format(new Date(), 'HH:mm')
