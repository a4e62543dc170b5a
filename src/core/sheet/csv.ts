import Papa from 'papaparse'
import type { Combination, Phrase } from '../combination/combination'
import { passesOf } from '../combination/passes'
import { UserError } from '../errors'
import { LAYERS } from '../moves/move'
import { type Vocabulary, vocabularyFor } from '../moves/vocabulary'
import { simulate, stateAt } from '../simulate/simulate'
import { labelIn, slotAt, type Tick } from '../time/time'
import { canonical } from './canonical'
import { entriesIn, quoted, type SheetMessage } from './lines'
import { readSheet } from './readSheet'
import { dancedText, entryText, writeSheet } from './writeSheet'

const COLUMNS = ['phrase', 'count', ...LAYERS, 'facing', 'weight', 'cue'] as const
type Column = (typeof COLUMNS)[number]
type Row = Partial<Record<Column, string>>

/** In the phrase column: the row holds a line of the sheet that is no landing (title, order, notes). */
const LINE_MARK = '@'

/**
 * One row for each place where something lands or begins: phrase, count, the layers, and
 * the facing and weight it leads to. Rows marked `@` carry the rest of the sheet, so that
 * reading it gives the same combination again; facing and weight are only for people.
 */
export function writeCsv(combination: Combination, base: Vocabulary): string {
  const vocabulary = vocabularyFor(combination, base)
  const plain = canonical(combination)
  const simulation = simulate(plain, vocabulary)
  const starts = new Map(
    passesOf(plain)
      .toReversed()
      .map(({ phrase, at }) => [phrase.id, at]),
  )
  const rows: Row[] = lineRows(plain, base)
  for (const phrase of plain.phrases) {
    const label = labelIn(phrase.counts)
    for (const at of landingsOf(phrase)) {
      const state = stateAt(simulation, (starts.get(phrase.id) ?? 0) + at)
      const cell = (layer: (typeof LAYERS)[number]) =>
        phrase.events
          .filter((event) => event.layer === layer && event.at === at)
          .map((event) => {
            const entry = entryText(event, phrase.counts, vocabulary)
            // Where the count column says it all, it is not said again.
            const own = `${event.optional ? '~' : ''}${label(at)} `
            return entry.startsWith(own) && !event.optional ? dancedText(event, vocabulary) : entry
          })
          .join('; ')
      rows.push({
        phrase: phrase.name,
        count: label(at),
        ...Object.fromEntries(LAYERS.map((layer) => [layer, cell(layer)])),
        facing: String(state.facing),
        weight: state.weight,
        cue: plainCue(phrase, at) ?? '',
      })
    }
  }
  return `${Papa.unparse({ fields: [...COLUMNS], data: rows.map((row) => COLUMNS.map((column) => row[column] ?? '')) }, { newline: '\n' })}\n`
}

const landingsOf = (phrase: Phrase): readonly Tick[] =>
  [
    ...new Set([
      ...phrase.events.map(({ at }) => at),
      ...(phrase.remarks ?? []).filter(isPlainCue).map(({ at }) => at),
    ]),
  ].sort((a, b) => a - b)

/** A cue that fits into its own column: one, on a place of its own length. */
const isPlainCue = (
  { kind, at, length }: NonNullable<Phrase['remarks']>[number],
  _: number,
  all: NonNullable<Phrase['remarks']>,
): boolean =>
  kind === 'say' &&
  length === slotAt(at) &&
  all.filter((other) => other.kind === 'say' && other.at === at).length === 1

