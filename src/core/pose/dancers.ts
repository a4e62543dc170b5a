import type { FloorPoint } from '../body/places'
import { negated } from '../body/side'
import type { Combination } from '../combination/combination'
import { type Dancing, dancingTogether, isLead } from '../combination/dancing'
import { mirror } from '../combination/mirror'
import type { Part } from '../combination/part'
import { partWith } from '../combination/partOf'
import type { PartId } from '../combination/whose'
import { MODEL_HEIGHT } from '../house/house'
import { meetingsIn } from '../piece/piece'
import { delayed } from '../simulate/delayed'
import type { Simulation } from '../simulate/simulate'
import { askedOften, type Dancer, type DancerOptions, dancerOf } from './dancer'
import { leaningDancer } from './leaning'
import { metDancer } from './met'
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
  const met = madeOnce((dancing, index) => withMeetings(dancing, index))
  const upright = madeOnce((dancing, index) => newDancer(dancing, index))
  // Who meets others is asked for by each of them.
  const alone = madeOnce((dancing, index) =>
    piece?.parts ? askedOften(leaning(piece, dancing, index)) : upright(dancing, index),
  )
  const dancer = (dancing: Dancing, index = 0): Dancer => met(dancing, index)
  const meetingsOf = (together: Combination, dancing: Dancing) => {
    const side = isLead(together, dancing) ? together : mirror(together)
    const [first = dancing] = dancingTogether(together, dancing)
    return meetingsIn(side, delayed(from(first), partWith(together, first.part)?.delay).passes)
  }
  const partnersOf =
    (together: Combination, dancing: Dancing, made: (dancing: Dancing) => Dancer) =>
    (id: PartId) => {
      const theirs = dancingTogether(together, dancing).find(({ part }) => part === id)
      return theirs && made(theirs)
    }
  const leaning = (together: Combination, dancing: Dancing, index: number): Dancer => {
    const own = upright(dancing, index)
    if (options?.layers?.has('torso') === false) return own
    const partner = partnersOf(together, dancing, (theirs) => upright(theirs, index))
    return leaningDancer(own, dancing.part, meetingsOf(together, dancing), partner)
  }
  const withMeetings = (dancing: Dancing, index: number): Dancer => {
    const own = alone(dancing, index)
    if (!piece?.parts || options?.layers?.has('arms') === false) return own
    return metDancer(own, {
      part: dancing.part,
      meetings: meetingsOf(piece, dancing),
      partner: partnersOf(piece, dancing, (theirs) => alone(theirs, index)),
    })
  }
  const newDancer = (dancing: Dancing, index: number): Dancer => {
    const part = piece && partWith(piece, dancing.part)
    if (!piece || !part) return dancerOf(from(dancing), options)
    const { height } = part
    const scale = height === undefined ? options?.scale : height / MODEL_HEIGHT
    const placed = placedAt(
      dancerOf(delayed(from(dancing), part.delay), {
        ...options,
        ...(scale !== undefined && { scale }),
      }),
      standsAt(part, index, isLead(piece, dancing)),
    )
    const place = piece.parts?.indexOf(part) ?? 0
    return { ...placed, part: { id: part.id, index: place, name: part.name } }
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

/** One dancer for each dancing and place, made when she is first asked for. */
function madeOnce(make: (dancing: Dancing, index: number) => Dancer) {
  const made = new Map<string, Dancer>()
  return (dancing: Dancing, index: number): Dancer => {
    const key = `${index} ${dancing.side} ${dancing.part}`
    const known = made.get(key) ?? make(dancing, index)
    made.set(key, known)
    return known
  }
}

/** Where a dancer of a part stands on count 1: on the other side of the room where the other side is danced. */
function standsAt({ at }: Part, index: number, isWritten: boolean): FloorPoint {
  const { right, forward } = at[index] ?? at[0] ?? { right: 0, forward: 0 }
  return { right: isWritten ? right : negated(right), forward }
}
