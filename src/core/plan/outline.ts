import { type Drill, drillKey } from './drill'
import { LEAST_REPEATS } from './fill'
import { type Materials, secondsOf } from './material'
import type { Unit } from './units'

/** A unit as a drill, danced as seldom as it may be unless it is said. */
export const ready = (unit: Unit, repeats = LEAST_REPEATS): Drill => ({
  ...unit,
  id: drillKey({ ...unit, repeats }),
  repeats,
})

/** Seconds of a drill danced as seldom as it may be. */
export const least = (unit: Unit, materials: Materials): number => secondsOf(ready(unit), materials)

export const sum = (numbers: readonly number[]): number => numbers.reduce((a, b) => a + b, 0)

/** Of units in order, as many from the first on as have room. */
export function fits(units: readonly Unit[], room: number, materials: Materials): readonly Unit[] {
  let left = room
  const taken: Unit[] = []
  for (const unit of units) {
    left -= least(unit, materials)
    if (left < 0) break
    taken.push(unit)
  }
  return taken
}

/** Of units in order, the longest start that has room with the drill that closes it. */
function fitting(
  units: readonly Unit[],
  room: number,
  closings: (taken: readonly Unit[]) => readonly Unit[],
  materials: Materials,
): { readonly taken: readonly Unit[]; readonly closing: readonly Unit[] } {
  let before = 0
  let best: { taken: readonly Unit[]; closing: readonly Unit[] } = { taken: [], closing: [] }
  for (const [i, unit] of units.entries()) {
    before += least(unit, materials)
    if (before > room) break
    const taken = units.slice(0, i + 1)
    const closing = closings(taken)
    if (before + sum(closing.map((one) => least(one, materials))) <= room) best = { taken, closing }
  }
  return best
}

/** What a class is made of before it is filled. */
interface Outline {
  readonly reviews: readonly Unit[]
  readonly taken: readonly Unit[]
  readonly closing: readonly Unit[]
}

/**
 * Chooses what has room: the review of what is due, what is new as far as it fits, and what
 * closes the class. Where a class is too short for all three, what is new goes before what
 * closes it, and before the review.
 */
export function outlineOf({
  free,
  due,
  closings,
  room,
  materials,
}: {
  readonly free: readonly Unit[]
  readonly due: readonly Unit[]
  readonly closings: (before: readonly Unit[]) => readonly Unit[]
  readonly room: number
  readonly materials: Materials
}): Outline {
  const after = (units: readonly Unit[]) => room - sum(units.map((unit) => least(unit, materials)))
  for (const reviews of [due, []])
    for (const close of [closings, () => []]) {
      const closing = (taken: readonly Unit[]) => close([...reviews, ...taken])
      const fit = fitting(free, after(reviews), closing, materials)
      if (fit.taken.length > 0) return { reviews, ...fit }
    }
  return { reviews: due, taken: [], closing: fits(closings(due), after(due), materials) }
}
