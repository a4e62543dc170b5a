import { isHalfDegrees } from '../body/facing'
import { LAYERS, type Layer } from '../body/layers'
import type { Side } from '../body/side'
import type { Prop } from '../combination/carried'
import { ANY_OPTIONS, MOST_EVENTS, OptionKind } from '../combination/combination'
import type { Part } from '../combination/part'
import type { Who } from '../combination/whose'
import { nearest } from '../entry/names'
import { type EntryPlace, EntryProblem, sideIn } from '../entry/reader'
import { type Token, tokensIn } from '../entry/tokens'
import type { Vocabulary } from '../moves/vocabulary'
import { endOf, type Tick } from '../time/time'
import { readBetween } from './betweenLine'
import { readCountCalls } from './countCalls'
import type { DraftEvent, DraftOption, DraftPhrase, Messages } from './draft'
import { readEntry, readFree, type WrittenEvent } from './entry'
import {
  entriesIn,
  offsetIn,
  PHRASE_WORDS,
  type PhraseWord,
  type Placed,
  type SheetLine,
  sliceOf,
} from './lines'
import { isPropText, readAct } from './propLine'
import { readVoice } from './voiceLine'
import { readWhen, type When } from './when'
import { marksOf, whoOfEntry, whoOfLine, whoText } from './whose'

interface LineContext {
  readonly parts: readonly Part[]
  readonly carried: readonly Prop[]
  readonly lead: Side
  readonly vocabulary: Vocabulary
  readonly messages: Messages
}

const isLayer = (word: string): word is Layer => LAYERS.includes(word as Layer)

/** A line of a phrase, entry by entry; what can't be read is kept in the phrase as `unread`. */
export function readLayerLine(
  word: PhraseWord,
  line: SheetLine,
  phrase: DraftPhrase,
  { messages, parts, carried, ...context }: LineContext,
): void {
  const { who: all, body, problem: strange } = forWhom(word, line.body, parts)
  if (strange) {
    messages.problem(strange, line.body)
    // Each entry keeps whom it is for, so that none is anybody's later.
    for (const { text } of entriesIn(body))
      phrase.unread.push({ line: word, text: `${text} ${marksOf(line.body.text)}` })
    return
  }
  const place = {
    ...context,
    counts: phrase.counts,
    from: phrase.from,
    layer: isLayer(word) ? word : 'feet',
  } as const
  for (const entry of entriesIn(body)) {
    const read = (said: string) => {
      const marked = MARKED.has(word) ? whoOfEntry(said, parts) : { who: undefined, text: said }
      const who = marked.who ?? all
      const typed = marked.text.trimEnd()
      const { option, text, shift } = optionOf(typed, word, phrase)
      if (option)
        shifted(shift, () => readInOption(text, { option, word, place, entry, phrase, who }))
      else if (word === 'option') phrase.options.push(readOption(text, phrase))
      else if (isLeftOut(text)) leaveOut(word, text, place, phrase)
      else if (word === 'between')
        phrase.between.push(...readBetween(text, { ...place, parts, carried }))
      else if (word === 'voice') phrase.voices.push(readVoice(text, parts, phrase.voices))
      else if (word === 'prop' && !isPropText(text))
        for (const act of readAct(text, { ...place, carried }))
          phrase.props.push({ ...act, ...(who && { who }) })
      else if (word === 'call') phrase.call = readCountCalls(text)
      else if (word === 'facing') readFacing(text, place, phrase, who)
      else if (word === 'free') placeAll(readFree(text, place), entry, phrase, phrase.events, who)
      else if (!isLayer(word)) readRemark(word, text, place, phrase, who)
      else placeAll(readEntry(text, place), entry, phrase, phrase.events, who)
    }
    const problem = problemOf(() => read(entry.text))
    if (!problem) continue
    // Of several counts only those are lost that are none; what is wrong with all of them is said once.
    const isWhole = word === 'call' || word === 'option' || word === 'voice'
    const each = (isWhole ? [] : eachCount(entry.text)).map((text) => ({
      text,
      wrong: problemOf(() => read(text)),
    }))
    const isSome = each.some(({ wrong }) => !wrong)
    messages.problem(problem, entry)
    for (const { text, wrong } of isSome ? each : [{ text: entry.text, wrong: problem }])
      if (wrong) phrase.unread.push({ line: word, text: all ? `${text} ${whoText(all)}` : text })
  }
}

