import Papa from 'papaparse'
import { LAYERS } from '../body/layers'
import { type Combination, type Phrase, usesLayer } from '../combination/combination'
import { partIds, partOf } from '../combination/partOf'
import { passesOf } from '../combination/passes'
import type { Who } from '../combination/whose'
import { quoted } from '../entry/tokens'
import { UserError } from '../errors'
import { type Vocabulary, vocabularyFor } from '../moves/vocabulary'
import { simulate, stateAt } from '../simulate/simulate'
import { labelIn, slotAt, type Tick } from '../time/time'
import { canonical } from './canonical'
import { dancedText, entryText } from './entryText'
import { entriesIn, type SheetMessage } from './lines'
import { readSheet } from './readSheet'
import { whoText } from './whose'
import { writeSheet } from './writeSheet'

const COLUMNS = ['phrase', 'count', 'part', ...LAYERS, 'facing', 'weight', 'cue'] as const
type Column = (typeof COLUMNS)[number]

/** The columns of a table: legs have theirs only where they do something, parts where there are some. */
const columnsOf = (combination: Combination): readonly Column[] =>
  COLUMNS.filter((column) =>
    column === 'legs'
      ? usesLayer(combination, column)
      : column !== 'part' || combination.parts !== undefined,
  )
type Row = Partial<Record<Column, string>>

/** In the phrase column: the row holds a line of the sheet that is no landing (title, order, notes). */
const LINE_MARK = '@'

/**
 * One row for each place where something lands or begins, and for each part that has something of
 * her own there: phrase, count, part, the layers, and the facing and weight it leads to. Rows marked `@` carry the rest of the sheet, so that
 * reading it gives the same combination again; facing and weight are only for people.
 */
export function writeCsv(combination: Combination, base: Vocabulary): string {
  const vocabulary = vocabularyFor(combination, base)
  const plain = canonical(combination)
  const dancedBy = new Map(
    partIds(plain).map((part) => [part, simulate(partOf(plain, part), vocabulary)]),
  )
  const starts = new Map(
    passesOf(plain, vocabulary)
      .toReversed()
      .map(({ phrase, at }) => [phrase.id, at]),
  )
  const rows: Row[] = lineRows(plain, base)
  for (const phrase of plain.phrases) {
    const label = labelIn(phrase)
    for (const { at, who } of landingsOf(phrase)) {
      const first = who?.find((id) => dancedBy.has(id)) ?? partIds(plain)[0] ?? ''
      const simulation = dancedBy.get(first)
      const state = simulation && stateAt(simulation, (starts.get(phrase.id) ?? 0) + at)
      const cell = (layer: (typeof LAYERS)[number]) =>
        phrase.events
          .filter((event) => event.layer === layer && event.at === at && isFor(event, who))
          .map((event) => {
            const entry = entryText(event, phrase, vocabulary)
            // Where the count column says it all, it is not said again.
            const own = `${event.optional ? '~' : ''}${label(at)} `
            return entry.startsWith(own) && !event.optional
              ? dancedText(event, vocabulary, phrase)
              : entry
          })
          .join('; ')
      rows.push({
        phrase: phrase.name,
        count: label(at),
        part: who ? whoText(who) : '',
        ...Object.fromEntries(LAYERS.map((layer) => [layer, cell(layer)])),
        facing: String(state?.facing ?? 0),
        weight: state?.weight ?? '',
        cue: plainCue(phrase, at, who) ?? '',
      })
    }
  }
  const columns = columnsOf(plain)
  const data = rows.map((row) => columns.map((column) => asCell(column, row[column] ?? '')))
  return `${Papa.unparse({ fields: [...columns], data }, { newline: '\n' })}\n`
}

/** What a spreadsheet would take for a formula; and what was kept from that before. */
const FORMULA = /^'*[=+\-@\t\r]/

/** A cell no spreadsheet runs: with an apostrophe before it, as they write text themselves. */
const asCell = (column: Column, text: string): string =>
  FORMULA.test(text) && !(column === 'phrase' && text === LINE_MARK) ? `'${text}` : text

const fromCell = (text: string): string =>
  text.startsWith("'") && FORMULA.test(text) ? text.slice(1) : text

interface Landed {
  readonly at: Tick
  readonly who?: Who | undefined
}

/** Whether it is for just these, all of them where none are named. */
const isFor = (one: { readonly who?: Who | undefined }, who: Who | undefined): boolean =>
  one.who?.join() === who?.join()

/** Where something of the same dancers begins, what all dance first. */
function landingsOf({ events, remarks = [] }: Phrase): readonly Landed[] {
  const landed: Landed[] = []
  for (const { at, who } of [...events, ...remarks.filter(isPlainCue)])
    if (!landed.some((one) => one.at === at && isFor(one, who))) landed.push({ at, who })
  const mark = ({ who }: Landed) => who?.join() ?? ''
  return landed.sort((a, b) => a.at - b.at || (mark(a) < mark(b) ? -1 : 1))
}

