import { TICKS_PER_COUNT, type Tick, tick } from '../time/time'
import type { Combination } from './combination'

/** The place of the order at which every later round begins; 0 where all of it is danced again. */
export const loopIndex = ({ order }: Pick<Combination, 'order'>): number =>
  Math.max(
    0,
    order.findIndex(({ loops }, i) => loops && i > 0),
  )

/** The tick at which every later round begins. */
export function loopTick({ order, phrases }: Pick<Combination, 'order' | 'phrases'>): Tick {
  const counts = new Map(phrases.map((phrase) => [phrase.id, phrase.counts]))
  const before = order.slice(0, loopIndex({ order }))
  return tick(
    before.reduce((sum, { phrase }) => sum + (counts.get(phrase) ?? 0), 0) * TICKS_PER_COUNT,
  )
}

type Order = Combination['order']

/** An order with one place at the most at which later rounds begin, and not its first: that is all of it. */
export function withOneLoop(order: Order): Order {
  const at = loopIndex({ order })
  if (order.every(({ loops }, i) => (loops === true) === (i === at && at > 0))) return order
  return order.map(({ loops: _, ...entry }, i) =>
    i === at && at > 0 ? { ...entry, loops: true as const } : entry,
  )
}
