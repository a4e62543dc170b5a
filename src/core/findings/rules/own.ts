import { type OwnRule, ruleText } from '../../combination/rules'
import type { DancedStep } from '../../simulate/simulate'
import { aboutStep, type Rule, spotOf } from '../rule'

/** What breaks a rule the instructor wrote down herself. */
export const own: Rule = {
  id: 'own',
  *check({ simulation }) {
    for (const rule of simulation.combination.rules ?? []) {
      const words = ruleText(rule)
      if (rule.kind === 'stays') {
        for (const pass of simulation.passes)
          for (const event of pass.events)
            if (event.layer === rule.layer && event.what.kind !== 'stay')
              yield {
                code: 'rule.broken',
                rule: words,
                spot: spotOf(pass, event),
                events: [event.id],
              }
      } else
        for (const step of simulation.danced)
          if (breaks(step, rule)) yield { code: 'rule.broken', rule: words, ...aboutStep(step) }
    }
  },
}

function breaks({ action }: DancedStep, rule: Exclude<OwnRule, { kind: 'stays' }>): boolean {
  if (rule.kind === 'turns') {
    const { turn = 0 } = action
    return rule.way === 'L' ? turn > 0 : turn < 0
  }
  // A step on the spot goes nowhere.
  const { primitive, foot, direction } = action
  const goes = direction !== undefined && direction !== 'in-place' && direction !== 'together'
  return primitive === 'step' && foot === rule.foot && goes && direction !== rule.direction
}
