/**
 * How well what was found agrees with what is true: the harmonic mean of the shares of both that
 * have a partner, each once, 0 to 1.
 * @param within seconds, rising lists
 */
export function agreement(
  found: readonly number[],
  truth: readonly number[],
  within = 0.07,
): number {
  let hits = 0
  let from = 0
  for (const at of truth) {
    while (from < found.length && (found[from] as number) < at - within) from++
    if (from < found.length && (found[from] as number) <= at + within) {
      hits++
      from++
    }
  }
  return (2 * hits) / Math.max(1, found.length + truth.length)
}
