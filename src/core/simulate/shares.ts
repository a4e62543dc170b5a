import { toHalfDegrees } from '../body/facing'
import { type FootAction, factsOf } from '../body/feet'
import type { DancedEvent } from '../combination/lengths'
import { endOf, type Tick } from '../time/time'

interface Step {
  readonly at: Tick
  readonly action: FootAction
  readonly event: DancedEvent
}

/**
 * Steps with the turns they share: after the k-th of n landings the sum is k / n of it, to half a
 * degree, halves away from zero, so that the mirror image is exact. A turn that was written on a
 * step stays; a figure's own give way.
 * @param steps of a phrase, in the order they are danced
 */
export function withShares<S extends Step>(
  steps: readonly S[],
  events: readonly DancedEvent[],
): readonly S[] {
  const shares = sharesIn(events)
  if (shares.length === 0) return steps
  const turns = new Map<S, number>()
  for (const { event, degrees } of shares) {
    const landings = landingsIn(steps, event)
    let sum = 0
    for (const [k, landing] of landings.entries()) {
      const until = toHalfDegrees((degrees * (k + 1)) / landings.length)
      turns.set(landing, until - sum)
      sum = until
    }
  }
  return steps.map((step) => {
    const turn = turns.get(step)
    if (turn === undefined) return step
    const { turn: _, ...action } = step.action
    return { ...step, action: turn === 0 ? action : { ...action, turn } }
  })
}

interface Share {
  readonly event: DancedEvent
  readonly degrees: number
}

const sharesIn = (events: readonly DancedEvent[]): readonly Share[] =>
  events.flatMap((event) =>
    event.what.kind === 'share' ? [{ event, degrees: event.what.degrees }] : [],
  )

/** Turns that no landing shares, or whose landings share another one as well. */
export const idleShares = (
  steps: readonly Step[],
  events: readonly DancedEvent[],
): readonly Share[] =>
  sharesIn(events).filter(
    ({ event }, i, all) =>
      landingsIn(steps, event).length === 0 ||
      all
        .slice(0, i)
        .some((other) => other.event.at < endOf(event) && event.at < endOf(other.event)),
  )

/** The landings that share a turn. */
const landingsIn = <S extends Step>(steps: readonly S[], event: DancedEvent): readonly S[] =>
  steps.filter(
    ({ at, action, event: own }) =>
      at >= event.at &&
      at < endOf(event) &&
      factsOf(action.primitive).lands &&
      (own.what.kind === 'move' || action.turn === undefined),
  )
