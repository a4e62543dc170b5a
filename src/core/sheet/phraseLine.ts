import type { Pace } from '../combination/pace'
import { type Token, tokensIn } from '../entry/tokens'
import { MOST_PHRASE_COUNTS } from '../time/time'
import { type DraftPhrase, emptyPhrase, type Messages, type TypedLike } from './draft'
import type { Header } from './header'
import { offsetIn, type SheetLine } from './lines'

/** What the line that begins a phrase says of it. */
interface Said {
  title: string
  counts: number | undefined
  from: number | undefined
  pickup: number | undefined
  like: TypedLike | undefined
}

type Say = (text: string, token?: Token) => void

/** Some counts of another phrase: `1-4`. */
const RANGE = /^\d{1,2}[-‐‑‒–—−]\d{1,2}$/
const PACES: ReadonlyMap<string, Pace> = new Map([
  ['double', 2],
  ['half', 0.5],
])

/** The line that begins a phrase. A name that is taken or missing is replaced by a free one. */
export function readPhraseLine(
  line: SheetLine,
  header: Header,
  before: readonly DraftPhrase[],
  messages: Messages,
): DraftPhrase {
  const tokens = tokensIn(line.body.text)
  const [first] = tokens
  const say: Say = (text, token = first) =>
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
  const said: Said = {
    title: '',
    counts: undefined,
    from: undefined,
    pickup: undefined,
    like: undefined,
  }
  const words = tokens.slice(name ? 1 : 0)
  for (let i = 0; i < words.length; ) i += readWord(words, i, said, say, name)
  const counts = said.counts ?? header.counts ?? 8
  return emptyPhrase(freeName(name, before), {
    ...said,
    counts,
    line: { from: line.from, to: line.from + 'phrase'.length },
    typedLike: said.like && { ...said.like, isAsLong: said.counts === undefined },
  })
}

/** Reads the word at a place of the line. @returns how many words it took */
function readWord(words: readonly Token[], i: number, said: Said, say: Say, name: string): number {
  const token = words[i] as Token
  const { text, quoted } = token
  if (quoted) {
    said.title = text.replace(/\s*\n\s*/g, ' ')
    return 1
  }
  switch (text) {
    case 'from': {
      const first = countIn(words[i + 1])
      if (first === undefined) say('Write the number of its first count: phrase A 4 from 5.', token)
      said.from = first === 1 ? undefined : first
      return 2
    }
    case 'pickup':
      said.pickup = countIn(words[i + 1])
      if (said.pickup === undefined)
        say('Write how many counts lead into it: phrase B 8 pickup 1.', token)
      return 2
    case 'like': {
      const of = words[i + 1]
      if (!of || of.quoted) say('Write which phrase it is like: phrase B like A 8.', token)
      else said.like = { of, counts: undefined, pace: undefined, isAsLong: false }
      return 2
    }
  }
  const pace = PACES.get(text)
  const counts = countIn(token)
  if (said.like && RANGE.test(text)) said.like = { ...said.like, counts: token }
  else if (said.like && pace) said.like = { ...said.like, pace }
  else if (counts !== undefined) said.counts = counts
  else if (/^\d+$/.test(text)) say(`A phrase has 1 to ${MOST_PHRASE_COUNTS} counts.`, token)
  else if (i > 0 || name)
    say(`“${text}” is not known here. Write phrase ${name || 'A'} "title" 8.`, token)
  return 1
}

function countIn(token: Token | undefined): number | undefined {
  const number = Number(token?.quoted ? '' : token?.text)
  return Number.isInteger(number) && number >= 1 && number <= MOST_PHRASE_COUNTS
    ? number
    : undefined
}

function freeName(wanted: string, before: readonly DraftPhrase[]): string {
  const taken = new Set(before.map(({ name }) => name))
  if (wanted && !taken.has(wanted)) return wanted
  for (let i = wanted ? 2 : 1; ; i++) {
    const name = wanted ? `${wanted}-${i}` : `P${i}`
    if (!taken.has(name)) return name
  }
}
