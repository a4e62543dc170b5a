import type { Combination, OneSide } from '../combination/combination'
import type { Dancing } from '../combination/dancing'
import { mirror } from '../combination/mirror'
import { partIds, partOf } from '../combination/partOf'
import type { PartId } from '../combination/whose'
import type { House } from '../house/house'
import { type Vocabulary, vocabularyFor } from '../moves/vocabulary'
import type { TimeMap } from '../time/timeMap'
import type { Company } from './company'
import { type Simulation, simulate } from './simulate'

/**
 * A combination danced on both sides, which is all that who sees or plays it needs. Of one for
 * several dancers it is what the first part dances; the others are asked for.
 */
export interface Danced {
  /** As it is danced in this house. */
  readonly written: OneSide
  /** With the combination's own moves. */
  readonly vocabulary: Vocabulary
  readonly house: House
  readonly lead: Simulation
  /** Danced when it is first asked for: many edits only show one side. */
  readonly other: Simulation
  readonly from: (dancing: Dancing) => Simulation
  /** All who dance it, where they are several. */
  readonly company?: (dancing: Dancing) => Company
}

/** A house that keeps its turns keeps them in every combination. */
export const withHouseTurns = (combination: Combination, { keepTurns }: House): OneSide =>
  keepTurns && !combination.keepTurns ? { ...combination, keepTurns: true } : combination

/**
 * Dances a combination: the lead side of its first part at once, the rest when it is asked for.
 * @param time how its ticks go by, where that is not its own tempo
 */
export function danced(
  combination: Combination,
  base: Vocabulary,
  house: House,
  time?: TimeMap,
): Danced {
  const vocabulary = vocabularyFor(combination, base)
  const [first] = partIds(combination)
  const own = partOf(combination, first ?? '')
  const written = withHouseTurns(own, house)
  const others = new Map<PartId, Danced>()
  const dancedBy = (part: PartId): Danced => {
    const known = others.get(part) ?? danced(partOf(combination, part), base, house, time)
    others.set(part, known)
    return known
  }
  const lead = simulate(written, vocabulary, house, time)
  let other: Simulation | undefined
  const onOther = () => {
    other ??= simulate(mirror(written), vocabulary, house, time)
    return other
  }
  return {
    written,
    vocabulary,
    house,
    lead,
    get other() {
      return onOther()
    },
    from: (dancing) =>
      combination.parts && dancing.part !== first && partIds(combination).includes(dancing.part)
        ? dancedBy(dancing.part).from(dancing)
        : dancing.side === own.lead
          ? lead
          : onOther(),
  }
}
