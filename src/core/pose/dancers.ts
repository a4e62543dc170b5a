import type { FloorPoint } from '../body/places'
import { negated } from '../body/side'
import type { Combination } from '../combination/combination'
import { type Dancing, dancingTogether, isLead } from '../combination/dancing'
import type { Part } from '../combination/part'
import { partWith } from '../combination/partOf'
import { MODEL_HEIGHT } from '../house/house'
import type { Simulation } from '../simulate/simulate'
import { type Dancer, type DancerOptions, dancerOf } from './dancer'
import { placedAt } from './placedAt'

/** The dancer of each dancing: of several of one part the first, where no other is asked for. */
export interface Dancers {
  (dancing: Dancing, index?: number): Dancer
  /** All that dance at once with a dancing: of a combination for one she alone. */
  readonly together: (dancing: Dancing) => readonly Dancer[]
}

/** Dancers of whom each dances alone. */
export const dancersAlone = (dancer: (dancing: Dancing) => Dancer): Dancers =>
  Object.assign((dancing: Dancing) => dancer(dancing), {
    together: (dancing: Dancing) => [dancer(dancing)],
  })

/**
 * Makes each dancing ready to be seen when it is first asked for: an edit waits for nobody.
 * @param piece the combination where it is for several: each stands where her part does
 */
export function dancersOf(
  from: (dancing: Dancing) => Simulation,
  options?: DancerOptions,
  piece?: Combination,
): Dancers {
  const made = new Map<string, Dancer>()
  const dancer = (dancing: Dancing, index = 0): Dancer => {
    const key = `${index} ${dancing.side} ${dancing.part}`
    const known = made.get(key) ?? newDancer(dancing, index)
    made.set(key, known)
    return known
  }
  const newDancer = (dancing: Dancing, index: number): Dancer => {
    const part = piece && partWith(piece, dancing.part)
    if (!piece || !part) return dancerOf(from(dancing), options)
    const { height } = part
    const scale = height === undefined ? options?.scale : height / MODEL_HEIGHT
    const placed = placedAt(
      dancerOf(from(dancing), { ...options, ...(scale !== undefined && { scale }) }),
      standsAt(part, index, isLead(piece, dancing)),
    )
    const place = piece.parts?.indexOf(part) ?? 0
    return { ...placed, part: { index: place, name: part.name } }
  }
  return Object.assign(dancer, {
    together: (dancing: Dancing) =>
      piece?.parts
        ? dancingTogether(piece, dancing).flatMap((one) =>
            (partWith(piece, one.part)?.at ?? []).map((_, i) => dancer(one, i)),
          )
        : [dancer(dancing)],
  })
}

/** Where a dancer of a part stands on count 1: on the other side of the room where the other side is danced. */
export function standsAt({ at }: Part, index: number, isWritten: boolean): FloorPoint {
  const { right, forward } = at[index] ?? at[0] ?? { right: 0, forward: 0 }
  return { right: isWritten ? right : negated(right), forward }
}
