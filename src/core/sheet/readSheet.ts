import type { Side } from '../body/side'
import type { Between } from '../combination/between'
import type { Prop, PropAct } from '../combination/carried'
import {
  type Combination,
  type Comment,
  type Event,
  MOST_PHRASES,
  type Option,
  type Phrase,
  SCHEMA_VERSION,
  type Unread,
} from '../combination/combination'
import { hasOption } from '../combination/options'
import type { Part } from '../combination/part'
import type { Remark } from '../combination/remark'
import { defaultStart, type Start } from '../combination/start'
import { nearest } from '../entry/names'
import { UserError } from '../errors'
import { shippedFor, type Vocabulary, withOwn } from '../moves/vocabulary'
import { canonical, canonicalIds } from './canonical'
import { type DraftOption, type DraftPhrase, emptyPhrase, Messages } from './draft'
import { fillLikes, settleLikes } from './draftLike'
import { type Header, readHeaderInto } from './header'
import type { KeepPart } from './lineParts'
import {
  type HeaderWord,
  isHeaderWord,
  LINE_WORDS,
  linesIn,
  offsetIn,
  type PhraseWord,
  type Placed,
  type SheetLine,
  type SheetMessage,
} from './lines'
import { leadOfTyped, standingApart } from './partLine'
import { readPhraseLine } from './phraseLine'
import { carryText } from './propLine'
import { readLayerLine, sayWithinFree } from './readLines'
import { type Order, pickupFor, readOrder } from './readOrder'
import { feetOfParts } from './resolve'
import { readStartInto } from './startLine'
import { SHEET_VERSION } from './version'
import { noPart } from './whose'

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
      'Nothing was changed. A count sheet has 256 counts at the most.',
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
  const firstPhrase = lines.findIndex(({ word }) => word === 'phrase')
  /** What is called is said before the phrases for all of them, and in one for it alone. */
  const headerWordOf = ({ word }: SheetLine, i: number): HeaderWord | undefined =>
    word && isHeaderWord(word) && (word !== 'call' || firstPhrase < 0 || i < firstPhrase)
      ? word
      : undefined
  const orderLines: SheetLine[] = []
  const startLines: SheetLine[] = []
  const partLines: SheetLine[] = []
  const keepPart =
    (line: SheetLine): KeepPart =>
    (problem, part) => {
      messages.problem(problem, line.body)
      unread.push({ text: `${line.word} ${part}` })
    }
  for (const [i, line] of lines.entries()) {
    const word = headerWordOf(line, i)
    if (!word) continue
    if (word === 'order') {
      orderLines.push(line)
      continue
    }
    try {
      readHeaderInto(header, word, line.body.text, keepPart(line))
      if (word === 'start') startLines.push(line)
      if (word === 'part') partLines.push(line)
    } catch (problem) {
      messages.problem(problem, line.body)
      keepLine(unread, line)
    }
  }
  const lead: Side = header.lead ?? 'R'
  const start = { ...defaultStart(lead) }
  for (const line of startLines) readStartInto(start, line.body.text, keepPart(line))
  const parts = partsOf(header, lead, { unread, messages, lines: partLines })
  const carried = carriedOf(header, parts, {
    unread,
    messages,
    lines: lines.filter((line, i) => headerWordOf(line, i) === 'carry'),
  })
  const swapLine = lines.find(({ word }) => word === 'swap')
  if (header.swapRoles && parts.length !== 2 && swapLine) {
    messages.add('Roles are swapped by exactly two parts.', swapLine.from, swapLine.from + 4)
    keepLine(unread, swapLine)
  }
  const vocabulary = withOwn(base, ownMoves(header))

  const phrases: DraftPhrase[] = []
  const drafts = new Map<SheetLine, DraftPhrase>()
  const phraseLines = lines.filter(({ word }) => word === 'phrase')
  if (phraseLines.length > MOST_PHRASES)
    throw new UserError(
      `This sheet has ${phraseLines.length} phrases; a combination has ${MOST_PHRASES} at the most.`,
      'Nothing was changed. Write it as several combinations.',
    )
  for (const line of phraseLines) {
    const made = readPhraseLine(line, header, phrases, messages)
    drafts.set(line, made)
    phrases.push(made)
  }
  if (phrases.length === 0) {
    phrases.push(emptyPhrase('A', { counts: header.counts ?? 8 }))
    messages.add(
      'There is no phrase yet. Write “phrase A 8”, and its lines under it.',
      text.length,
      text.length + 1,
    )
  }
  settleLikes(phrases, messages)
  let phrase: DraftPhrase | undefined
  for (const [i, line] of lines.entries()) {
    const headerWord = headerWordOf(line, i)
    const said = (word: string | undefined, into: Comment[]) => {
      for (const comment of line.comments)
        into.push({ ...(word && { before: word }), text: comment })
    }
    const made = drafts.get(line)
    if (made) {
      phrase = made
      said('phrase', made.comments)
    } else if (headerWord) {
      said(headerWord, comments)
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
        lead,
        vocabulary,
        messages,
        parts,
        carried,
      })
    }
  }
  fillLikes(phrases, builtPhrase, { moves: header.moves }, messages)
  for (const one of phrases) sayWithinFree(one, messages)
  const order = readOrder(orderLines, phrases, messages, unread, (name, option) => {
    const draft = phrases.find((one) => one.name === name)
    return (
      draft !== undefined &&
      hasOption(builtPhrase(draft), option, shippedFor({ moves: header.moves }))
    )
  })
  for (const comment of lastComments) comments.push({ text: comment })
  const pickup = pickupFor(header, phrases, order, messages, unread)
  const written = build(header, {
    lead,
    start,
    parts,
    carried,
    phrases,
    order,
    pickup,
    unread,
    comments,
  })
  return finished(written, phrases, vocabulary, messages)
}

