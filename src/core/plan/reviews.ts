import { type Material, type Materials, roundOf } from './material'
import { fits, least, sum } from './outline'
import type { PlanWishes } from './plan'
import { type Planning, type Unit, unitOf } from './units'

/** What the diary says is due, as long as it leaves room for what is new; a side that fell behind catches up. */
export function reviewsOf(
  { known }: PlanWishes,
  teachings: ReadonlyMap<Material, Planning>,
  room: number,
  materials: Materials,
): readonly Unit[] {
  const taken: Unit[] = []
  let left = room / 3
  for (const review of known.reviews) {
    const material = materials.find(review.combination)
    const teaching = material && teachings.get(material)
    const round = material && roundOf({ ...review, moves: undefined, eased: undefined }, materials)
    if (!material || !teaching || !round) continue
    const { passes } = round
    for (let from = 0; from < passes.length; from++) {
      const unit = unitOf(material, teaching, {
        kind: 'review',
        passes: passes.slice(from),
        layers: review.layers,
        tempo: review.tempo,
      })
      const seconds = least(unit, materials)
      // A short class still has the last of what came before.
      const isLast = from === passes.length - 1 && taken.length === 0 && seconds <= room / 2
      if (seconds > left && !isLast) continue
      taken.push(unit)
      left -= seconds
      break
    }
  }
  const catchUps = Object.entries(known.weaker).flatMap(
    ([id, { side, behind }]): readonly Unit[] => {
      const base = taken.find(({ combination }) => combination === id)
      const round = base && roundOf(base, materials)
      // Only a side that is behind by more than a round or two.
      if (!base || !round || behind < 4 * round.counts) return []
      const { inTurn: _, ...once } = base
      return [{ ...once, kind: 'catch-up', sides: [side] }]
    },
  )
  return [
    ...taken,
    ...fits(catchUps, room - sum(taken.map((one) => least(one, materials))), materials),
  ]
}
