import { factsOf } from '../../body/feet'
import { otherSide, SIDES } from '../../body/side'
import { nameOf } from '../../combination/names'
import type { Move } from '../../moves/move'
import { courseOf, type Run } from '../../simulate/course'
import { type Simulation, stateAt } from '../../simulate/simulate'
import type { Fact } from '../finding'
import { type Rule, spotOf } from '../rule'
import { workingSide } from './hips'

type Need = Extract<Fact, { code: 'move.needs' }>['need']

/** What a move needs of the feet and does not get (model 8). */
export const needs: Rule = {
  id: 'needs',
  *check({ simulation }) {
    for (const run of courseOf(simulation)) {
      const { move, event, pass } = run
      if (!move || event.layer === 'feet') continue
      const need = unmet(run, move, simulation)
      const side = workingSide(event)
      if (need)
        yield {
          code: 'move.needs',
          move: nameOf(event, simulation.vocabulary),
          need,
          ...(side && { foot: side }),
          spot: spotOf(pass, event),
          events: [event.id],
        }
    }
  },
}

function unmet(run: Run, move: Move, simulation: Simulation): Need | undefined {
  if (move.needs.length === 0) return undefined
  const { weight, feet, level } = stateAt(simulation, run.at)
  const side = workingSide(run.event)
  const isUp = (foot: 'R' | 'L') => level === 'toes' || feet[foot].contact !== 'flat'
  for (const need of move.needs)
    switch (need) {
      case 'weight-one':
        if (weight === 'both') return 'weight-one'
        break
      case 'weight-both':
        if (weight !== 'both' && !standsStill(run, simulation)) return 'weight-both'
        break
      case 'heel-up-working':
        // A free foot lifts its own heel; only shared weight holds it down.
        if (side && weight === 'both' && !isUp(side)) return 'heel-up'
        break
      case 'free-working-leg':
        if (side && weight !== otherSide[side]) return 'free-leg'
        break
      case 'flat-feet':
        if (weight === 'both' ? SIDES.some(isUp) : isUp(weight)) return 'flat-feet'
        break
    }
  return undefined
}

/** Both feet flat and none of them lands while it lasts: the weight can be shared. */
function standsStill({ at, end }: Run, simulation: Simulation): boolean {
  const { feet } = stateAt(simulation, at)
  return (
    SIDES.every((side) => feet[side].contact === 'flat') &&
    !simulation.danced.some(
      (danced) =>
        danced.at > at &&
        danced.at < end &&
        danced.action.foot !== undefined &&
        factsOf(danced.action.primitive).needs !== 'both-on-floor',
    )
  )
}