/** Lines of which each entry may say at its end who it is for; of a meeting its parts stand in it. */
const MARKED: ReadonlySet<PhraseWord> = new Set(
  PHRASE_WORDS.filter((word) => !['call', 'option', 'between', 'voice'].includes(word)),
)

interface ForWhom {
  readonly who: Who | undefined
  readonly body: Placed
  readonly problem?: EntryProblem
}

/** Whom a whole line is for, and the rest of it. */
function forWhom(word: PhraseWord, body: Placed, parts: readonly Part[]): ForWhom {
  if (!MARKED.has(word)) return { who: undefined, body }
  try {
    const { who, text } = whoOfLine(body.text, parts)
    const from = text.length - text.trimStart().length
    return { who, body: who ? sliceOf(body, from, text.length) : body }
  } catch (problem) {
    if (!(problem instanceof EntryProblem)) throw problem
    const { length } = marksOf(body.text)
    return { who: undefined, body: sliceOf(body, length, body.text.length), problem }
  }
}

/** `[low] 1-4 half-circle-back R`: the option an entry belongs to, and the rest of it. */
function optionOf(
  typed: string,
  word: PhraseWord,
  phrase: DraftPhrase,
): { readonly option: DraftOption | undefined; readonly text: string; readonly shift: number } {
  const [mark = '', name] = /^\[\s*([^\]\s]*)\s*\]\s*/.exec(typed) ?? []
  if (name === undefined) return { option: undefined, text: typed, shift: 0 }
  const option = phrase.options.find((one) => one.name === name)
  const whole = { at: 0, end: mark.trimEnd().length }
  if (!isLayer(word) && word !== 'free')
    throw new EntryProblem('Only what is danced belongs to an option.', whole)
  if (!option) {
    const known = phrase.options.map((one) => one.name)
    const near = nearest(name, known)
    throw new EntryProblem(
      known.length === 0
        ? `Phrase ${phrase.name} has no option “${name}”. Write it before its layers: option ${name || 'low'} easier "back half only".`
        : `There is no option “${name}” here. Did you mean ${(near.length > 0 ? near : known).join(', ')}?`,
      whole,
    )
  }
  return { option, text: typed.slice(mark.length), shift: mark.length }
}

/** What is wrong with a text is said at its place in a longer one. */
function shifted(by: number, read: () => void): void {
  try {
    read()
  } catch (problem) {
    if (!(problem instanceof EntryProblem)) throw problem
    throw new EntryProblem(problem.message, { at: problem.at + by, end: problem.end + by })
  }
}

interface InOption {
  readonly word: PhraseWord
  readonly option: DraftOption
  readonly place: EntryPlace
  readonly entry: Placed
  readonly phrase: DraftPhrase
  readonly who: Who | undefined
}

/** Reads an entry of an option: what is danced, or `1-4 none`. */
function readInOption(text: string, { option, word, place, entry, phrase, who }: InOption): void {
  const [when] = tokensIn(text)
  if (!isLeftOut(text) || !when) {
    const written = word === 'free' ? readFree(text, place) : readEntry(text, place)
    placeAll(written, entry, phrase, option.events, who)
    return
  }
  for (const { at, length, single } of readWhen(when, place))
    option.without.push({ layer: place.layer, at, ...(!single && { length }) })
}

const KINDS = OptionKind.options

