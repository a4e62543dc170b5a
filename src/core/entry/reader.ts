import type { Layer } from '../body/layers'
import type { Side } from '../body/side'
import type { Vocabulary } from '../moves/vocabulary'
import type { Numbering } from '../time/time'
import type { Token } from './tokens'

/** What is wrong with an entry: from which sign to which, and what to write instead. */
export class EntryProblem extends Error {
  readonly at: number
  readonly end: number
  constructor(message: string, { at, end }: { at: number; end: number }) {
    super(message)
    this.at = at
    this.end = end
  }
}

/** Where an entry stands: what decides how its words are meant. */
export interface EntryPlace extends Numbering {
  readonly layer: Layer
  readonly lead: Side
  readonly vocabulary: Vocabulary
}

/** The tokens of an entry, read from left to right. */
export class Reader {
  readonly #tokens: readonly Token[]
  #next = 0
  constructor(tokens: readonly Token[]) {
    this.#tokens = tokens
  }
  peek(ahead = 0): Token | undefined {
    return this.#tokens[this.#next + ahead]
  }
  take(): Token | undefined {
    return this.#tokens[this.#next++]
  }
  skip(count: number): void {
    this.#next += count
  }
  /** Reads on if something is found there; else nothing is taken. */
  attempt<T>(read: () => T | undefined): T | undefined {
    const from = this.#next
    const found = read()
    if (found === undefined) this.#next = from
    return found
  }
  /** The next token, or a problem that says what was expected. */
  need(expected: string): Token {
    const token = this.take()
    if (token) return token
    const last = this.#tokens.at(-1)
    throw new EntryProblem(`Something is missing at the end: ${expected}.`, {
      at: last?.at ?? 0,
      end: last?.end ?? 1,
    })
  }
}

const SIDES: ReadonlyMap<string, Side> = new Map([
  ['R', 'R'],
  ['L', 'L'],
  ['right', 'R'],
  ['left', 'L'],
  ['r', 'R'],
  ['l', 'L'],
])
/** The side a word means; none for anything else. */
export const sideIn = (token: Token | undefined): Side | undefined =>
  token && !token.quoted ? SIDES.get(token.text) : undefined

/** What to write instead: the nearest known words, or what is expected at all. */
export const hint = (near: readonly string[], otherwise: string): string =>
  near.length > 0 ? ` Did you mean ${near.join(', ')}?` : ` ${otherwise}`
