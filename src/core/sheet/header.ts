import { Side } from '../body/side'
import { MOST_PROPS, type Prop } from '../combination/carried'
import { DancerLevel } from '../combination/combination'
import type { Leave } from '../combination/leaving'
import { MOST_PARTS } from '../combination/part'
import type { CountCalls } from '../combination/remark'
import type { OwnRule } from '../combination/rules'
import { nearest } from '../entry/names'
import { leaveIn } from '../entry/options'
import { EntryProblem } from '../entry/reader'
import { type Token, tokensIn } from '../entry/tokens'
import { FAMILIES, Family, type OwnMove } from '../moves/move'
import { Tempo } from '../time/tempo'
import { readCountCalls } from './countCalls'
import { eachPart, type KeepPart, need, number, oneOf, whole } from './lineParts'
import type { HeaderWord } from './lines'
import { readOwnMove, readRule } from './ownMoveLine'
import { readPartLine, type TypedPart } from './partLine'
import { readCarry } from './propLine'

/** What the header lines of a sheet say, as far as they have been read. */
export interface Header {
  title?: string
  families?: Family[]
  tempo?: number
  teachTempo?: number
  lead?: Side
  /** Each start line as it was written: what it means hangs on the lead. */
  start?: string[]
  parts?: TypedPart[]
  carried?: Prop[]
  swapRoles?: true
  pickup?: { counts: number; each: boolean }
  level?: DancerLevel
  counts?: number
  rest?: number
  keepTurns?: true
  once?: true
  call?: CountCalls
  song?: string
  by?: string
  tags?: string[]
  variantOf?: string
  leave?: Leave[]
  moves?: OwnMove[]
  rules?: OwnRule[]
}

/** A family that is known, or an own word for one; what comes near a known one is taken for a slip. */
function familyOf(token: Token): Family {
  const own = Family.safeParse(token.text.toLowerCase())
  return own.success && !token.quoted && nearest(token.text, FAMILIES).length === 0
    ? own.data
    : oneOf(token, FAMILIES, 'family')
}

/** The rest of a line as it stands, or what is in its quotes. */
function lineText(text: string): string {
  const [first, ...more] = tokensIn(text)
  if (text.startsWith('"') && first?.quoted && more.length === 0) return first.text
  return text
}

/**
 * Reads one header line into what is known so far; of a line of several parts one that can't be
 * read is kept alone.
 * @throws EntryProblem that says what is wrong with it.
 */
