import type { Event, Phrase } from '../combination/combination'
import { dancedIn } from '../combination/lengths'
import type { Vocabulary } from '../moves/vocabulary'
import { COUNT, type Tick, tick } from '../time/time'

/** Half of a phrase in ticks, where it has one that nothing lies over for as long as it is danced. */
export function halfOf(phrase: Phrase, vocabulary: Vocabulary): Tick | undefined {
  const half = (phrase.counts * COUNT) / 2
  const lies = dancedIn(phrase, vocabulary).some(
    ({ at, length }) => at < 0 || (at < half && at + length > half),
  )
  return Number.isInteger(phrase.counts / 2) && !lies ? tick(half) : undefined
}

/** Whether nothing but moves is written to its counts: what else is would stay where it is while they go elsewhere. */
export const isOfMovesOnly = ({
  remarks,
  facings,
  options,
  between,
  props,
  voices,
}: Phrase): boolean =>
  ![remarks, facings, options, between, props, voices].some((one) => one?.length)

/** The same events with ids of their own. */
export const withOwnIds = (events: readonly Event[], prefix: string): readonly Event[] =>
  events.map((event, i) => ({ ...event, id: `${prefix} ${i}` }))