/** A cue that fits into its own column: one, on a place of its own length. */
const isPlainCue = (
  { kind, at, length, only, who }: NonNullable<Phrase['remarks']>[number],
  _: number,
  all: NonNullable<Phrase['remarks']>,
): boolean =>
  kind === 'say' &&
  length === slotAt(at) &&
  !only &&
  all.filter((other) => other.kind === 'say' && other.at === at && isFor(other, who)).length === 1

const plainCue = ({ remarks = [] }: Phrase, at: Tick, who: Who | undefined): string | undefined =>
  remarks.filter(isPlainCue).find((remark) => remark.at === at && isFor(remark, who))?.text

/** All of the sheet that is no landing, a line a row. */
function lineRows(combination: Combination, base: Vocabulary): Row[] {
  const bare = {
    ...combination,
    phrases: combination.phrases.map((phrase): Phrase => {
      const { remarks, ...rest } = phrase
      const others = remarks?.filter((remark, i, all) => !isPlainCue(remark, i, all)) ?? []
      return { ...rest, events: [], ...(others.length > 0 && { remarks: others }) }
    }),
  }
  return writeSheet(bare, base, combination)
    .split('\n')
    .filter((line) => line.trim() !== '')
    .map((line) => ({ phrase: LINE_MARK, count: line }))
}

const NOT_CSV = 'Save it as CSV with a first row that names the columns: phrase, count, feet, …'

/**
 * Reads rows of landings, as written here or by hand in a spreadsheet. Messages name the
 * row as their line.
 * @throws UserError when there are no such columns at all.
 */
export function readCsv(
  csv: string,
  base: Vocabulary,
): { readonly combination: Combination; readonly messages: readonly SheetMessage[] } {
  const text = csv.replace(/^\uFEFF/, '')
  const [mark = '', sign] = /^sep=(.)[^\n]*\n/i.exec(text) ?? []
  const { data } = Papa.parse<string[]>(text.slice(mark.length), {
    skipEmptyLines: 'greedy',
    ...(sign && { delimiter: sign }),
  })
  const [header = [], ...body] = data.map((cells) => cells.map(fromCell))
  const column = columnsIn(header)
  const has = (name: Column) => column.has(name)
  if (!has('phrase') || !has('count') || !LAYERS.some(has))
    throw new UserError(
      `These rows are no combination: ${seenWords(header)}, and “phrase”, “count” and a layer are needed.`,
      `Nothing was changed. ${NOT_CSV}`,
    )
  const rows = body.map((cells) => (name: Column) => (cells[column.get(name) ?? -1] ?? '').trim())
  const { sheet, rowOfLine } = sheetOf(rows, body, column.get('count') ?? -1)
  const { combination, messages } = readSheet(sheet, base)
  return {
    combination,
    messages: messages.map((message) => ({
      ...message,
      line: (rowOfLine[message.line - 1] ?? 1) + (sign ? 1 : 0),
      column: 1,
    })),
  }
}

/** Where each known column stands, by the first row. */
function columnsIn(header: readonly string[]): ReadonlyMap<Column, number> {
  const names = header.map((name) => name.trim().toLowerCase())
  return new Map(
    COLUMNS.flatMap((name) => {
      const at = names.indexOf(name)
      return at < 0 ? [] : [[name, at] as const]
    }),
  )
}

const MOST_NAMED = 8

function seenWords(header: readonly string[]): string {
  const named = header.map((name) => name.trim()).filter(Boolean)
  if (named.length === 0) return 'the first row names no columns'
  const shown = named.slice(0, MOST_NAMED).map((name) => `“${name.slice(0, 30)}”`)
  const more = named.length > MOST_NAMED ? ` and ${named.length - MOST_NAMED} more` : ''
  return `the columns are called ${shown.join(', ')}${more}`
}

/** Whether a text looks like rows: its first line, or the one after `sep=`, names the columns. */
export function looksLikeRows(text: string): boolean {
  const [first = ''] = text.replace(/^\uFEFF?(?:sep=.[^\n]*\n)?/i, '').split('\n', 1)
  const names = first.split(/[,;\t|]/).map((name) => name.replace(/^\s*"|"\s*$/g, '').trim())
  const column = columnsIn(names)
  return names.length > 2 && (column.has('phrase') || column.has('count')) && column.size > 1
}

/** Halves, quarters and thirds as a spreadsheet writes them: `1.5` or `1,5` is `1&`. */
const PARTS: ReadonlyMap<string, string> = new Map([
  ['0', ''],
  ['5', '&'],
  ['50', '&'],
  ['25', 'e'],
  ['75', 'a'],
  ['33', '+4'],
  ['67', '+8'],
  ['66', '+8'],
])

