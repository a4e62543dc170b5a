import { z } from 'zod'
import { Side } from '../body/side'

const RETURN_VERSION = 1
/** Most that is sent back: more is no practice, or no return. */
const MOST_ROWS = 400
export const MOST_DAYS = 60
export const MOST_NAME = 40
export const MOST_NOTE = 280

/** What was practised of one chunk on one side at one speed. */
export const PracticeRow = z
  .object({
    /** Id of its phrase. */
    chunk: z.string().min(1),
    side: Side,
    /** Of the tempo of the dance. */
    percent: z.int().min(20).max(150),
    clean: z.int().min(0).max(999),
    notYet: z.int().min(0).max(999),
  })
  .readonly()
export type PracticeRow = z.infer<typeof PracticeRow>

/** What a student sends back of a practice page. */
export const PracticeReturn = z
  .object({
    kind: z.literal('practice'),
    schemaVersion: z.literal(RETURN_VERSION),
    /** The mark of the page. */
    page: z.string().regex(/^[a-z0-9]{8}$/),
    title: z.string().max(200),
    who: z.string().max(MOST_NAME).optional(),
    days: z
      .array(z.object({ day: z.iso.date(), minutes: z.int().min(0).max(1440) }).readonly())
      .max(MOST_DAYS)
      .readonly(),
    rows: z.array(PracticeRow).max(MOST_ROWS).readonly(),
    note: z.string().max(MOST_NOTE).optional(),
  })
  .readonly()
export type PracticeReturn = z.infer<typeof PracticeReturn>

/** A return as it is sent: begun minutes are whole ones. */
export const sent = (kept: PracticeReturn): PracticeReturn => ({
  ...kept,
  days: kept.days.map(({ day, minutes }) => ({ day, minutes: Math.ceil(minutes) })),
})

/** A return that is begun. */
export const newReturn = (page: string, title: string): PracticeReturn => ({
  kind: 'practice',
  schemaVersion: RETURN_VERSION,
  page,
  title,
  days: [],
  rows: [],
})

/** What the last line of a return as text begins with. */
export const LINE = '#sway-practice'

/** A prime under 36 x 36: no one sign can be another without the sum telling it. */
const PRIME = 1259

/** Two signs that tell whether a line came whole. */
export function checkSigns(line: string): string {
  let sum = 0
  for (let i = 0; i < line.length; i++) sum = (sum + ((i % 1200) + 1) * line.charCodeAt(i)) % PRIME
  return sum.toString(36).padStart(2, '0')
}

/** What a row says in the line: `2L60:3/1`, the chunk by its number on the page. */
const rowText = ({ chunk, side, percent, clean, notYet }: PracticeRow, chunks: readonly string[]) =>
  `${chunks.indexOf(chunk) + 1}${side}${percent}:${clean}/${notYet}`

/** What somebody wrote as signs that stand in one word of a line; half a sign is left out. */
const asWord = (text: string): string =>
  encodeURIComponent(text.replace(/[\uD800-\uDFFF]/gu, ''))
    .replace(/_/g, '%5F')
    .replace(/%20/g, '_')

/**
 * A return as a message: sentences for people, and a last line for the app.
 * @param chunks ids of the chunks in the order of the page, and their names
 */
export function returnText(
  { page, title, who, days, rows, note }: PracticeReturn,
  chunks: readonly { readonly id: string; readonly name: string }[],
): string {
  const minutes = days.reduce((sum, one) => sum + one.minutes, 0)
  const said = chunks.flatMap(({ id, name }) => {
    const own = rows.filter(({ chunk }) => chunk === id)
    if (own.length === 0) return []
    const sides = (['R', 'L'] as const).flatMap((side) => {
      const there = own.filter((row) => row.side === side)
      if (there.length === 0) return []
      const clean = there.reduce((sum, row) => sum + row.clean, 0)
      const notYet = there.reduce((sum, row) => sum + row.notYet, 0)
      return [
        `${side === 'R' ? 'right' : 'left'} ${clean} clean${notYet > 0 ? `, ${notYet} not yet` : ''}`,
      ]
    })
    return [`${name}: ${sides.join('; ')}.`]
  })
  const ids = chunks.map(({ id }) => id)
  const line = [
    LINE,
    '1',
    page,
    ...(who ? [`@${asWord(who)}`] : []),
    ...days.map(({ day, minutes: some }) => `${day}=${some}`),
    ...rows.map((row) => rowText(row, ids)),
    ...(note ? [`~${asWord(note)}`] : []),
  ].join(' ')
  return [
    `${who ? `${who} practised` : 'Practised'} “${title}”: ${minutes} min on ${days.length} ${days.length === 1 ? 'day' : 'days'}.`,
    ...said,
    ...(note ? [note] : []),
    `${line} !${checkSigns(line)}`,
  ].join('\n')
}