interface PartsRead {
  readonly unread: Unread[]
  readonly messages: Messages
  /** The lines of the parts, in their order. */
  readonly lines: readonly SheetLine[]
}

/** The parts, each with her own start; one alone is none. */
function partsOf(
  { parts: typed = [] }: Header,
  lead: Side,
  { unread, messages, lines }: PartsRead,
): readonly Part[] {
  if (typed.length === 1) {
    const [line] = lines
    messages.add(
      'One part alone is no part. Write a second one: part @2 "Name" at R 0.5.',
      line?.from ?? 0,
      (line?.from ?? 0) + 'part'.length,
    )
    if (line) unread.push({ text: `part ${asTyped(line.body)}` })
    return []
  }
  return typed.map(({ part, start: said }, i): Part => {
    const at = part.at ?? standingApart(i, typed.length)
    if (!said) return { ...part, at }
    const start = { ...defaultStart(leadOfTyped(part, lead)) }
    const body = lines[i]?.body
    readStartInto(start, said.text, (problem, words) => {
      if (body)
        messages.add(
          problem.message,
          offsetIn(body, said.at + problem.at),
          offsetIn(body, said.at + Math.max(problem.at, problem.end - 1)) + 1,
        )
      unread.push({ text: `part @${part.id} start ${words}` })
    })
    return { ...part, at, start }
  })
}

/** What is carried, each by a part that there is. */
function carriedOf(
  { carried = [] }: Header,
  parts: readonly Part[],
  { unread, messages, lines }: PartsRead,
): readonly Prop[] {
  return carried.filter((prop) => {
    if (prop.part === undefined || parts.some(({ id }) => id === prop.part)) return true
    const line = lines.find(({ body }) => body.text.startsWith(`@${prop.part}`))
    messages.add(noPart(prop.part, parts), line?.from ?? 0, (line?.from ?? 0) + 'carry'.length)
    unread.push({ text: `carry ${line ? asTyped(line.body) : carryText(prop)}` })
    return false
  })
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
      'Nothing was changed. Write “sway 1” as its first line.',
    )
  if (Number(version) > SHEET_VERSION)
    throw new UserError(
      `This sheet was written by a newer version of Molten Sway (sway ${version}).`,
      'Nothing was changed. Update this one, or save the sheet there without what is new.',
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

interface Parts {
  readonly lead: Side
  readonly start: Start
  readonly parts: readonly Part[]
  readonly carried: readonly Prop[]
  readonly phrases: readonly DraftPhrase[]
  readonly order: Order
  readonly pickup: Combination['pickup']
  readonly unread: readonly Unread[]
  readonly comments: readonly Comment[]
}

function build(
  header: Header,
  { lead, start, parts, carried, phrases, order, pickup, unread, comments }: Parts,
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
    ...(header.teachTempo !== undefined && { teachTempo: header.teachTempo }),
    lead,
    start,
    ...(parts.length > 0 && { parts }),
    ...(carried.length > 0 && { carried }),
    ...(header.swapRoles && parts.length === 2 && { swapRoles: true as const }),
    phrases: phrases.map(builtPhrase),
    order,
    ...(pickup && { pickup }),
    ...(header.level && { level: header.level }),
    ...(header.rest !== undefined && { rest: header.rest }),
    ...(header.keepTurns && { keepTurns: true as const }),
    ...(header.once && { once: true as const }),
    ...(header.call && { call: header.call }),
    ...(header.rules && { rules: header.rules }),
    ...(header.song && { song: header.song }),
    ...(header.by && { by: header.by }),
    ...(header.tags && { tags: header.tags }),
    ...(header.variantOf && { variantOf: header.variantOf }),
    ...(header.leave && { leave: header.leave }),
    ...(moves.length > 0 && { moves }),
    ...(comments.length > 0 && { comments }),
    ...(unread.length > 0 && { unread }),
  }
}

