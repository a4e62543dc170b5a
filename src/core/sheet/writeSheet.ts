import { LAYERS, type Layer } from '../body/layers'
import type { Prop } from '../combination/carried'
import type { Combination, Comment, Event, Phrase } from '../combination/combination'
import { lineOf, ownOf } from '../combination/like'
import { loopIndex } from '../combination/loop'
import type { Part } from '../combination/part'
import type { RemarkKind } from '../combination/remark'
import { ruleText } from '../combination/rules'
import { defaultStart, type Start } from '../combination/start'
import { SOLO, type Who } from '../combination/whose'
import { quoted } from '../entry/tokens'
import type { OwnMove } from '../moves/move'
import { type Vocabulary, vocabularyFor } from '../moves/vocabulary'
import { labelIn, labelOfSpan, type Numbering } from '../time/time'
import { gazeText } from '../what/look'
import { betweenText } from './betweenLine'
import { canonical, isFreeCounts, tickOfUnread } from './canonical'
import { countCallsText } from './countCalls'
import { likeText } from './draftLike'
import { dancedText, entryText, leaveText, whenText } from './entryText'
import { type LineWord, leavesQuoteOpen } from './lines'
import { partText } from './partLine'
import { actText, carryText } from './propLine'
import { sheetVersionOf } from './version'
import { voiceText } from './voiceLine'
import { whoText } from './whose'

const WIDE = 100

/**
 * Writes a combination as a count sheet. Reading it gives the same combination in its
 * canonical form. Where its moves stand elsewhere it is bare: an empty line holds the place of
 * comments whose line has nothing in it.
 * @param of the combination a bare one was made from, in its canonical form
 */
export function writeSheet(combination: Combination, base: Vocabulary, of?: Combination): string {
  const isBare = of !== undefined
  const vocabulary = vocabularyFor(combination, base)
  // What is bare was made of one that is plain, and has its comments where the moves stood.
  const plain = isBare ? combination : canonical(combination)
  const blocks = [
    headerLines(plain),
    ...plain.phrases.map((phrase, i) => {
      const written = of?.phrases[i] ?? phrase
      const own = ownOf(written, of ?? plain)
      const source = plain.phrases.find(({ id }) => id === phrase.like?.phrase)
      const { parts = [], carried = [] } = plain
      return phraseLines({ phrase, own, source, parts, carried }, vocabulary, isBare)
    }),
    orderLines(plain),
  ]
  return `${blocks.map((lines) => lines.join('\n')).join('\n\n')}\n`
}

