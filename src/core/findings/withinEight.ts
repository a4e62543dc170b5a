import { TICKS_PER_COUNT } from '../time/time'

/** So many ticks are looked at together: 8 counts. */
export const EIGHT = 8 * TICKS_PER_COUNT

/** Those of some moments, in order, that are too many within 8 counts, each with how many there are by then. */
export function* tooMany<T extends { readonly at: number }>(
  moments: readonly T[],
  most: number,
): Generator<T & { readonly times: number }> {
  for (const [i, one] of moments.entries()) {
    const first = moments[i - most]
    if (!first || one.at - first.at >= EIGHT) continue
    const times = moments.filter(({ at }) => at > one.at - EIGHT && at <= one.at).length
    yield { ...one, times }
  }
}
