/** Whether a word is one of these: what a schema would ask, without one. */
export const oneOf = <W extends string>(
  words: readonly W[],
): ((word: string | undefined) => word is W) => {
  const known: ReadonlySet<string> = new Set(words)
  return (word): word is W => word !== undefined && known.has(word)
}
