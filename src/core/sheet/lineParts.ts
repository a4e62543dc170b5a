import { nearest } from '../entry/names'
import { EntryProblem } from '../entry/reader'
import { type Token, tokensIn } from '../entry/tokens'

type Where = Pick<Token, 'at' | 'end'>
/** The place of a line as a whole, where no word of it is to blame. */
export const whole = (text: string): Where => ({ at: 0, end: Math.max(1, text.length) })

/** The one of some words that is meant, however it is written; @throws EntryProblem where none is. */
export function oneOf<T extends string>(
  token: Token,
  options: readonly T[],
  what: string,
  fold = (text: string) => text.toLowerCase(),
): T {
  const found = options.find((option) => fold(option) === fold(token.text))
  if (found) return found
  const near = nearest(token.text, options)
  throw new EntryProblem(
    `“${token.text}” is no ${what}. ${near.length > 0 ? `Did you mean ${near.join(', ')}?` : `Write ${options.slice(0, 9).join(', ')}.`}`,
    token,
  )
}

/** @throws EntryProblem where nothing stands there. */
export const need = (token: Token | undefined, text: string, expected: string): Token => {
  if (token) return token
  throw new EntryProblem(`Something is missing here: ${expected}.`, whole(text))
}

/** A whole number in a range; @throws EntryProblem where it is none. */
export function number(
  token: Token | undefined,
  text: string,
  low: number,
  high: number,
  what: string,
) {
  const value = Number(token?.text)
  if (!Number.isInteger(value) || value < low || value > high)
    throw new EntryProblem(
      `${what} is a whole number from ${low} to ${high}.`,
      token ?? whole(text),
    )
  return value
}

/** Takes what can't be read in a line of which the rest was read: what is wrong, and what stays as typed. */
export type KeepPart = (problem: EntryProblem, typed: string) => void

/** The parts of a line between its commas; empty ones left out. */
function partsIn(text: string): readonly (readonly Token[])[] {
  const parts: Token[][] = [[]]
  for (const token of tokensIn(text)) {
    if (token.text === ',' && !token.quoted) parts.push([])
    else parts.at(-1)?.push(token)
  }
  return parts.filter((part) => part.length > 0)
}

/** Does something with a part of a line; where that can't be read, only it is lost. */
export function eachPart(
  text: string,
  keep: KeepPart,
  read: (tokens: readonly [Token, ...Token[]]) => void,
): void {
  for (const part of partsIn(text)) {
    const [first, ...more] = part
    if (!first) continue
    try {
      read([first, ...more])
    } catch (problem) {
      if (!(problem instanceof EntryProblem)) throw problem
      keep(problem, text.slice(first.at, part.at(-1)?.end))
    }
  }
}
