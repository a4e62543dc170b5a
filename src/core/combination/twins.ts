import type { Combination } from './combination'

/**
 * The mirror twin of each pass, where every phrase is danced as often from one side as from the
 * other: the first of a phrase and its first from the other side, the second and the second.
 */
export function twinsOf({ order }: Pick<Combination, 'order'>): ReadonlyMap<number, number> {
  const twins = new Map<number, number>()
  const passes = order.map((entry, pass) => ({ ...entry, pass }))
  for (const phrase of new Set(order.map((entry) => entry.phrase))) {
    const own = passes.filter((one) => one.phrase === phrase)
    const [plain, mirrored] = [false, true].map((way) => own.filter((one) => one.mirrored === way))
    if (!plain || !mirrored || plain.length !== mirrored.length) return new Map()
    for (const [i, one] of plain.entries()) {
      const other = mirrored[i]?.pass ?? one.pass
      twins.set(one.pass, other)
      twins.set(other, one.pass)
    }
  }
  return twins
}
