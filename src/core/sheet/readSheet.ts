import type { Side } from '../body/side'
import {
  type Combination,
  type Comment,
  defaultStart,
  type Event,
  MOST_COUNTS,
  MOST_PHRASE_COUNTS,
  type Phrase,
  type Remark,
  SCHEMA_VERSION,
  type Start,
  type Unread,
  type WrittenFacing,
} from '../combination/combination'
import { UserError } from '../errors'
import { LAYERS, type Layer } from '../moves/move'
import { type Vocabulary, withOwn } from '../moves/vocabulary'
import { clampTempo } from '../time/tempo'
import { TICKS_PER_COUNT } from '../time/time'
import { canonical, canonicalIds } from './canonical'
import { readEntry, type WrittenEvent } from './entry'
import { type Header, readHeaderInto, readStart } from './header'
import {
  entriesIn,
  isHeaderWord,
  LINE_WORDS,
  linesIn,
  offsetIn,
  type PhraseWord,
  type Placed,
  quoted,
  type SheetLine,
  type SheetMessage,
  tokensIn,
} from './lines'
import { EntryProblem } from './reader'
import { withFreeFeet } from './resolve'
import { readWhen } from './when'
import { nearest } from './words'
import { SHEET_VERSION } from './writeSheet'

const MOST_CHARACTERS = 1_000_000

/** Where an event stands in the text of the sheet. */
export interface EntrySpot {
  readonly event: string
  readonly from: number
  readonly to: number
}

export interface SheetRead {
  /** What could be read, in canonical form; what could not is kept in it as `unread`. */
  readonly combination: Combination
  readonly messages: readonly SheetMessage[]
  readonly spots: readonly EntrySpot[]
}

interface DraftPhrase {
  readonly name: string
  readonly title: string
  readonly counts: number
  readonly events: (WrittenEvent & { readonly from: number; readonly to: number })[]
  readonly remarks: Omit<Remark, 'id'>[]
  readonly facings: WrittenFacing[]
  readonly comments: Comment[]
  readonly unread: Unread[]
}