function countIn(cell: string): string {
  const [, count, part = ''] = /^(<?\d{1,3})[.,](\d{1,2})\d*$/.exec(cell) ?? []
  const label = PARTS.get(part)
  return count !== undefined && label !== undefined ? `${count}${label}` : cell
}

type Cells = (name: Column) => string

/** Puts the rows together to a sheet again, and remembers which row each of its lines came from. */
function sheetOf(
  rows: readonly Cells[],
  raw: readonly string[][],
  countColumn: number,
): { sheet: string; rowOfLine: readonly number[] } {
  const lines: { text: string; row: number; phrase: string | undefined }[] = []
  const known = new Set<string>()
  const landings = landingRows(rows)
  const counts = new Map<string, number>()
  for (const { name, count } of landings) {
    const number = Number.parseInt(count.replace(/^</, ''), 10)
    if (number > 0) counts.set(name, Math.max(counts.get(name) ?? 0, Math.min(16, number)))
  }
  let phrase: string | undefined
  // A comment belongs to the line behind it.
  let waiting: { text: string; row: number }[] = []
  for (const [i, cells] of rows.entries()) {
    if (cells('phrase') !== LINE_MARK) continue
    const text = raw[i]?.[countColumn] ?? ''
    if (/^\s*#/.test(text)) {
      waiting.push({ text, row: i + 2 })
      continue
    }
    const named = /^phrase\s+(\S+)/.exec(text)?.[1]
    if (named) {
      phrase = named
      known.add(named)
    } else if (/^(order|rest)\b/.test(text)) phrase = undefined
    for (const comment of waiting) lines.push({ ...comment, phrase })
    waiting = []
    lines.push({ text, row: i + 2, phrase })
  }
  const last = waiting
  if (lines[0]?.text.startsWith('sway ') !== true)
    lines.unshift({ text: 'sway 1', row: 1, phrase: undefined })
  for (const { name, count, cells, row } of landings) {
    if (!known.has(name)) {
      known.add(name)
      // A phrase nobody described: an 8, or as long as its rows.
      lines.push({
        text: `phrase ${name} ${Math.max(counts.get(name) ?? 8, 8)}`,
        row,
        phrase: name,
      })
    }
    const whose = cells('part')
      .split(/[\s,]+/)
      .filter(Boolean)
      .map((id) => (id.startsWith('@') ? id : `@${id}`))
      .join(' ')
    for (const layer of LAYERS)
      if (cells(layer))
        lines.push({ text: layerLine(layer, cells(layer), count, whose), row, phrase: name })
    if (cells('cue'))
      lines.push({
        text: ['  say', whose, count, quoted(cells('cue'))].filter(Boolean).join(' '),
        row,
        phrase: name,
      })
  }
  const ordered = [
    ...inPhrases(lines, [...known]),
    ...last.map((comment) => ({ ...comment, phrase: undefined })),
  ]
  return {
    sheet: ordered.map(({ text }) => text).join('\n'),
    rowOfLine: ordered.map(({ row }) => row),
  }
}

/** A row that says what is danced on a count; one without a name of a phrase is of the phrase above it. */
interface Landing {
  readonly name: string
  readonly count: string
  readonly cells: Cells
  readonly row: number
}

function landingRows(rows: readonly Cells[]): readonly Landing[] {
  let name = 'A'
  return rows.flatMap((cells, i): readonly Landing[] => {
    const said = cells('phrase')
    if (said === LINE_MARK) return []
    if (said) name = said
    return [{ name, count: countIn(cells('count')), cells, row: i + 2 }]
  })
}

/** Entries of a cell that do not say when they are danced get the row's count. */
function layerLine(
  layer: (typeof LAYERS)[number],
  text: string,
  count: string,
  whose: string,
): string {
  const entries = entriesIn({ text, parts: [{ index: 0, offset: 0 }] })
    .map((entry) => entry.text)
    .map((entry) => (/^~?\s*<?\d/.test(entry) ? entry : `${count} ${entry}`))
  return `  ${layer} ${whose ? `${whose} ` : ''}${entries.join('; ').replace(/\s*\n\s*/g, ' ')}`
}

/** Header lines, then each phrase with all its lines, then the rest. */
function inPhrases<T extends { text: string; phrase: string | undefined }>(
  lines: readonly T[],
  names: readonly string[],
): readonly T[] {
  const firstPhrase = lines.findIndex(({ phrase }) => phrase !== undefined)
  const head = firstPhrase < 0 ? lines : lines.slice(0, firstPhrase)
  const groups = new Map<string, T[]>(names.map((name) => [name, []]))
  const rest: T[] = []
  for (const line of firstPhrase < 0 ? [] : lines.slice(firstPhrase))
    (groups.get(line.phrase ?? '') ?? rest).push(line)
  return [...head, ...[...groups.values()].flat(), ...rest]
}
