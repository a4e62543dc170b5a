import type { Combination } from '../combination/combination'
import { loopIndex, loopTick } from '../combination/loop'
import { mirror } from '../combination/mirror'
import { passesOf, roundPickup } from '../combination/passes'
import type { Vocabulary } from '../moves/vocabulary'
import { dance, settled } from '../simulate/primitives'
import {
  type Planned,
  planOf,
  roundEnds,
  type Simulation,
  settlesAtEnd,
} from '../simulate/simulate'
import { startState } from '../simulate/start'
import type { BodyState } from '../simulate/state'

/** How the end of a combination meets what follows (model 7). */
export interface FootJoins {
  /** The same side can follow without a stop. */
  readonly repeats: boolean
  /** The other side can follow without a stop. */
  readonly switches: boolean
}

/** How a dance begins: its start stance, and all that lands on its first tick. */
interface Opening {
  readonly start: BodyState
  readonly steps: readonly Planned[]
  /** Phrases before the first of them in which the feet do nothing let the weight settle. */
  readonly settles: boolean
}

/** The first steps of a round: of its pickup when every round has one, else from count 1 on. */
function firstSteps(
  planned: readonly Planned[],
  combination: Combination,
  from = 0,
): readonly Planned[] {
  const first = planned.find(({ at }) => roundPickup(combination, 'feet') > 0 || at >= from)
  return planned.filter(({ at }) => at === first?.at)
}

/** The opening of the other side, without mirroring and dancing the rest of it. */
function otherOpening(combination: Combination, vocabulary: Vocabulary): Opening {
  let settles = false
  for (const entry of combination.order.slice(loopIndex(combination))) {
    const phrases = combination.phrases.filter(({ id }) => id === entry.phrase)
    const other = mirror({ ...combination, phrases, order: [entry] })
    const passes = passesOf(other, vocabulary)
    const steps = firstSteps(planOf(passes, vocabulary, other), combination)
    if (steps.length > 0) return { start: startState(other.start), steps, settles }
    settles ||= passes.some((pass) => settlesAtEnd(pass, vocabulary))
  }
  return { start: startState(mirror({ ...combination, phrases: [] }).start), steps: [], settles }
}

/** Whether what follows can be danced from the weight this one ends with. */
function fits(end: BodyState, { start, steps, settles }: Opening): boolean {
  if (steps.length === 0)
    return end.weight === start.weight || end.weight === 'both' || start.weight === 'both'
  // All that lands together counts: a rise may be what makes a pivot possible.
  let state = settles ? settled(end) : end
  for (const { at, action, settles } of steps) {
    const outcome = dance(state, action, at, undefined, settles)
    if (outcome.fault) return false
    state = outcome.state
  }
  return true
}

/** Whether the foot is right at the end for what another one danced, on the side that follows. */
export const footFits = (simulation: Simulation, next: Simulation): boolean =>
  fits(roundEnds(simulation).to, {
    start: next.opening,
    steps: firstSteps(next.danced, next.combination, loopTick(next.combination)),
    settles: false,
  })

/** Whether the foot is right at the end for the same side again, and for the other side. */
export function footJoins(simulation: Simulation, vocabulary: Vocabulary): FootJoins {
  const { danced, opening, combination, passes } = simulation
  const steps = firstSteps(danced, combination, loopTick(combination))
  const before = passes.slice(loopIndex(combination), steps[0]?.pass.index ?? passes.length)
  // A pickup of every round takes the last counts: what it starts from is the end here.
  const { to: end } = roundEnds(simulation)
  return {
    repeats: fits(end, {
      start: opening,
      steps,
      settles: before.some((pass) => settlesAtEnd(pass, vocabulary)),
    }),
    switches: fits(end, otherOpening(combination, vocabulary)),
  }
}
