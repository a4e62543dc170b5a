import type { DancedStep } from '../../simulate/simulate'
import { stateBefore } from '../../simulate/simulate'
import type { Fact } from '../finding'
import { type Danceable, type Rule, spotIn } from '../rule'

function factOf({ action, fault, at }: DancedStep, { simulation }: Danceable): Fact | undefined {
  switch (fault) {
    case 'feet.loaded':
    case 'feet.loaded-touch':
      return action.foot && { code: fault, action, foot: action.foot }
    case 'feet.no-support':
      return { code: fault, action, weight: stateBefore(simulation, at).weight }
    case undefined:
      return undefined
  }
}

/** Weight faults come from the simulation itself, which goes on as a dancer would save them. */
export const weight: Rule = {
  id: 'weight',
  *check(danceable) {
    for (const danced of danceable.simulation.danced) {
      const fact = factOf(danced, danceable)
      if (!fact) continue
      const spot = spotIn(danced.pass, danced.at, 'feet')
      yield { ...fact, spot, events: [danced.event.id] }
    }
  },
}
