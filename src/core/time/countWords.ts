/** Counts as they are said. */
export const countWords = (counts: number): string =>
  counts === 1 ? '1 count' : `${counts} counts`
