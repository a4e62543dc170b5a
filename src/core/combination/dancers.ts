import type { Combination } from './combination'
import type { Part } from './part'

/** The parts with the names of who dances them on a side: with swapped roles, on the other side each the other one's. */
export function dancersOn(
  { parts = [], swapRoles }: Pick<Combination, 'parts' | 'swapRoles'>,
  isOther: boolean,
): readonly Part[] {
  if (!swapRoles || !isOther) return parts
  const names = parts.map(({ name }) => name).toReversed()
  return parts.map((part, i) => ({ ...part, name: names[i] ?? part.name }))
}