/** Lines with the comments that stand before each; what has no line of its own comes last. */
class Lines {
  readonly lines: string[] = []
  readonly #comments: readonly Comment[]
  readonly #indent: string
  constructor(comments: readonly Comment[] = [], indent = '') {
    this.#comments = comments
    this.#indent = indent
  }
  add(word: LineWord, text: string | undefined): void {
    if (text === undefined) return
    this.comments(word)
    this.lines.push(text)
  }
  comments(before: string | undefined): void {
    for (const comment of this.#comments)
      if (comment.before === before)
        this.lines.push(`${this.#indent}#${comment.text ? ` ${comment.text}` : ''}`)
  }
}

const header = (word: string, text: string): string => `${word.padEnd(8)}${text}`.trimEnd()

/** A text that is written to the end of its line; in quotes where it would be read otherwise. */
const plainText = (text: string): string =>
  text === '' || /[#";\\\n\r]|^\s|\s$/.test(text) ? quoted(text) : text

function headerLines(combination: Combination): readonly string[] {
  const { title, families, tempo, teachTempo, lead, start, pickup, level, comments } = combination
  const out = new Lines(comments)
  out.lines.push(`sway ${sheetVersionOf(combination)}`)
  out.add('title', header('title', plainText(title)))
  out.add('family', families.length > 0 ? header('family', families.join(', ')) : undefined)
  out.add(
    'tempo',
    header('tempo', teachTempo === undefined ? `${tempo}` : `${tempo}, teach ${teachTempo}`),
  )
  out.add('lead', header('lead', lead))
  out.add('start', header('start', startText(start, defaultStart(lead))))
  for (const part of combination.parts ?? []) {
    if (part === combination.parts?.[0]) out.comments('part')
    out.lines.push(header('part', partText(part, lead, startText)))
  }
  for (const prop of combination.carried ?? []) {
    if (prop === combination.carried?.[0]) out.comments('carry')
    out.lines.push(header('carry', carryText(prop)))
  }
  out.add('swap', combination.swapRoles && header('swap', 'roles'))
  out.add('pickup', pickup && header('pickup', `${pickup.counts}${pickup.each ? ' each' : ''}`))
  out.add('level', level && header('level', level))
  out.add('keep', combination.keepTurns && header('keep', 'turns'))
  out.add('once', combination.once && 'once')
  out.add('call', combination.call && header('call', countCallsText(combination.call)))
  for (const rule of combination.rules ?? []) {
    if (rule === combination.rules?.[0]) out.comments('rule')
    out.lines.push(header('rule', ruleText(rule)))
  }
  out.add('song', combination.song && header('song', plainText(combination.song)))
  out.add('by', combination.by && header('by', plainText(combination.by)))
  out.add('tags', combination.tags && header('tags', combination.tags.map(tagText).join(', ')))
  out.add('variant', combination.variantOf && header('variant', quoted(combination.variantOf)))
  for (const left of combination.leave ?? []) {
    if (left === combination.leave?.[0]) out.comments('leave')
    out.lines.push(leaveText(left).replace('leave ', 'leave   '))
  }
  for (const move of combination.moves ?? []) {
    if (move === combination.moves?.[0]) out.comments('move')
    out.lines.push(header('move', ownMoveText(move)))
  }
  for (const { line, text } of combination.unread ?? []) if (!line) out.lines.push(text)
  return out.lines
}

const tagText = (tag: string): string => (/[,#";\\\n]|^\s|\s$/.test(tag) ? quoted(tag) : tag)

function startText(start: Start, usual: Start): string {
  const { weight, arms, hips, ribs, level, gaze, partner, facing } = start
  const both = arms.R === arms.L ? arms.R : `R ${arms.R}, L ${arms.L}`
  return [
    `weight ${weight}`,
    `arms ${both}`,
    hips !== usual.hips && `hips ${hips}`,
    ribs !== usual.ribs && `ribs ${ribs}`,
    level !== usual.level && `level ${level}`,
    gaze !== usual.gaze && `gaze ${gazeText(gaze)}`,
    partner && `partner ${partner}`,
    `facing ${facing}`,
  ]
    .filter(Boolean)
    .join(', ')
}

function ownMoveText(move: OwnMove): string {
  const { id, name, layer, kind, pattern, motion, counts, sided, claims } = move
  return [
    id,
    quoted(name),
    layer,
    kind,
    `counts ${counts}`,
    `sided ${sided}`,
    `claims ${claims.join('|')}`,
    move.to && `to ${move.to}`,
    move.demand && `demand ${move.demand}`,
    move.from && `from ${move.from}`,
    move.fastest && `fastest ${move.fastest}`,
    move.needs && `needs ${move.needs.join('|')}`,
    move.risk && `risk ${move.risk.join('|')}`,
    move.easier && `easier ${move.easier}`,
    move.harder && `harder ${move.harder}`,
    move.cue && `cue ${quoted(move.cue)}`,
    move.aka && `aka ${quoted(move.aka.join('|'))}`,
    move.families && `families ${move.families.join('|')}`,
    pattern && `pattern ${quoted(pattern)}`,
    motion && `motion ${quoted(motion)}`,
    move.feel && `feel ${quoted(move.feel)}`,
    move.care && `care ${quoted(move.care)}`,
  ]
    .filter(Boolean)
    .join(' ')
}

/** An entry of a line, and when it is. */
interface Entry {
  readonly at: number
  readonly text: string
  /** Who it is for, where not for all. */
  readonly who?: Who | undefined
}

/** A phrase to be written: of one that is like another only what is its own. */
interface Wanted {
  readonly phrase: Phrase
  readonly own: ReturnType<typeof ownOf>
  readonly source: Phrase | undefined
  readonly carried: readonly Prop[]
  readonly parts: readonly Part[]
}

function phraseLines(
  { phrase, own, source, parts, carried }: Wanted,
  vocabulary: Vocabulary,
  isBare: boolean,
): readonly string[] {
  const { name, title, counts, facings = [], comments, unread = [], like } = phrase
  const { isOwn = () => true, leftOut = [] } = own ?? {}
  const events = phrase.events.filter(isOwn)
  const remarks = (phrase.remarks ?? []).filter(isOwn)
  const nothingAt = (line: Layer | RemarkKind | 'between'): readonly Entry[] =>
    leftOut
      .filter((one) => lineOf(one) === line)
      .map(({ at }) => ({ at, text: `${labelIn(phrase)(at)} none` }))
  const out = new Lines(comments, '  ')
  const lines = new Lines(comments)
  lines.comments('phrase')
  out.lines.push(...lines.lines)
  out.lines.push(
    `phrase ${name}${title ? ` ${quoted(title)}` : ''}${like && source ? ` ${likeText(like, source)}` : ''} ${counts}${numberingText(phrase)}`,
  )
  /** What was not read stands where its count is, behind what was read there. */
  const line = (word: LineWord, entries: readonly Entry[]) => {
    const strange = unread
      .filter((one) => one.line === word)
      .map((one) => ({ at: tickOfUnread(one, phrase), text: one.text }))
    const all = [...entries, ...strange].sort((a, b) => (a.at === b.at ? 0 : a.at - b.at))
    const isEmpty = all.length === 0 && isBare && comments?.some(({ before }) => before === word)
    if (all.length > 0) out.add(word, linesFor(word, all, parts).join('\n'))
    else if (isEmpty) out.add(word, `  ${word}`)
  }
  const remarked = (kind: RemarkKind, others: readonly Entry[] = []) =>
    line(kind, [
      ...nothingAt(kind),
      ...others,
      ...remarks
        .filter((remark) => remark.kind === kind)
        .map((remark) => ({
          at: remark.at,
          who: remark.who,
          text: [
            labelOfSpan(remark, labelIn(phrase)),
            remark.hand,
            kind === 'breath' ? remark.text : remark.text && quoted(remark.text),
            remark.for !== undefined && `for ${labelIn(phrase)(remark.for)}`,
            remark.kept && '!keep',
            remark.only && 'only',
          ]
            .filter(Boolean)
            .join(' '),
        })),
    ])
  line(
    'call',
    phrase.call ? [{ at: Number.NEGATIVE_INFINITY, text: countCallsText(phrase.call) }] : [],
  )
  const { options = [] } = phrase
  if (options.length > 0)
    out.add(
      'option',
      options
        .map(({ name, kind, words }) => `  option ${name} ${kind} ${quoted(words)}`)
        .join('\n'),
    )
  /** What the options say of a layer, behind all that is plain there: by option, then by time. */
  const ofOptions = (layer: Layer, isFree: boolean): readonly Entry[] =>
    options.flatMap(({ name, events: own, without = [] }) =>
      [
        ...own
          .filter((event) => event.layer === layer && isFreeCounts(event) === isFree)
          .map((event) => ({
            at: event.at,
            who: event.who,
            text: isFree
              ? freeText(event, phrase, vocabulary)
              : entryText(event, phrase, vocabulary),
          })),
        ...without
          .filter((one) => one.layer === layer && !isFree)
          .map((one) => ({ at: one.at, who: undefined, text: `${whenText(one, phrase)} none` })),
      ]
        .sort((a, b) => a.at - b.at)
        .map(({ text, who }) => ({
          at: Number.POSITIVE_INFINITY,
          text: `[${name}] ${text}${who ? ` ${whoText(who)}` : ''}`,
        })),
    )
  line('free', [
    ...events.filter(isFreeCounts).map((event) => ({
      at: event.at,
      who: event.who,
      text: freeText(event, phrase, vocabulary),
    })),
    ...ofOptions('feet', true),
  ])
  remarked('pose')
  for (const layer of LAYERS)
    line(layer, [
      ...nothingAt(layer),
      ...events
        .filter((event) => event.layer === layer && !isFreeCounts(event))
        .map((event) => ({
          at: event.at,
          who: event.who,
          text: entryText(event, phrase, vocabulary),
        })),
      ...ofOptions(layer, false),
    ])
  line(
    'facing',
    facings.map(({ at, degrees, who }) => ({ at, who, text: `${labelIn(phrase)(at)} ${degrees}` })),
  )
  line(
    'voice',
    (phrase.voices ?? []).map((one) => ({ at: Number.NEGATIVE_INFINITY, text: voiceText(one) })),
  )
  line('between', [
    ...nothingAt('between'),
    ...(phrase.between ?? [])
      .filter(isOwn)
      .map((one) => ({ at: one.at, text: betweenText(one, phrase) })),
  ])
  remarked(
    'prop',
    (phrase.props ?? [])
      .filter(isOwn)
      .map((one) => ({ at: one.at, who: one.who, text: actText(one, phrase, carried) })),
  )
  for (const kind of ['say', 'words', 'breath', 'face', 'prepare', 'note'] as const) remarked(kind)
  out.comments(undefined)
  for (const { line: word, text } of unread) if (word === undefined) out.lines.push(text)
  return out.lines
}

const numberingText = ({ from, pickup }: Phrase): string =>
  `${from === undefined ? '' : ` from ${from}`}${pickup === undefined ? '' : ` pickup ${pickup}`}`

/** `5-8 "play with the tune"`, and what else is said of it. */
function freeText({ as, ...event }: Event, phrase: Numbering, vocabulary: Vocabulary): string {
  const [, more = ''] = /^free ?(.*)$/s.exec(dancedText(event, vocabulary, phrase)) ?? []
  const when = `${event.optional ? '~' : ''}${whenText(event, phrase)}`
  return [when, as && quoted(as), more].filter(Boolean).join(' ')
}

/** What all dance on a line of its own, and under it what some do, each with whose it is. */
function linesFor(
  word: string,
  entries: readonly Entry[],
  parts: readonly Part[],
): readonly string[] {
  const marks = ({ who }: Entry) => (who ? whoText(who) : '')
  const whose = new Map(entries.map((one) => [marks(one), one.who]))
  const place = (who: Who | undefined) =>
    who
      ? parts.findIndex(({ id }) => id === who[0]) + (who.includes(SOLO) ? parts.length : 0) + 1
      : 0
  return [...whose]
    .sort(([a, one], [b, other]) => place(one) - place(other) || (a < b ? -1 : 1))
    .map(([mark]) =>
      wrapped(
        mark ? `${word} ${mark}` : word,
        entries.filter((one) => marks(one) === mark).map(({ text }) => text),
      ),
    )
}

/** Entries after their word, broken into lines that can be read. */
function wrapped(word: string, entries: readonly string[]): string {
  const start = `  ${word.padEnd(7).padEnd(word.length + 1)}`
  const lines: string[] = []
  let now = start
  const breakLine = (next: string) => {
    lines.push(now.trimEnd())
    // A word at the start of a line would be read as the line's own: say that again instead.
    now = /^[a-z]/i.test(next) ? start : ' '.repeat(start.length)
  }
  for (const [i, entry] of entries.entries()) {
    // What was typed with a quote left open has a line to itself: the quote ends with it.
    const isOpen = leavesQuoteOpen(entry)
    const next = entries[i + 1]
    const piece = next !== undefined && !isOpen ? `${entry};` : entry
    const isFirst = now === start || now.trim() === ''
    if (!isFirst && (isOpen || now.length + piece.length + 1 > WIDE)) breakLine(entry)
    now += now === start || now.trim() === '' ? piece : ` ${piece}`
    if (isOpen && next !== undefined) breakLine(next)
  }
  return [...lines, now.trimEnd()].join('\n')
}

/** `[low+front]`: the options a phrase is danced with. */
const optionsText = (entry: Combination['order'][number] | undefined): string =>
  entry?.options ? `[${entry.options.join('+')}]` : ''

function orderLines({ order, rest, comments, unread = [] }: Combination): readonly string[] {
  const out = new Lines(comments)
  const words: string[] = []
  const loop = loopIndex({ order }) || order.length
  for (let i = 0; i < order.length; ) {
    const entry = order[i]
    let times = 1
    while (
      order[i + times]?.phrase === entry?.phrase &&
      !(i + times === loop) &&
      order[i + times]?.mirrored === entry?.mirrored &&
      optionsText(order[i + times]) === optionsText(entry)
    )
      times++
    if (i === loop) words.push('|')
    words.push(
      `${entry?.phrase}${entry?.mirrored ? '~' : ''}${times > 1 ? `*${times}` : ''}${optionsText(entry)}`,
    )
    i += times
  }
  const strange = unread.filter(({ line }) => line === 'order').map(({ text }) => text)
  out.add('order', header('order', [...words, ...strange].join(' ')))
  out.add('rest', rest === undefined ? undefined : header('rest', String(rest)))
  out.comments(undefined)
  return out.lines
}
