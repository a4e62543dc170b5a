import type { Combination, Event } from '../combination/combination'
import { mirror } from '../combination/mirror'
import type { Vocabulary } from '../moves/vocabulary'
import { simulate } from '../simulate/simulate'
import { tick } from '../time/time'

/**
 * The other side, written out to be stored: where turns are kept, every step stands as it is
 * danced there, so figures that turn are opened.
 */
export function otherSideWritten(combination: Combination, vocabulary: Vocabulary): Combination {
  const side = mirror(combination)
  if (!side.otherTurns) return side
  const { otherTurns: _, ...written } = side
  const { danced } = simulate(side, vocabulary)
  const stepsOf = (event: Event) => {
    const first = danced.find((one) => one.event.id === event.id)
    return danced.filter((one) => one.event.id === event.id && one.pass.index === first?.pass.index)
  }
  return {
    ...written,
    phrases: written.phrases.map((phrase) => ({
      ...phrase,
      events: phrase.events.flatMap((event): readonly Event[] => {
        if (event.layer !== 'feet' || event.kept) return [event]
        const steps = stepsOf(event)
        const [first] = steps
        if (!first || !steps.some(({ action }) => action.turn)) return [event]
        if (event.what.kind === 'foot')
          return [{ ...event, what: { kind: 'foot', action: first.action } }]
        const { as: _as, ...plain } = event
        return steps.map((one, i) => ({
          ...plain,
          id: i === 0 ? event.id : `${event.id}-${i}`,
          at: tick(one.at - one.pass.at),
          length: one.length,
          what: { kind: 'foot', action: one.action },
        }))
      }),
    })),
  }
}
