/** Dates and numbers as the browser's own language writes them; the words around them are English. */
const here = (): string | undefined =>
  typeof navigator === 'undefined' ? undefined : navigator.language

const at = (day: string): Date => new Date(`${day}T12:00`)

/** A day as it is said: `Tue 3 Nov 2026`, by the browser's own order. @param day `2026-11-03` */
export const dayWords = (day: string): string =>
  new Intl.DateTimeFormat(here(), {
    weekday: 'short',
    day: 'numeric',
    month: 'short',
    year: 'numeric',
  }).format(at(day))

/** A day under a chart, as short as it goes. */
export const dayShort = (day: string): string =>
  new Intl.DateTimeFormat(here(), { day: 'numeric', month: 'numeric' }).format(at(day))

/** A number with so many digits behind the point. */
export const numberWords = (value: number, digits = 0): string =>
  new Intl.NumberFormat(here(), {
    minimumFractionDigits: digits,
    maximumFractionDigits: digits,
  }).format(value)

const plurals = new Intl.PluralRules('en')

/** `1 drill`, `3 drills`. */
export const counted = (count: number, one: string, many = `${one}s`): string =>
  `${numberWords(count)} ${plurals.select(count) === 'one' ? one : many}`

const lists = new Intl.ListFormat('en', { type: 'conjunction' })

/** `A, B and C`. */
export const listed = (words: readonly string[]): string => lists.format(words)

/** Bytes as they are said: `12.5 MB`. */
export const megabytes = (bytes: number): string => `${numberWords(bytes / 1e6, 1)} MB`
