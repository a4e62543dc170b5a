/** What is wrong at a place of a sheet, and what to write instead. Lines and columns start at 1. */
export interface SheetMessage {
  readonly line: number
  readonly column: number
  /** From the start of the sheet, in characters; `to` is behind the last one. */
  readonly from: number
  readonly to: number
  readonly text: string
}

const HEADER_WORDS = [
  'title',
  'family',
  'tempo',
  'lead',
  'start',
  'part',
  'carry',
  'swap',
  'pickup',
  'level',
  'counts',
  'rest',
  'keep',
  'once',
  'call',
  'rule',
  'song',
  'by',
  'tags',
  'variant',
  'leave',
  'move',
  'order',
] as const
export type HeaderWord = (typeof HEADER_WORDS)[number]
export const PHRASE_WORDS = [
  'call',
  'option',
  'free',
  'pose',
  'feet',
  'legs',
  'hips',
  'torso',
  'arms',
  'head',
  'facing',
  'voice',
  'between',
  'prop',
  'say',
  'words',
  'breath',
  'face',
  'prepare',
  'note',
] as const
export type PhraseWord = (typeof PHRASE_WORDS)[number]
export type LineWord = HeaderWord | PhraseWord | 'phrase'
export const LINE_WORDS: readonly LineWord[] = [
  ...new Set<LineWord>([...HEADER_WORDS, 'phrase', ...PHRASE_WORDS]),
]
export const isHeaderWord = (word: string): word is HeaderWord =>
  HEADER_WORDS.includes(word as HeaderWord)
const isLineWord = (word: string): word is LineWord => LINE_WORDS.includes(word as LineWord)

/** Text put together from several lines, that still knows where each part stood. */
export interface Placed {
  readonly text: string
  /** Where the text from an index on stands in the sheet. */
  readonly parts: readonly { readonly index: number; readonly offset: number }[]
}

/** A line of the sheet with the lines that continue it; comments before or behind it came off. */
export interface SheetLine {
  /** Undefined for a line nobody can place: it has no word of the sheet before it. */
  readonly word: LineWord | undefined
  readonly body: Placed
  readonly comments: readonly string[]
  /** From the start of the sheet. */
  readonly from: number
}

export const offsetIn = ({ parts }: Placed, index: number): number => {
  const part = parts.findLast((one) => one.index <= index) ?? parts[0]
  return part ? part.offset + (index - part.index) : 0
}

export const sliceOf = (placed: Placed, from: number, to: number): Placed => ({
  text: placed.text.slice(from, to),
  parts: [
    { index: 0, offset: offsetIn(placed, from) },
    ...placed.parts
      .filter(({ index }) => index > from && index < to)
      .map(({ index, offset }) => ({ index: index - from, offset })),
  ],
})

/** Where the comment of a line starts; quoted signs are text. */
function commentStart(line: string): number {
  let quoted = false
  for (let i = 0; i < line.length; i++) {
    const sign = line[i]
    if (sign === '\\' && quoted) i++
    else if (sign === '"') quoted = !quoted
    else if (sign === '#' && !quoted) return i
  }
  return line.length
}

/** Whether a quote is still open at the end of a text. */
export const leavesQuoteOpen = (text: string): boolean => commentStart(`${text}#`) > text.length

/** A word that looks like the start of a new line, though it is none: a slip such as `hipss 1-4 …`. */
const LOOKS_LIKE_A_LINE = /^[a-z]+:?\s+<?\d/i

/** Puts continued lines together and takes comments off. The first line has been read before. */
export function linesIn(
  sheet: string,
  from: number,
): { readonly lines: readonly SheetLine[]; readonly comments: readonly string[] } {
  const lines: { word: LineWord | undefined; body: Placed; comments: string[]; from: number }[] = []
  let waiting: string[] = []
  for (let offset = from; offset <= sheet.length; ) {
    const newline = sheet.indexOf('\n', offset)
    const next = newline < 0 ? sheet.length : newline
    const raw = sheet.slice(offset, next).replace(/\r$/, '')
    const content = raw.slice(0, commentStart(raw))
    const comment = raw.length > content.length ? raw.slice(content.length + 1).trim() : undefined
    const start = content.length - content.trimStart().length
    const trimmed = content.trim()
    const [, first = ''] = /^([a-z]+):?(?=\s|$)/i.exec(trimmed) ?? []
    const word = first.toLowerCase()
    const last = lines.at(-1)
    if (trimmed === '') {
      if (comment !== undefined) waiting.push(comment)
    } else if (isLineWord(word)) {
      const after = start + first.length + (trimmed[first.length] === ':' ? 1 : 0)
      const gap = content.slice(after).length - content.slice(after).trimStart().length
      const body = content.slice(after).trim()
      lines.push({
        word,
        body: { text: body, parts: [{ index: 0, offset: offset + after + gap }] },
        comments: waiting,
        from: offset + start,
      })
      waiting = []
    } else if (start > 0 && last?.word && !LOOKS_LIKE_A_LINE.test(trimmed)) {
      const gap = last.body.text === '' ? '' : ' '
      const index = last.body.text.length + gap.length
      last.body = {
        text: `${last.body.text}${gap}${trimmed}`,
        parts: [
          ...last.body.parts.filter((part) => part.index < index),
          { index, offset: offset + start },
        ],
      }
      last.comments.push(...waiting)
      waiting = []
    } else {
      lines.push({
        word: undefined,
        body: { text: trimmed, parts: [{ index: 0, offset: offset + start }] },
        comments: waiting,
        from: offset + start,
      })
      waiting = []
    }
    if (comment !== undefined && trimmed !== '') lines.at(-1)?.comments.push(comment)
    offset = next + 1
  }
  return { lines, comments: waiting }
}

/** The entries of a line: parted by `;` outside quotes, empty ones left out. */
export function entriesIn(body: Placed): readonly Placed[] {
  const entries: Placed[] = []
  let quoted = false
  let begin = 0
  const close = (end: number) => {
    const piece = body.text.slice(begin, end)
    const lead = piece.length - piece.trimStart().length
    if (piece.trim()) entries.push(sliceOf(body, begin + lead, begin + lead + piece.trim().length))
    begin = end + 1
  }
  const seams = new Set(body.parts.map(({ index }) => index))
  for (let i = 0; i < body.text.length; i++) {
    // A quote that is open at the end of its line ends there, or it would swallow all that follows.
    if (quoted && seams.has(i)) {
      close(i - 1)
      quoted = false
    }
    const sign = body.text[i]
    if (sign === '\\' && quoted) i++
    else if (sign === '"') quoted = !quoted
    else if (sign === ';' && !quoted) close(i)
  }
  close(body.text.length)
  return entries
}
