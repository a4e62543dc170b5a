import Papa from 'papaparse'
import { LAYERS, type Layer } from '../body/layers'
import { folded } from '../record/folded'
import { layerNamed } from './lines'

/** What a column of a table holds. */
export const ROLES = ['phrase', 'count', ...LAYERS, 'say', 'note', 'leave'] as const
export type Role = (typeof ROLES)[number]

interface Cell {
  readonly role: Role
  readonly layer: Layer | undefined
  readonly text: string
}

/** A row of the table, with what each of its cells holds. */
export interface TableRow {
  readonly number: number
  readonly text: string
  readonly cells: readonly Cell[]
}

export interface Table {
  readonly columns: readonly { readonly heading: string; readonly role: Role }[]
  readonly rows: readonly TableRow[]
}

const NAMES: ReadonlyMap<string, Role> = new Map(
  Object.entries({
    count: 'count',
    counts: 'count',
    ct: 'count',
    cts: 'count',
    beat: 'count',
    beats: 'count',
    when: 'count',
    time: 'count',
    '#': 'count',
    phrase: 'phrase',
    part: 'phrase',
    section: 'phrase',
    set: 'phrase',
    eight: 'phrase',
    block: 'phrase',
    cue: 'say',
    cues: 'say',
    say: 'say',
    call: 'say',
    words: 'say',
    lyrics: 'say',
    note: 'note',
    notes: 'note',
    comment: 'note',
    comments: 'note',
    remarks: 'note',
    tip: 'note',
    tips: 'note',
    weight: 'leave',
    facing: 'leave',
    direction: 'note',
    move: 'feet',
    moves: 'feet',
    what: 'feet',
    movement: 'feet',
  } satisfies Record<string, Role>),
)

/** What a heading names: a layer, the counts, what is said or noted. */
const roleOf = (heading: string): Role | undefined => {
  const word = folded(heading)
    .replace(/[^\p{L}#\s]/gu, '')
    .trim()
  return layerNamed(word) ?? NAMES.get(word)
}

const isLayer = (role: Role): role is Layer => LAYERS.includes(role as Layer)

/** A table with tabs, commas or bars between its cells; undefined where the text is none. */
export function tableIn(text: string, columns?: readonly Role[]): Table | undefined {
  const lines = text.split('\n').filter((line) => line.trim() !== '')
  const bars = lines.filter((line) => /^\s*\|.*\|\s*$/.test(line))
  const isBarred = bars.length >= 2 && bars.length === lines.length
  const tabbed = lines.filter((line) => line.includes('\t')).length * 2 > lines.length
  const [first = ''] = lines
  const heads = first.split(/[,;\t|]/).filter((cell) => roleOf(cell) !== undefined).length
  if (lines.length < 2 || (!isBarred && !tabbed && heads < 2)) return undefined
  const rows = isBarred
    ? lines.map((line) =>
        line
          .trim()
          .slice(1, -1)
          .split('|')
          .map((cell) => cell.trim()),
      )
    : Papa.parse<string[]>(lines.join('\n'), tabbed ? { delimiter: '\t' } : {}).data
  const body = rows.filter((cells) => !cells.every((cell) => /^[-:\s]*$/.test(cell)))
  const [head = []] = body
  const hasHead = head.filter((cell) => roleOf(cell) !== undefined).length >= 2
  const width = Math.max(...body.map((cells) => cells.length))
  if (width < 2) return undefined
  const found = Array.from({ length: width }, (_, i) => ({
    heading: hasHead ? (head[i] ?? '').trim() : '',
    role: columns?.[i] ?? guessed(body, i, hasHead),
  }))
  return {
    columns: found,
    rows: body.slice(hasHead ? 1 : 0).map((cells, i) => ({
      number: i + (hasHead ? 2 : 1),
      text: cells
        .map((cell) => cell.trim())
        .filter(Boolean)
        .join(' · '),
      cells: cells.map((cell, at) => {
        const role = found[at]?.role ?? 'leave'
        return { role, layer: isLayer(role) ? role : undefined, text: cell }
      }),
    })),
  }
}

/** What a column holds by its heading; without one, counts where it holds numbers, else notes. */
function guessed(rows: readonly (readonly string[])[], at: number, hasHead: boolean): Role {
  const named = hasHead ? roleOf(rows[0]?.[at] ?? '') : undefined
  if (named) return named
  if (hasHead) return 'note'
  const cells = rows.map((cells) => (cells[at] ?? '').trim()).filter(Boolean)
  const numbers = cells.filter((cell) => /^(?:and\s+)?\d/.test(cell)).length
  if (numbers * 2 > cells.length) return 'count'
  return at === 1 ? 'feet' : at === 2 ? 'hips' : at === 3 ? 'arms' : 'note'
}
