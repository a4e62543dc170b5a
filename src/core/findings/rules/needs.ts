import { factsOf } from '../../body/feet'
import { otherSide, SIDES } from '../../body/side'
import { nameOf } from '../../combination/names'
import type { House } from '../../house/house'
import type { Move } from '../../moves/move'
import { courseOf, type Run } from '../../simulate/course'
import { distance } from '../../simulate/landing'
import { type Simulation, stateAt } from '../../simulate/simulate'
import type { BodyState } from '../../simulate/state'
import type { Fact } from '../finding'
import { type Rule, spotOf } from '../rule'
import { workingSide } from './hips'

type Need = Extract<Fact, { code: 'move.needs' }>['need']

/** What a move needs of the feet and does not get (model 8). */
export const needs: Rule = {
  id: 'needs',
  *check({ simulation, house }) {
    for (const run of courseOf(simulation)) {
      const { move, event, pass } = run
      if (!move || event.layer === 'feet') continue
      const need = unmet(run, move, simulation, house)
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

/** A move this small is danced wherever the weight is. */
const SMALL = 60

function unmet(run: Run, move: Move, simulation: Simulation, { limits }: House): Need | undefined {
  if (move.needs.length === 0) return undefined
  const { weight, feet, level } = stateAt(simulation, run.at)
  const side = workingSide(run.event)
  const isUp = (foot: 'R' | 'L') => level === 'toes' || feet[foot].contact !== 'flat'
  for (const need of move.needs)
    switch (need) {
      case 'weight-one':
        if (weight === 'both' && !(side && isUp(side)) && !isApart(feet, limits['landing.apart']))
          return 'weight-one'
        break
      case 'weight-both':
        if (weight !== 'both' && !isSmall(run) && landsDuring(run, simulation)) return 'weight-both'
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

const isSmall = ({ event }: Run): boolean => (event.size ?? 100) <= SMALL

/** Wide enough apart that the hips shift the weight by themselves. */
const isApart = ({ R, L }: BodyState['feet'], metres: number): boolean =>
  distance(R.place, L.place) > metres

/** Whether a foot comes down while it lasts; else the weight can be shared. */
const landsDuring = ({ at, end }: Run, { danced }: Simulation): boolean =>
  danced.some((one) => one.at > at && one.at < end && factsOf(one.action.primitive).lands)