/** Reads `low easier "back half only"`. @throws EntryProblem */
function readOption(text: string, { options }: DraftPhrase): DraftOption {
  const [name, kind, words, more] = tokensIn(text)
  const known = OptionKind.safeParse(kind?.text).data
  if (!name || name.quoted || !known || !words?.quoted || words.open || !words.text.trim() || more)
    throw new EntryProblem(
      `Write its name, what it is (${KINDS.join(', ')}) and what the page says: option low easier "back half only".`,
      more ?? (known ? words : kind) ?? name ?? WHOLE,
    )
  if (!/^[\p{L}\p{N}-]+$/u.test(name.text))
    throw new EntryProblem('An option needs a name of letters and digits.', name)
  if (ANY_OPTIONS.some((one) => one === name.text))
    throw new EntryProblem(
      `Any phrase may be danced ${name.text}: give this one another name.`,
      name,
    )
  if (options.some((one) => one.name === name.text))
    throw new EntryProblem(`There is an option ${name.text} already.`, name)
  return { name: name.text, kind: known, words: words.text, events: [], without: [] }
}

const WHOLE = { at: 0, end: 1 }

/** `3 none`: nothing here of what the other phrase has. */
const isLeftOut = (text: string): boolean => /^~?\s*[^\s"]+\s+none$/.test(text)

/** @throws EntryProblem where nothing could stand there */
function leaveOut(word: PhraseWord, text: string, place: EntryPlace, phrase: DraftPhrase): void {
  const [when] = tokensIn(text)
  const isTimed = !['call', 'option', 'facing', 'voice'].includes(word)
  if (!phrase.typedLike || !isTimed || !when)
    throw new EntryProblem(
      '“none” leaves out what a phrase has from another one. This phrase is like no other.',
      { at: text.lastIndexOf('none'), end: text.length },
    )
  const line = word === 'free' ? 'feet' : word
  for (const { at, length, single } of readWhen(when, place))
    for (let one: number = at; one < at + (single ? 1 : length); one++)
      phrase.leftOut.add(`${line} ${one}`)
}

/** What is wrong with something that is read; undefined where nothing is. */
function problemOf(read: () => void): EntryProblem | undefined {
  try {
    read()
    return undefined
  } catch (problem) {
    if (problem instanceof EntryProblem) return problem
    throw problem
  }
}

/** `2,4,9 hip-drop R` as one entry for each of its counts; nothing for a single one. */
function eachCount(text: string): readonly string[] {
  const [whole = '', mark = '', counts = ''] =
    /^(~?\s*)([\d<][^\s"]*(?:\s*,\s*[\d<][^\s",]*)+)/.exec(text) ?? []
  const rest = text.slice(whole.length)
  return counts
    .split(',')
    .map((count) => `${mark}${count.trim()}${rest}`)
    .filter(() => whole !== '')
}

function placeAll(
  written: readonly WrittenEvent[],
  entry: Placed,
  phrase: DraftPhrase,
  into: DraftEvent[],
  who: Who | undefined,
): void {
  if (into.length + written.length > MOST_EVENTS)
    throw new EntryProblem(
      `Phrase ${phrase.name} has ${MOST_EVENTS} moves already, the most there can be. Write the rest in another phrase.`,
      { at: 0, end: entry.text.length },
    )
  const from = offsetIn(entry, 0)
  const to = offsetIn(entry, entry.text.length - 1) + 1
  for (const { event, open } of written)
    into.push({ event: { ...event, ...(who && { who }) }, open, from, to })
}

function readFacing(
  text: string,
  place: Parameters<typeof readWhen>[1],
  phrase: DraftPhrase,
  who: Who | undefined,
): void {
  const [when, facing, more] = tokensIn(text)
  const degrees = Number(facing?.text)
  if (!when || !facing || more || !isHalfDegrees(degrees) || Math.abs(degrees) > 36_000)
    throw new EntryProblem('Write when and how many degrees: facing 5 180.', {
      at: facing?.at ?? 0,
      end: facing?.end ?? text.length,
    })
  for (const { at } of readWhen(when, place))
    phrase.facings.push({ at, degrees, ...(who && { who }) })
}

