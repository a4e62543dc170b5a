import type { Primitive } from '../body/feet'
import type { Level } from '../body/places'
import type { Pass } from '../combination/passes'
import type { Simulation } from './simulate'

/** What brings the body to a height that lasts. */
export const LASTING: ReadonlySet<Primitive> = new Set(['low', 'deep', 'tall', 'toes'])

/** A height that lasts, as far as it is danced in a phrase. */
interface Standing {
  readonly level: Level
  readonly from: number
  readonly to: number
  /** The event it begins with; absent where it was so before. */
  readonly event: string | undefined
}

/** The heights that last in a phrase, the usual one apart; times from its start. */
export function standingsIn(
  { slices }: Simulation,
  { index, at, length }: Pass,
): readonly Standing[] {
  const slice = slices[index]
  if (!slice) return []
  const found: Standing[] = []
  let now: Omit<Standing, 'to'> = { level: slice.entry.stands, from: 0, event: undefined }
  const end = (to: number) => {
    if (now.level !== 'soft' && to > now.from) found.push({ ...now, to })
  }
  for (const step of slice.danced) {
    const { stands } = step.after
    if (stands === now.level) continue
    end(step.at - at)
    now = { level: stands, from: step.at - at, event: step.event.id }
  }
  end(length)
  return found
}