function builtPhrase(draft: DraftPhrase): Phrase {
  const { name, title, counts, from, pickup, like, call, comments, unread, facings, options } =
    draft
  const remarks = draft.remarks.map((remark, i): Remark => ({ ...remark, id: `${name}~${i}` }))
  const between = draft.between.map((one, i): Between => ({ ...one, id: `${name}^${i}` }))
  const props = draft.props.map((one, i): PropAct => ({ ...one, id: `${name}*${i}` }))
  return {
    id: name,
    name,
    title,
    counts,
    ...(from !== undefined && { from }),
    ...(pickup !== undefined && { pickup: Math.min(pickup, counts) }),
    ...(like && { like }),
    ...(call && { call }),
    events: draft.events.map(({ event }, i): Event => ({ ...event, id: `${name}:${i}` })),
    ...(remarks.length > 0 && { remarks }),
    ...(draft.voices.length > 0 && { voices: draft.voices }),
    ...(between.length > 0 && { between }),
    ...(props.length > 0 && { props }),
    ...(facings.length > 0 && { facings }),
    ...(options.length > 0 && { options: options.map((option) => builtOption(option, name)) }),
    ...(comments.length > 0 && { comments }),
    ...(unread.length > 0 && { unread }),
  }
}

const builtOption = ({ events, without, ...option }: DraftOption, phrase: string): Option => ({
  ...option,
  events: events.map(({ event }, i): Event => ({ ...event, id: `${phrase}:${option.name}:${i}` })),
  ...(without.length > 0 && { without }),
})

/** Fills in the free feet, and gives every event its canonical id and its place in the text. */
function finished(
  written: Combination,
  drafts: readonly DraftPhrase[],
  vocabulary: Vocabulary,
  messages: Messages,
): SheetRead {
  const open = new Set<string>()
  const copies = new Map<string, { readonly id: string; readonly mirrored: boolean }>()
  const spots = new Map<string, { from: number; to: number }>()
  const openOptions = new Map<string, Set<string>>()
  for (const { name, events, options } of drafts) {
    for (const option of options)
      for (const [i, draft] of option.events.entries()) {
        const id = `${name}:${option.name}:${i}`
        spots.set(id, { from: draft.from, to: draft.to })
        if (draft.open) openOptions.set(name, (openOptions.get(name) ?? new Set()).add(id))
      }
    for (const [i, draft] of events.entries()) {
      if (draft.open) open.add(`${name}:${i}`)
      if (draft.copyOf) copies.set(`${name}:${i}`, draft.copyOf)
      spots.set(`${name}:${i}`, { from: draft.from, to: draft.to })
    }
  }
  // Not parsed by the schema again, which would take a third of the time: that all that is
  // read here passes it is a law the tests hold.
  const withFeet = feetOfParts(written, { open, copies, options: openOptions }, vocabulary)
  const plain = canonical(withFeet)
  const renamed = canonicalIds(withFeet)
  return {
    combination: plain,
    messages: messages.list.sort((a, b) => a.from - b.from),
    spots: [...spots].flatMap(([id, spot]) => {
      const event = renamed.get(id)
      return event ? [{ event, ...spot }] : []
    }),
  }
}
