import type { Event } from '../../combination/combination'
import { nameOf } from '../../combination/names'
import { ownPickup } from '../../combination/passes'
import { labelIn, TICKS_PER_COUNT } from '../../time/time'
import { type Rule, spotOf } from '../rule'

/** What a pickup takes the place of in what comes before it; the same again in its place is no loss. */
export const pickup: Rule = {
  id: 'pickup',
  *check({ simulation, vocabulary }) {
    for (const pass of simulation.passes) {
      const { leadIn, ...written } = pass
      if (!leadIn) continue
      const danced = new Set(pass.events.map(said))
      const lost = leadIn.replaced.filter((event) => !danced.has(said(event)))
      const label = labelIn(pass.phrase)
      const [first] = lost
      if (!first) continue
      yield {
        code: 'pickup.over',
        counts: ownPickup(leadIn.into.phrase) / TICKS_PER_COUNT,
        replaced: lost.map((event) => `${label(event.at)} ${nameOf(event, vocabulary)}`),
        ...(leadIn.into.index > 0 && { of: leadIn.into.phrase.name }),
        // It is about what is written there, not about the pickup.
        spot: spotOf(written, first),
        events: lost.map(({ id }) => id),
      }
    }
  },
}

const said = ({ layer, at, what }: Event): string => JSON.stringify([layer, at, what])
