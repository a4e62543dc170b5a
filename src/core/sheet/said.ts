import type { Between } from '../combination/between'
import { leaveIn } from '../entry/options'
import { EntryProblem, type Reader } from '../entry/reader'
import { quoted, type Token } from '../entry/tokens'
import { leaveText } from './entryText'

/** What may be said behind what dancers do with each other, or with a thing. */
export type Said = Pick<Between, 'cue' | 'note' | 'leave' | 'kept'>

/**
 * Reads the rest of such an entry.
 * @param hint what may be written, for who wrote something else
 * @param isMore reads what else may stand there; false where it is nothing of that
 * @throws EntryProblem
 */
export function readSaid(
  reader: Reader,
  hint: string,
  isMore: (token: Token) => boolean = () => false,
): Said {
  const said: { -readonly [K in keyof Said]: Said[K] } = {}
  for (let token = reader.take(); token; token = reader.take()) {
    if (token.quoted) throw unknown(token, hint)
    if (token.text === '!keep') said.kept = true
    else if (token.text === 'cue' || token.text === 'note') {
      const text = reader.need(`what the ${token.text} says, in quotes`)
      if (!text.text.trim()) throw new EntryProblem('It says nothing.', text)
      said[token.text] = text.text
    } else if (token.text === 'leave') said.leave = [...(said.leave ?? []), leaveIn(reader)]
    else if (!isMore(token)) throw unknown(token, hint)
  }
  return said
}

const unknown = (token: Token, hint: string) =>
  new EntryProblem(`“${token.text}” is not known here. ${hint}`, token)

/** The same as it is written. */
export const saidTexts = ({ cue, note, leave = [], kept }: Said): readonly string[] => [
  ...(cue ? [`cue ${quoted(cue)}`] : []),
  ...(note ? [`note ${quoted(note)}`] : []),
  ...leave.map(leaveText),
  ...(kept ? ['!keep'] : []),
]
