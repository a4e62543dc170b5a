/** A word, a quoted text or a comma of an entry. */
export interface Token {
  readonly text: string
  readonly quoted: boolean
  /** A quote that is never closed. */
  readonly open: boolean
  /** Index in the entry. */
  readonly at: number
  readonly end: number
}

/** Words, quoted texts and commas of an entry. */
export function tokensIn(text: string): readonly Token[] {
  const tokens: Token[] = []
  for (const found of text.matchAll(/"((?:\\.|[^"\\])*)("?)|,|[^\s,"]+/g)) {
    const [whole, inner, close] = found
    const quoted = inner !== undefined
    tokens.push({
      text: quoted ? unquoted(inner) : whole,
      quoted,
      open: quoted && close === '',
      at: found.index,
      end: found.index + whole.length,
    })
  }
  return tokens
}

const unquoted = (inner: string): string =>
  inner.replace(/\\(.)/g, (_, sign: string) => (sign === 'n' ? '\n' : sign))

/** A text in quotes, as it is read back. */
export const quoted = (text: string): string =>
  `"${text.replace(/["\\]/g, '\\$&').replace(/\r?\n/g, '\\n')}"`
