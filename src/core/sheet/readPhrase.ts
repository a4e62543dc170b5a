import type { Side } from '../body/side'
import { MOST_PHRASE_COUNTS } from '../combination/combination'
import { LAYERS, type Layer } from '../moves/move'
import type { Vocabulary } from '../moves/vocabulary'
import { type DraftPhrase, emptyPhrase, type Messages } from './draft'
import { readEntry } from './entry'
import type { Header } from './header'
import { entriesIn, offsetIn, type PhraseWord, type SheetLine, tokensIn } from './lines'
import { EntryProblem } from './reader'
import { readWhen } from './when'

/** The line that begins a phrase. A name that is taken or missing is replaced by a free one. */
export function readPhrase(
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

/** A line of a phrase, entry by entry; what can't be read is kept in the phrase as `unread`. */
export function readLayerLine(
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