const plainCue = ({ remarks = [] }: Phrase, at: Tick): string | undefined =>
  remarks.filter(isPlainCue).find((remark) => remark.at === at)?.text

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
  return writeSheet(bare, base)
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
  const { data } = Papa.parse<string[]>(csv.replace(/^\uFEFF/, ''), { skipEmptyLines: 'greedy' })
  const [header = [], ...body] = data
  const names = header.map((name) => name.trim().toLowerCase())
  const column = new Map(COLUMNS.map((name) => [name, names.indexOf(name)] as const))
  const has = (name: Column) => (column.get(name) ?? -1) >= 0
  if (!has('phrase') || !has('count') || !LAYERS.some(has))
    throw new UserError(
      'These rows are no combination: there are no columns “phrase” and “count” with a layer beside them.',
      `Nothing was changed. ${NOT_CSV}`,
    )
  const rows = body.map((cells) => (name: Column) => (cells[column.get(name) ?? -1] ?? '').trim())
  const { sheet, rowOfLine } = sheetOf(rows, body, column.get('count') ?? -1)
  const { combination, messages } = readSheet(sheet, base)
  return {
    combination,
    messages: messages.map((message) => ({
      ...message,
      line: rowOfLine[message.line - 1] ?? 1,
      column: 1,
    })),
  }
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
  let phrase: string | undefined
  const counts = new Map<string, number>()
  for (const cells of rows) {
    const name = cells('phrase')
    const count = Number.parseInt(cells('count').replace(/^</, ''), 10)
    if (name !== LINE_MARK && count > 0)
      counts.set(name, Math.max(counts.get(name) ?? 0, Math.min(16, count)))
  }
  for (const [i, cells] of rows.entries()) {
    if (cells('phrase') !== LINE_MARK) continue
    const text = raw[i]?.[countColumn] ?? ''
    const named = /^phrase\s+(\S+)/.exec(text)?.[1]
    if (named) {
      phrase = named
      known.add(named)
    } else if (/^(order|rest)\b/.test(text)) phrase = undefined
    lines.push({ text, row: i + 2, phrase })
  }
  if (lines[0]?.text.startsWith('sway ') !== true)
    lines.unshift({ text: 'sway 1', row: 1, phrase: undefined })
  for (const [i, cells] of rows.entries()) {
    const name = cells('phrase')
    if (name === LINE_MARK) continue
    if (name && !known.has(name)) {
      known.add(name)
      // A phrase nobody described: an 8, or as long as its rows.
      const long = counts.get(name) ?? 8
      const text = `phrase ${name} ${Math.max(long, 8)}`
      lines.push({ text, row: i + 2, phrase: name })
    }
    for (const layer of LAYERS)
      if (cells(layer)) lines.push({ text: layerLine(layer, cells), row: i + 2, phrase: name })
    if (cells('cue'))
      lines.push({
        text: `  say ${cells('count')} ${quoted(cells('cue'))}`,
        row: i + 2,
        phrase: name,
      })
  }
  const ordered = inPhrases(lines, [...known])
  return {
    sheet: ordered.map(({ text }) => text).join('\n'),
    rowOfLine: ordered.map(({ row }) => row),
  }
}

/** Entries of a cell that do not say when they are danced get the row's count. */
function layerLine(layer: (typeof LAYERS)[number], cells: Cells): string {
  const text = cells(layer)
  const entries = entriesIn({ text, parts: [{ index: 0, offset: 0 }] })
    .map((entry) => entry.text)
    .map((entry) => (/^~?\s*<?\d/.test(entry) ? entry : `${cells('count')} ${entry}`))
  return `  ${layer} ${entries.join('; ').replace(/\s*\n\s*/g, ' ')}`
}

/** Header lines, then each phrase with all its lines, then the rest. */
function inPhrases<T extends { text: string; phrase: string | undefined }>(
  lines: readonly T[],
  names: readonly string[],
): readonly T[] {
  const firstPhrase = lines.findIndex(({ phrase }) => phrase !== undefined)
  const head = firstPhrase < 0 ? lines : lines.slice(0, firstPhrase)
  const rest = firstPhrase < 0 ? [] : lines.slice(firstPhrase)
  return [
    ...head,
    ...names.flatMap((name) => rest.filter(({ phrase }) => phrase === name)),
    ...rest.filter(({ phrase }) => phrase === undefined || !names.includes(phrase)),
  ]
}
