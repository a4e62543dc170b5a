import { z } from 'zod'
import { Family } from '../moves/move'

/**
 * Two things that go together in a family: what lies over another layer, and what it lies over. Each
 * is named as a thing to learn is: `feet step-touch`, `hips hip-lift`.
 */
export const Layering = z
  .object({ family: Family, on: z.string().min(1), with: z.string().min(1) })
  .readonly()
export type Layering = z.infer<typeof Layering>

const MOST_LAYERINGS = 2000

/** What an instructor says of the usual layerings: which of her own there are beside them, and which are none. */
export const OwnLayerings = z
  .object({
    added: z.array(Layering).max(MOST_LAYERINGS).readonly(),
    dropped: z.array(Layering).max(MOST_LAYERINGS).readonly(),
  })
  .readonly()
export type OwnLayerings = z.infer<typeof OwnLayerings>

export const isSameLayering = (a: Layering, b: Layering): boolean =>
  a.family === b.family && a.on === b.on && a.with === b.with

const NONE: OwnLayerings = { added: [], dropped: [] }

/** With layerings of her own; one that was dropped is there again. */
export function withLayerings(
  own: OwnLayerings = NONE,
  layerings: readonly Layering[],
): OwnLayerings {
  const isMeant = (one: Layering) => layerings.some((layering) => isSameLayering(layering, one))
  const others = own.added.filter((one) => !isMeant(one))
  return { added: [...others, ...layerings], dropped: own.dropped.filter((one) => !isMeant(one)) }
}

/** Without a layering, be it a usual one or her own. */
export const withoutLayering = (own: OwnLayerings = NONE, layering: Layering): OwnLayerings => ({
  added: own.added.filter((one) => !isSameLayering(one, layering)),
  dropped: [...own.dropped.filter((one) => !isSameLayering(one, layering)), layering],
})
