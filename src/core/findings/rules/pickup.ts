import type { Event } from '../../combination/combination'
import { nameOf } from '../../combination/names'
import { pickupTicks } from '../../combination/passes'
import { labelOfTick, TICKS_PER_COUNT } from '../../time/time'
import { type Rule, spotOf } from '../rule'

/** What a pickup that every round has takes the place of; the same again in its place is no loss. */
export const pickup: Rule = {
  id: 'pickup',
  *check({ simulation, vocabulary }) {
    for (const pass of simulation.passes) {
      const { leadIn, ...written } = pass
      if (!leadIn) continue
      const danced = new Set(pass.events.map(said))
      const lost = leadIn.replaced.filter((event) => !danced.has(said(event)))
      const [first] = lost
      if (!first) continue
      yield {
        code: 'pickup.over',
        counts: pickupTicks(simulation.combination) / TICKS_PER_COUNT,
        replaced: lost.map((event) => `${labelOfTick(event.at)} ${nameOf(event, vocabulary)}`),
        // It is about what is written there, not about the pickup.
        spot: spotOf(written, first),
        events: lost.map(({ id }) => id),
      }
    }
  },
}

const said = ({ layer, at, what }: Event): string => JSON.stringify([layer, at, what])