export function readHeaderInto(
  header: Header,
  word: HeaderWord,
  text: string,
  keep: KeepPart,
): void {
  const tokens = tokensIn(text)
  const [first, second] = tokens
  switch (word) {
    case 'title':
      header.title = lineText(text)
      return
    case 'song':
    case 'by': {
      const said = lineText(text)
      if (said) header[word] = said
      return
    }
    case 'family': {
      const families = [...(header.families ?? [])]
      eachPart(text, keep, (tokens) => {
        for (const token of tokens) families.push(familyOf(token))
      })
      header.families = [...new Set(families)]
      return
    }
    case 'tempo': {
      header.tempo = Tempo.parse(number(first, text, 40, 220, 'A tempo'))
      const [said, value] = tokens.slice(1).filter((token) => token.text !== ',')
      if (!said) return
      // What stays as typed is the whole line: the rest of it alone might be another tempo.
      try {
        if (said.text !== 'teach') throw new EntryProblem('Write “tempo 96, teach 64”.', said)
        header.teachTempo = number(value, text, 40, 220, 'A teaching tempo')
      } catch (problem) {
        if (!(problem instanceof EntryProblem)) throw problem
        keep(problem, text)
      }
      return
    }
    case 'lead':
      header.lead = Side.parse(
        oneOf(
          need(first, text, 'R or L'),
          Side.options,
          'side',
          (side) => side[0]?.toUpperCase() ?? '',
        ),
      )
      return
    case 'start':
      // Read when the lead is known, since the usual stance hangs on it.
      header.start = [...(header.start ?? []), text]
      return
    case 'part': {
      const typed = readPartLine(text)
      const known = header.parts ?? []
      if (known.some(({ part }) => part.id === typed.part.id))
        throw new EntryProblem(`There is a part @${typed.part.id} already.`, first ?? whole(text))
      if (known.length === MOST_PARTS)
        throw new EntryProblem(
          `There are ${MOST_PARTS} parts at the most: let several dancers dance one of them, at L 1 and R 1.`,
          first ?? whole(text),
        )
      header.parts = [...known, typed]
      return
    }
    case 'carry': {
      const prop = readCarry(text)
      const known = header.carried ?? []
      if (known.some(({ id }) => id === prop.id))
        throw new EntryProblem(
          `There is a ${prop.id} already. Give this one a word of its own: carry ${prop.kind} ${prop.kind}-2 "Name".`,
          first ?? whole(text),
        )
      if (known.length === MOST_PROPS)
        throw new EntryProblem(
          `${MOST_PROPS} things are the most that are carried.`,
          first ?? whole(text),
        )
      header.carried = [...known, prop]
      return
    }
    case 'swap':
      if (first?.text !== 'roles')
        throw new EntryProblem('The only thing to swap here is “swap roles”.', first ?? whole(text))
      header.swapRoles = true
      return
    case 'pickup': {
      header.pickup = {
        counts: number(first, text, 1, 16, 'A pickup'),
        each: second?.text === 'each',
      }
      if (second && second.text !== 'each')
        keep(
          new EntryProblem('Write “pickup 2”, or “pickup 2 each” for every round.', second),
          text,
        )
      return
    }
    case 'level':
      header.level = oneOf(
        need(first, text, DancerLevel.options.join(', ')),
        DancerLevel.options,
        'level',
      )
      return
    case 'counts':
      header.counts = number(first, text, 1, 16, 'A phrase’s counts')
      return
    case 'rest':
      header.rest = number(first, text, 1, 64, 'A rest')
      return
    case 'keep':
      if (first?.text !== 'turns')
        throw new EntryProblem('The only thing to keep here is “keep turns”.', first ?? whole(text))
      header.keepTurns = true
      return
    case 'once':
      if (first) throw new EntryProblem('“once” stands alone: a piece that is danced once.', first)
      header.once = true
      return
    case 'call':
      header.call = readCountCalls(text)
      return
    case 'tags': {
      const tags = tagsIn(text, tokens)
      if (tags.length > 0) header.tags = tags
      return
    }
    case 'variant':
      header.variantOf = need(first, text, 'the id of a combination, in quotes').text
      return
    case 'leave': {
      const rest = [...tokens]
      const left = leaveIn({ need: (expected) => need(rest.shift(), text, expected) })
      header.leave = [...(header.leave ?? []), left]
      return
    }
    case 'rule':
      eachPart(text, keep, (words) => {
        header.rules = [...(header.rules ?? []), readRule(words, text)]
      })
      return
    case 'move':
      header.moves = [...(header.moves ?? []), readOwnMove(text, tokens)]
      return
    case 'order':
      throw new Error('the order is read when the phrases are known')
  }
}

/** Tags are parted by commas; one in quotes may hold anything. */
function tagsIn(text: string, tokens: readonly Token[]): string[] {
  const tags: string[] = []
  let begin: number | undefined
  let end = 0
  let said: string | undefined
  const close = () => {
    const tag = said ?? (begin === undefined ? '' : text.slice(begin, end).trim())
    if (tag) tags.push(tag)
    begin = undefined
    said = undefined
  }
  for (const token of tokens) {
    if (token.text === ',' && !token.quoted) close()
    else if (token.quoted && begin === undefined) {
      said = token.text
      begin = token.at
    } else {
      begin ??= token.at
      if (said !== undefined && !token.quoted) said = undefined
      end = token.end
    }
  }
  close()
  return tags
}