function readRemark(
  kind: Exclude<PhraseWord, Layer | 'facing' | 'free' | 'call' | 'option' | 'between' | 'voice'>,
  text: string,
  place: Parameters<typeof readWhen>[1],
  phrase: DraftPhrase,
  who: Who | undefined,
): void {
  const [when, ...words] = tokensIn(text)
  if (!when) return
  const times = readWhen(when, place)
  if (kind === 'breath') {
    readBreath(times, words, when, phrase, who)
    return
  }
  const due = kind === 'prepare' ? readDue(words.splice(1), when, place) : undefined
  if (kind === 'pose' && words.length === 0) {
    for (const { at, length } of times)
      phrase.remarks.push({ kind, at, length, text: '', ...(who && { who }) })
    return
  }
  const isProp = kind === 'prop'
  const hand = isProp ? sideIn(words[0]) : undefined
  const kept = isProp && words.at(-1)?.text === '!keep' && words.length > 1
  const only = kind === 'say' && words.at(-1)?.text === 'only' && words.length > 1
  const [said, more] = words.slice(hand ? 1 : 0, kept || only ? -1 : undefined)
  if (!said?.quoted || said.open || said.text.trim() === '' || more)
    throw new EntryProblem(`Write when and what in quotes: ${kind} 1 "…".`, {
      at: (more ?? said ?? when).at,
      end: (more ?? said ?? when).end,
    })
  for (const { at, length } of times)
    phrase.remarks.push({
      kind,
      at,
      length,
      text: said.text,
      ...(who && { who }),
      ...(due !== undefined && { for: due }),
      ...(hand && { hand }),
      ...(kept && { kept }),
      ...(only && { only }),
    })
}

/** `1-4 in`: one breath at a time. */
function readBreath(
  times: readonly When[],
  [way, more]: readonly Token[],
  when: Token,
  { remarks }: DraftPhrase,
  who: Who | undefined,
): void {
  const text = way?.text.toLowerCase()
  if ((text !== 'in' && text !== 'out') || more)
    throw new EntryProblem('Write when and which way: breath 1-4 in; 5-8 out.', way ?? when)
  for (const { at, length } of times) {
    const isTaken = remarks.some(
      (one) =>
        one.kind === 'breath' &&
        one.who?.join() === who?.join() &&
        one.at < at + length &&
        at < endOf(one),
    )
    if (isTaken) throw new EntryProblem('Another breath is written there already.', when)
    remarks.push({ kind: 'breath', at, length, text, ...(who && { who }) })
  }
}

/** `for 7`: the count that one prepares for. */
function readDue(
  [word, count, ...more]: readonly Token[],
  when: Token,
  place: Parameters<typeof readWhen>[1],
): Tick {
  const [due] = word?.text === 'for' && count ? readWhen(count, place) : []
  if (!due?.single || more.length > 0)
    throw new EntryProblem(
      'Write what for, and when: prepare 3 "elbow inside" for 7.',
      word ?? when,
    )
  return due.at as Tick
}

/** Says what is written within free counts: it is kept, and judged as it stands. */
export function sayWithinFree({ name, events }: DraftPhrase, messages: Messages): void {
  const free = events.filter(
    ({ event: { layer, what } }) => layer === 'feet' && what.kind === 'free',
  )
  for (const { event, from, to } of events) {
    const { what, at } = event
    if (what.kind === 'free' || what.kind === 'stay') continue
    const isWithin = free.some(
      ({ event: one }) => at >= one.at && one.length !== undefined && at < one.at + one.length,
    )
    if (isWithin)
      messages.add(`These counts of ${name} are free: take this out, or make them fewer.`, from, to)
  }
}
