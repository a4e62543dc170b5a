import { z } from 'zod'
import { SIDES, type Side, sideWord } from '../body/side'
import { UserError } from '../errors'
import { type Upgrade, upgrade } from '../record/upgrade'
import type { PageData } from './pageData'
import { checkSigns, LINE, PracticeReturn, type PracticeRow } from './returned'

const SENT_VERSION = 1
const SENT_UPGRADES: readonly Upgrade[] = []
/** A return is no larger, in signs. */
const MOST_SIGNS = 64_000

/** One return, as it came in. */
const Came = PracticeReturn.unwrap()
  .pick({ who: true, days: true, rows: true, note: true })
  .extend({
    id: z.string().min(1),
    /** The day it was opened here. */
    day: z.iso.date(),
  })
  .readonly()
export type Came = z.infer<typeof Came>

/** A practice page that was sent out, and what came back of it. Told is not seen: it is kept apart from the diary. */
export const SentPage = z
  .object({
    kind: z.literal('sent-page'),
    schemaVersion: z.literal(SENT_VERSION),
    /** The mark of the page. */
    id: z.string().regex(/^[a-z0-9]{8}$/),
    combination: z.string().min(1),
    title: z.string(),
    whose: z.string().optional(),
    made: z.iso.date(),
    /** Id of the group it was sent to. */
    group: z.string().min(1).optional(),
    chunks: z.array(z.object({ id: z.string().min(1), name: z.string() }).readonly()).readonly(),
    returns: z.array(Came).readonly(),
  })
  .readonly()
export type SentPage = z.infer<typeof SentPage>

/** @throws UserError or ZodError when it is of a newer version, or damaged. */
export const readSentPage = (record: Record<string, unknown>): SentPage =>
  SentPage.parse(upgrade(record, SENT_VERSION, SENT_UPGRADES))

/** What is kept of a page that is sent. */
export const sentPageOf = (data: PageData, group: string | undefined): SentPage => ({
  kind: 'sent-page',
  schemaVersion: SENT_VERSION,
  id: data.id,
  combination: data.combination.id,
  title: data.title,
  ...(data.whose && { whose: data.whose }),
  made: data.made,
  ...(group && { group }),
  chunks: data.chunks.map(({ id, name }) => ({ id, name })),
  returns: [],
})

/** A return that was read, and the page it belongs to. */
interface ReturnRead extends Omit<Came, 'id' | 'day'> {
  readonly page: string
}

const CUT_OFF = new UserError(
  'Cut off: the last line is missing or was changed.',
  'Ask for it again, whole, or as a file.',
)
const NO_RETURN = new UserError(
  'This is not a practice return.',
  'Open the file a practice page saved, or paste the text it copied, with its last line.',
)

/**
 * Reads what students sent back: one file, or a text with one or many in it.
 * @throws UserError where it is none, cut off, of a newer version, or of a page that is not here
 */
export function readReturns(text: string, pages: readonly SentPage[]): readonly ReturnRead[] {
  if (text.length > MOST_SIGNS) throw NO_RETURN
  const trimmed = text.trim()
  const lines = trimmed.split(/\r?\n/).map((line) => line.trim())
  const found = lines.flatMap((line) => (line.startsWith(LINE) ? [readLine(line, pages)] : []))
  if (found.length > 0) return found
  if (trimmed.startsWith('{')) return [readFile(trimmed, pages)]
  throw /^(.+ practised|Practised) “/.test(trimmed) ? CUT_OFF : NO_RETURN
}

function readFile(text: string, pages: readonly SentPage[]): ReturnRead {
  let raw: unknown
  try {
    raw = JSON.parse(text)
  } catch {
    throw CUT_OFF
  }
  const { kind, schemaVersion } = (raw ?? {}) as Record<string, unknown>
  if (kind !== 'practice') throw NO_RETURN
  refuseNewer(schemaVersion)
  const read = PracticeReturn.safeParse(raw)
  if (!read.success) throw NO_RETURN
  const { page, who, days, rows, note } = read.data
  const of = pageOf(page, pages)
  const known = rows.filter(({ chunk }) => of.chunks.some(({ id }) => id === chunk))
  return { page, ...(who && { who }), days, rows: known, ...(note && { note }) }
}

function refuseNewer(version: unknown): void {
  if (typeof version === 'number' && version > 1)
    throw new UserError(
      'It was made by a newer version.',
      'Update Molten Sway, or ask for it as it was before.',
    )
}

function pageOf(id: string, pages: readonly SentPage[]): SentPage {
  const page = pages.find((one) => one.id === id)
  if (page) return page
  throw new UserError(
    'The page it belongs to is not here.',
    'Open it in the browser the page was saved from.',
  )
}

/** A word of a line as it was written. @throws UserError where it was changed */
function written(word: string): string {
  try {
    return decodeURIComponent(word.slice(1).replaceAll('_', '%20'))
  } catch {
    throw CUT_OFF
  }
}

const ROW = /^(\d+)([RL])(\d+):(\d+)\/(\d+)$/
const DAY = /^(\d{4}-\d\d-\d\d)=(\d+)$/