/** Collects what is wrong, with its line and column. */
class Messages {
  readonly list: SheetMessage[] = []
  readonly #sheet: string
  readonly #starts: number[] = [0]
  constructor(sheet: string) {
    this.#sheet = sheet
    for (let i = sheet.indexOf('\n'); i >= 0; i = sheet.indexOf('\n', i + 1))
      this.#starts.push(i + 1)
  }
  add(text: string, from: number, to: number): void {
    const at = Math.min(from, this.#sheet.length)
    let low = 0
    let high = this.#starts.length - 1
    while (low < high) {
      const middle = (low + high + 1) >> 1
      if ((this.#starts[middle] ?? 0) <= at) low = middle
      else high = middle - 1
    }
    const column = at - (this.#starts[low] ?? 0) + 1
    this.list.push({ line: low + 1, column, from: at, to: Math.max(at + 1, to), text })
  }
  /** Says a problem of some text at its own place. */
  problem(problem: unknown, placed: Placed): void {
    if (!(problem instanceof EntryProblem)) throw problem
    this.add(
      problem.message,
      offsetIn(placed, problem.at),
      offsetIn(placed, Math.max(problem.at, problem.end - 1)) + 1,
    )
  }
}

/**
 * Reads a count sheet. Words that can't be read get a message and are kept as they are; all
 * the rest is read. Feet that were left out are the ones that are free.
 * @throws UserError when it is no count sheet at all: no `sway 1`, too long, a newer version.
 */
export function readSheet(sheet: string, base: Vocabulary): SheetRead {
  const text = sheet.replace(/^\uFEFF/, '')
  if (text.length > MOST_CHARACTERS)
    throw new UserError(
      'This sheet is over 1 MB.',
      'Nothing was changed. A count sheet has 256 counts at the most; check that it is the right file.',
    )
  const { begin, comment: firstComment } = readVersion(text)
  const messages = new Messages(text)
  const { lines, comments: lastComments } = linesIn(text, begin)
  const header: Header = {}
  const comments: Comment[] =
    firstComment === undefined ? [] : [{ before: 'title', text: firstComment }]
  const unread: Unread[] = []
  const keepLine = (into: Unread[], line: SheetLine) =>
    into.push({ text: [line.word, asTyped(line.body)].filter(Boolean).join(' ') })

  // The header first, wherever it stands: the phrases hang on it.
  const orderLines: SheetLine[] = []
  let startLine: SheetLine | undefined
  const goodHeader = new Set<string>()
  for (const line of lines) {
    if (!line.word || !isHeaderWord(line.word)) continue
    if (line.word === 'order') {
      orderLines.push(line)
      continue
    }
    try {
      readHeaderInto(header, line.word, line.body.text)
      if (line.word === 'start') startLine = line
      goodHeader.add(line.word)
    } catch (problem) {
      messages.problem(problem, line.body)
      keepLine(unread, line)
    }
  }
  const lead: Side = header.lead ?? 'R'
  let start: Start = defaultStart(lead)
  if (startLine) {
    try {
      start = readStart(startLine.body.text, lead)
    } catch (problem) {
      messages.problem(problem, startLine.body)
      keepLine(unread, startLine)
    }
  }
  const vocabulary = withOwn(base, ownMoves(header))

  const phrases: DraftPhrase[] = []
  const drafts = new Map<SheetLine, DraftPhrase>()
  for (const line of lines) {
    if (line.word !== 'phrase') continue
    const made = readPhrase(line, header, phrases, messages)
    drafts.set(line, made)
    phrases.push(made)
  }
  if (phrases.length === 0) {
    phrases.push(emptyPhrase('A', header.counts ?? 8))
    messages.add(
      'There is no phrase yet. Write “phrase A 8”, and its lines under it.',
      text.length,
      text.length + 1,
    )
  }
  // Which phrase is danced first decides where a pickup may stand.
  const order = readOrder(orderLines, phrases, messages, unread)
  const firstName = order[0]?.phrase
  let phrase: DraftPhrase | undefined
  for (const line of lines) {
    const said = (word: string | undefined, into: Comment[]) => {
      for (const comment of line.comments)
        into.push({ ...(word && { before: word }), text: comment })
    }
    const made = drafts.get(line)
    if (made) {
      phrase = made
      said('phrase', made.comments)
    } else if (line.word && isHeaderWord(line.word)) {
      said(line.word, comments)
    } else if (!line.word || !phrase) {
      messages.add(
        strayText(line, phrase !== undefined),
        line.from,
        line.from + Math.max(1, line.body.text.split(' ')[0]?.length ?? 1),
      )
      keepLine(phrase ? phrase.unread : unread, line)
      said(phrase ? 'phrase' : 'title', phrase ? phrase.comments : comments)
    } else {
      said(line.word, phrase.comments)
      readLayerLine(line.word as PhraseWord, line, phrase, {
        first: phrase.name === firstName,
        lead,
        vocabulary,
        messages,
      })
    }
  }
  for (const comment of lastComments) comments.push({ text: comment })
  const pickup = pickupFor(header, phrases, order, messages, unread)
  const written = build(
    header,
    { lead, start, phrases, order, pickup, unread },
    {
      comments: comments.map((comment) =>
        isPrinted(comment, header, goodHeader) ? comment : { ...comment, before: 'title' },
      ),
    },
  )
  return finished(written, phrases, vocabulary, messages)
}

/** A line that could not be read keeps the lines it was typed in. */
const asTyped = ({ text, parts }: Placed): string =>
  parts
    .map(({ index }, i) => text.slice(index, parts[i + 1]?.index ?? text.length).trim())
    .join('\n    ')

/** Ids of own moves stand once; the later one counts. */
const ownMoves = ({ moves = [] }: Header) => [
  ...new Map(moves.map((move) => [move.id, move])).values(),
]

function readVersion(text: string): { begin: number; comment: string | undefined } {
  const [whole = '', version, comment] =
    /^sway[ \t]+(\d+)[ \t]*(?:#([^\n]*))?(?:\n|\r\n|$)/.exec(text) ?? []
  if (version === undefined)
    throw new UserError(
      'This is no count sheet: its first line is not “sway 1”.',
      'Nothing was changed. Write “sway 1” as the first line, or pick another file.',
    )
  if (Number(version) > SHEET_VERSION)
    throw new UserError(
      `This sheet was written by a newer version of Molten Sway (sway ${version}).`,
      'Nothing was changed. Update this one, or save the sheet again as “sway 1”.',
    )
  if (Number(version) < 1)
    throw new UserError(
      'There is no version 0 of the count sheet.',
      'Write “sway 1” as the first line.',
    )
  return { begin: whole.length, comment: comment?.trim() }
}

function strayText({ word, body }: SheetLine, inPhrase: boolean): string {
  if (word && !inPhrase) return `“${word}” belongs under a phrase. Write “phrase A 8” before it.`
  const first = body.text.split(/\s/)[0] ?? ''
  const near = nearest(first, LINE_WORDS)
  return near.length > 0
    ? `“${first}” starts no line. Did you mean ${near.join(', ')}?`
    : `“${first}” starts no line. A line starts with feet, hips, torso, arms, head, say, note or another word of the sheet.`
}

const emptyPhrase = (name: string, counts: number, title = ''): DraftPhrase => ({
  name,
  title,
  counts,
  events: [],
  remarks: [],
  facings: [],
  comments: [],
  unread: [],
})

function readPhrase(
  line: SheetLine,
  header: Header,
  before: readonly DraftPhrase[],
  messages: Messages,
): DraftPhrase {
  const tokens = tokensIn(line.body.text)
  const [first] = tokens
  const say = (text: string, token = first) =>
    messages.add(
      text,
      token ? offsetIn(line.body, token.at) : line.from,
      token ? offsetIn(line.body, token.end - 1) + 1 : line.from + 6,
    )
  let name = first && !first.quoted ? first.text : ''
  if (!/^[\p{L}\p{N}-]+$/u.test(name)) {
    say('A phrase needs a name of letters and digits: phrase A "Lantern walk" 8.')
    name = ''
  }
  if (before.some((phrase) => phrase.name === name))
    say(`There is a phrase ${name} already. Give this one another name.`)
  let title = ''
  let counts = header.counts ?? 8
  for (const token of tokens.slice(name ? 1 : 0)) {
    const number = Number(token.text)
    if (token.quoted) title = token.text.replace(/\s*\n\s*/g, ' ')
    else if (Number.isInteger(number) && number >= 1 && number <= MOST_PHRASE_COUNTS)
      counts = number
    else if (/^\d+$/.test(token.text)) say(`A phrase has 1 to ${MOST_PHRASE_COUNTS} counts.`, token)
    else if (token !== first)
      say(`“${token.text}” is not known here. Write phrase ${name || 'A'} "title" 8.`, token)
  }
  return emptyPhrase(freeName(name, before), counts, title)
}

function freeName(wanted: string, before: readonly DraftPhrase[]): string {
  const taken = new Set(before.map(({ name }) => name))
  if (wanted && !taken.has(wanted)) return wanted
  for (let i = wanted ? 2 : 1; ; i++) {
    const name = wanted ? `${wanted}-${i}` : `P${i}`
    if (!taken.has(name)) return name
  }
}

interface LineContext {
  readonly first: boolean
  readonly lead: Side
  readonly vocabulary: Vocabulary
  readonly messages: Messages
}

const isLayer = (word: string): word is Layer => LAYERS.includes(word as Layer)

function readLayerLine(
  word: PhraseWord,
  line: SheetLine,
  phrase: DraftPhrase,
  { messages, ...context }: LineContext,
): void {
  for (const entry of entriesIn(line.body)) {
    try {
      const place = {
        ...context,
        counts: phrase.counts,
        layer: isLayer(word) ? word : 'feet',
      } as const
      if (isLayer(word)) {
        const from = offsetIn(entry, 0)
        const to = offsetIn(entry, entry.text.length - 1) + 1
        for (const { event, open } of readEntry(entry.text, place))
          phrase.events.push({ event, open, from, to })
      } else if (word === 'facing') {
        readFacing(entry.text, place, phrase)
      } else readRemark(word, entry.text, place, phrase)
    } catch (problem) {
      messages.problem(problem, entry)
      phrase.unread.push({ line: word, text: entry.text })
    }
  }
}

function readFacing(
  text: string,
  place: Parameters<typeof readWhen>[1],
  phrase: DraftPhrase,
): void {
  const [when, facing, more] = tokensIn(text)
  const degrees = Number(facing?.text)
  if (!when || !facing || more || !Number.isInteger(degrees) || Math.abs(degrees) > 36_000)
    throw new EntryProblem('Write when and how many degrees: facing 5 180.', {
      at: facing?.at ?? 0,
      end: facing?.end ?? text.length,
    })
  for (const { at } of readWhen(when, place)) phrase.facings.push({ at, degrees })
}

function readRemark(
  kind: Exclude<PhraseWord, Layer | 'facing'>,
  text: string,
  place: Parameters<typeof readWhen>[1],
  phrase: DraftPhrase,
): void {
  const [when, said, more] = tokensIn(text)
  if (!when) return
  const times = readWhen(when, place)
  if (!said?.quoted || said.open || said.text.trim() === '' || more)
    throw new EntryProblem(`Write when and what in quotes: ${kind} 1 "…".`, {
      at: (more ?? said ?? when).at,
      end: (more ?? said ?? when).end,
    })
  for (const { at, length } of times) phrase.remarks.push({ kind, at, length, text: said.text })
}

const PASS = /^([\p{L}\p{N}-]+?)(~)?(?:\*(\d{1,3}))?$/u

type Order = { readonly phrase: string; readonly mirrored: boolean }[]

function readOrder(
  lines: readonly SheetLine[],
  phrases: readonly DraftPhrase[],
  messages: Messages,
  unread: Unread[],
): Order {
  const names = new Map(phrases.map((phrase) => [phrase.name, phrase.counts]))
  const order: Order = []
  let counts = 0
  for (const { body } of lines)
    for (const token of tokensIn(body.text)) {
      if (token.text === ',') continue
      const [, name = '', mirrored = '', times = '1'] = PASS.exec(token.text) ?? []
      /** What can't be danced stays in the line as it was typed. */
      const keep = (text: string, said: string) => {
        messages.add(said, offsetIn(body, token.at), offsetIn(body, token.end - 1) + 1)
        unread.push({ line: 'order', text })
      }
      const own = names.get(name)
      if (own === undefined || token.quoted) {
        const near = nearest(token.text, [...names.keys()])
        const typed = token.quoted ? quoted(token.text) : token.text
        keep(
          typed,
          `There is no phrase “${token.text}”. ${near.length > 0 ? `Did you mean ${near.join(', ')}?` : `Write names such as ${[...names.keys()].slice(0, 3).join(', ')}, B*2 or B~.`}`,
        )
        continue
      }
      const fit = Math.min(Number(times), Math.floor((MOST_COUNTS - counts) / own))
      for (let i = 0; i < fit; i++) order.push({ phrase: name, mirrored: mirrored !== '' })
      counts += fit * own
      if (fit < Number(times))
        keep(
          `${name}${mirrored}*${Number(times) - fit}`,
          `That makes more than ${MOST_COUNTS} counts. Dance some phrases less often.`,
        )
    }
  if (order.length > 0) return order
  let sum = 0
  const once: Order = []
  for (const { name, counts: own } of phrases) {
    sum += own
    if (sum > MOST_COUNTS) break
    once.push({ phrase: name, mirrored: false })
  }
  return once
}

/** The pickup that is written, or as long a one as the events before count 1 need. */
function pickupFor(
  { pickup }: Header,
  phrases: readonly DraftPhrase[],
  order: Order,
  messages: Messages,
  unread: Unread[],
): Combination['pickup'] {
  const first = phrases.find(({ name }) => name === order[0]?.phrase)
  const ticks = [
    ...(first?.events ?? []).map(({ event }) => event.at),
    ...(first?.remarks ?? []).map(({ at }) => at),
  ]
  const needed = Math.ceil(-Math.min(0, ...ticks) / TICKS_PER_COUNT)
  const most = first?.counts ?? 1
  if (pickup && pickup.counts > most) {
    messages.add(
      `The first phrase has ${most} counts, so the pickup has ${most} at the most.`,
      0,
      1,
    )
    unread.push({ text: `pickup ${pickup.counts}${pickup.each ? ' each' : ''}` })
    return needed > 0 ? { counts: needed, each: pickup.each } : undefined
  }
  if (!pickup && needed === 0) return undefined
  return { counts: Math.max(needed, pickup?.counts ?? 0), each: pickup?.each ?? false }
}

/** Whether the line a comment stands before will be written again. */
function isPrinted({ before }: Comment, header: Header, good: ReadonlySet<string>): boolean {
  if (before === undefined || ['title', 'tempo', 'lead', 'start', 'order'].includes(before))
    return true
  if (before === 'counts' || !good.has(before)) return false
  if (before === 'family') return (header.families?.length ?? 0) > 0
  return before in { song: header.song, by: header.by, tags: header.tags }
    ? header[before as 'song'] !== undefined
    : true
}

interface Parts {
  readonly lead: Side
  readonly start: Start
  readonly phrases: readonly DraftPhrase[]
  readonly order: Order
  readonly pickup: Combination['pickup']
  readonly unread: readonly Unread[]
}

function build(
  header: Header,
  { lead, start, phrases, order, pickup, unread }: Parts,
  { comments }: { readonly comments: readonly Comment[] },
): Combination {
  const tempo = header.tempo ?? 96
  const moves = ownMoves(header)
  return {
    kind: 'combination',
    schemaVersion: SCHEMA_VERSION,
    id: 'sheet',
    title: header.title ?? '',
    families: header.families ?? [],
    tempo,
    // Two thirds of the tempo is what most teach at.
    teachTempo: header.teachTempo ?? clampTempo((tempo * 2) / 3),
    lead,
    start,
    phrases: phrases.map((phrase) => builtPhrase(phrase, phrase.name === order[0]?.phrase)),
    order,
    ...(pickup && { pickup }),
    ...(header.level && { level: header.level }),
    ...(header.rest !== undefined && { rest: header.rest }),
    ...(header.keepTurns && { keepTurns: true as const }),
    ...(header.song && { song: header.song }),
    ...(header.by && { by: header.by }),
    ...(header.tags && { tags: header.tags }),
    ...(moves.length > 0 && { moves }),
    ...(comments.length > 0 && { comments }),
    ...(unread.length > 0 && { unread }),
  }
}

function builtPhrase(draft: DraftPhrase, first: boolean): Phrase {
  const { name, title, counts, comments, unread, facings } = draft
  // A pickup of a phrase that is not danced first was refused where it was read.
  const inside = <T extends { at: number }>(list: readonly T[]) =>
    first ? list : list.filter(({ at }) => at >= 0)
  const remarks = inside(draft.remarks).map(
    (remark, i): Remark => ({ ...remark, id: `${name}~${i}` }),
  )
  const words = new Set<string>([
    'phrase',
    ...draft.events.map(({ event }) => event.layer),
    ...remarks.map(({ kind }) => kind),
    ...unread.flatMap(({ line }) => line ?? []),
    ...(facings.length > 0 ? ['facing'] : []),
  ])
  const said = comments.map((comment) =>
    comment.before && !words.has(comment.before) ? { ...comment, before: 'phrase' } : comment,
  )
  return {
    id: name,
    name,
    title,
    counts,
    events: inside(draft.events.map(({ event }, i): Event => ({ ...event, id: `${name}:${i}` }))),
    ...(remarks.length > 0 && { remarks }),
    ...(facings.length > 0 && { facings: inside(facings) }),
    ...(said.length > 0 && { comments: said }),
    ...(unread.length > 0 && { unread }),
  }
}

/** Fills in the free feet, and gives every event its canonical id and its place in the text. */
function finished(
  written: Combination,
  drafts: readonly DraftPhrase[],
  vocabulary: Vocabulary,
  messages: Messages,
): SheetRead {
  const open = new Set<string>()
  const spots = new Map<string, { from: number; to: number }>()
  for (const { name, events } of drafts)
    for (const [i, draft] of events.entries()) {
      if (draft.open) open.add(`${name}:${i}`)
      spots.set(`${name}:${i}`, { from: draft.from, to: draft.to })
    }
  // Not parsed by the schema again, which would take a third of the time: that all that is
  // read here passes it is a law the tests hold.
  const settled = withFreeFeet(written, open, vocabulary)
  const plain = canonical(settled)
  const renamed = canonicalIds(settled)
  return {
    combination: plain,
    messages: messages.list.sort((a, b) => a.from - b.from),
    spots: [...spots].flatMap(([id, spot]) => {
      const event = renamed.get(id)
      return event ? [{ event, ...spot }] : []
    }),
  }
}
