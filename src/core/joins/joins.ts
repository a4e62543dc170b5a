import type { Combination } from '../combination/combination'
import { mirror } from '../combination/mirror'
import type { Vocabulary } from '../moves/vocabulary'
import { dance } from '../simulate/primitives'
import { type Danced, type Simulation, simulate } from '../simulate/simulate'
import type { BodyState } from '../simulate/state'
import { tick } from '../time/time'

/** How the end of a combination meets what follows (model 7). */
export interface FootJoins {
  /** The same side can follow without a stop. */
  readonly repeats: boolean
  /** The other side can follow without a stop. */
  readonly switches: boolean
}

/** Whether what follows can be danced from the weight this one ends with. */
function footFits(end: BodyState, next: readonly Danced[], nextStart: BodyState): boolean {
  const first = next[0]
  if (!first)
    return end.weight === nextStart.weight || end.weight === 'both' || nextStart.weight === 'both'
  // All that lands on the first tick together: a rise may be what makes a pivot possible.
  let state = end
  for (const { at, action } of next) {
    if (at > first.at) break
    const outcome = dance(state, action, tick(at))
    if (outcome.fault) return false
    state = outcome.state
  }
  return true
}

export function footJoins(simulation: Simulation, other: Simulation): FootJoins {
  const { end, danced, start } = simulation
  return {
    repeats: footFits(end, danced, start),
    switches: footFits(end, other.danced, other.start),
  }
}

/** The joins of a combination by itself, for a list that shows nothing else of it. */
export const footJoinsOf = (combination: Combination, vocabulary: Vocabulary): FootJoins =>
  footJoins(simulate(combination, vocabulary), simulate(mirror(combination), vocabulary))