function readLine(line: string, pages: readonly SentPage[]): ReturnRead {
  const [, body, check] = /^(.*) !([a-z0-9]{2})$/.exec(line) ?? []
  if (body === undefined || checkSigns(body) !== check) throw CUT_OFF
  const [, version, page = '', ...words] = body.split(' ')
  refuseNewer(Number(version))
  const of = pageOf(page, pages)
  const days: { day: string; minutes: number }[] = []
  const rows: PracticeRow[] = []
  let who: string | undefined
  let note: string | undefined
  for (const word of words) {
    const row = ROW.exec(word)
    const day = DAY.exec(word)
    const chunk = row && of.chunks[Number(row[1]) - 1]
    if (word.startsWith('@')) who = written(word)
    else if (word.startsWith('~')) note = written(word)
    else if (day) days.push({ day: day[1] ?? '', minutes: Number(day[2]) })
    else if (row && chunk)
      rows.push({
        chunk: chunk.id,
        side: row[2] === 'L' ? 'L' : 'R',
        percent: Number(row[3]),
        clean: Number(row[4]),
        notYet: Number(row[5]),
      })
  }
  const read = Came.unwrap()
    .omit({ id: true, day: true })
    .safeParse({ ...(who && { who }), days, rows, ...(note && { note }) })
  if (!read.success) throw CUT_OFF
  return { page, ...read.data }
}

/** @throws UserError where the very same is there already. */
export function withReturn(
  page: SentPage,
  { page: _, ...read }: ReturnRead,
  id: string,
  day: string,
): SentPage {
  const plain = ({ who, days, rows, note }: Omit<Came, 'id' | 'day'>) =>
    JSON.stringify([who, days, rows, note])
  if (page.returns.some((one) => plain(one) === plain(read)))
    throw new UserError('The same return is here already.', 'Nothing was added.')
  return { ...page, returns: [...page.returns, { id, day, ...read }] }
}

/** What is told of one phrase by those who sent something back. */
export interface Practised {
  readonly combination: string
  readonly phrase: string
  readonly name: string
  /** How many sent something of it back, and how many of them more often not yet than clean, on their weaker side. */
  readonly of: number
  readonly notYet: number
  readonly side: Side
  /** Rounds on each side as they weigh beside rounds that were seen, in the mean. */
  readonly rounds: Readonly<Record<Side, number>>
}

/** What is told weighs half of what is seen, and no more than two rounds of a chunk, a side and a day (h). */
const TOLD_SHARE = 0.5
const MOST_A_DAY = 2

/** What pages that were sent out brought back, phrase by phrase. */
export const practisedIn = (pages: readonly SentPage[]): readonly Practised[] =>
  pages.flatMap(({ combination, chunks, returns }) =>
    chunks.flatMap(({ id, name }): readonly Practised[] => {
      const each = returns.flatMap(({ rows, days }) => {
        const own = rows.filter(({ chunk }) => chunk === id)
        return own.length > 0 ? [{ own, days: Math.max(1, days.length) }] : []
      })
      if (each.length === 0) return []
      const missedOn = (side: Side) =>
        each.filter(({ own }) => {
          const there = own.filter((row) => row.side === side)
          const sum = (key: 'clean' | 'notYet') => there.reduce((all, row) => all + row[key], 0)
          return sum('notYet') > sum('clean')
        }).length
      const roundsOn = (side: Side) =>
        each.reduce((all, { own, days }) => {
          const there = own.filter((row) => row.side === side)
          const rounds = there.reduce((some, { clean, notYet }) => some + clean + notYet, 0)
          return all + TOLD_SHARE * Math.min(rounds, MOST_A_DAY * days)
        }, 0) / each.length
      const [right, left] = [missedOn('R'), missedOn('L')]
      return [
        {
          combination,
          phrase: id,
          name,
          of: each.length,
          notYet: Math.max(right, left),
          side: left > right ? 'L' : 'R',
          rounds: { R: roundsOn('R'), L: roundsOn('L') },
        },
      ]
    }),
  )

/** A page in one line: `12 sent back: C left 7 of 12 not yet`. */
export function pageWords(page: SentPage): string {
  const { returns } = page
  if (returns.length === 0) return 'nothing sent back yet'
  const missed = practisedIn([page])
    .filter(({ notYet }) => notYet > 0)
    .map(({ name, side, notYet, of }) => `${name} ${sideWord[side]} ${notYet} of ${of} not yet`)
  return `${returns.length} sent back${missed.length > 0 ? `: ${missed.join('; ')}` : ', mostly clean'}`
}

/** One return in one line: `Mia: 24 min, R 6 and L 4 rounds`. */
export function cameWords({ who, days, rows, note }: Came): string {
  const minutes = days.reduce((all, one) => all + one.minutes, 0)
  const sides = SIDES.map((side) => {
    const own = rows.filter((row) => row.side === side)
    return `${side} ${own.reduce((all, { clean, notYet }) => all + clean + notYet, 0)}`
  })
  return `${who || 'Somebody'}: ${minutes} min, ${sides.join(' and ')} rounds${note ? `. “${note}”` : ''}`
}
