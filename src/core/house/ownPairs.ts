import { z } from 'zod'
import { Family } from '../moves/move'

/**
 * Two things that go together in a family: what lies over another layer, and what it lies over. Each
 * is named as a thing to learn is: `feet step-touch`, `hips hip-lift`.
 */
export const Pair = z
  .object({ family: Family, on: z.string().min(1), with: z.string().min(1) })
  .readonly()
export type Pair = z.infer<typeof Pair>

const MOST_PAIRS = 2000

/** What an instructor says of the usual pairs: which of her own there are beside them, and which are none. */
export const OwnPairs = z
  .object({
    added: z.array(Pair).max(MOST_PAIRS).readonly(),
    dropped: z.array(Pair).max(MOST_PAIRS).readonly(),
  })
  .readonly()
export type OwnPairs = z.infer<typeof OwnPairs>

export const isSamePair = (a: Pair, b: Pair): boolean =>
  a.family === b.family && a.on === b.on && a.with === b.with

const NONE: OwnPairs = { added: [], dropped: [] }

/** With pairs of her own; one that was dropped is there again. */
export function withPairs(own: OwnPairs = NONE, pairs: readonly Pair[]): OwnPairs {
  const isMeant = (one: Pair) => pairs.some((pair) => isSamePair(pair, one))
  const others = own.added.filter((one) => !isMeant(one))
  return { added: [...others, ...pairs], dropped: own.dropped.filter((one) => !isMeant(one)) }
}

/** Without a pair, be it a usual one or her own. */
export const withoutPair = (own: OwnPairs = NONE, pair: Pair): OwnPairs => ({
  added: own.added.filter((one) => !isSamePair(one, pair)),
  dropped: [...own.dropped.filter((one) => !isSamePair(one, pair)), pair],
})
