import { unitOver } from './taughtUnits'
import type { Teaching, Unit } from './teaching'

/** How often the end and the beginning of the other side are danced. */
const TIMES = 4

/**
 * The last counts and the first of the other side, before both are run (teaching 3.4); none where
 * the sides do not follow each other, or there is nothing to change.
 */
export function switchPractice(teaching: Teaching): Unit | undefined {
  const { material, which, sides, house } = teaching
  if (which === 'lead' || !material.joins.switches || material.lead.end.weight === 'both')
    return undefined
  return {
    ...unitOver(teaching, {
      kind: 'switch-practice',
      passes: material.lead.passes,
      sides,
      repeats: TIMES,
      talk: house.limits['plan.talkSide'],
    }),
    phrases: [],
  }
}
