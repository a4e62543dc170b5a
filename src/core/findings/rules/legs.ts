import { SIDES } from '../../body/side'
import { courseOf } from '../../simulate/course'
import { stateAt } from '../../simulate/simulate'
import { type Rule, spotOf } from '../rule'

/** Legs that are turned while they carry, over bent knees or through a turn (model 8). */
export const legs: Rule = {
  id: 'legs',
  *check({ simulation }) {
    for (const { event, pass, at, end } of courseOf(simulation)) {
      const { what } = event
      if (what.kind !== 'legs') continue
      const leg = SIDES.find((side) => {
        const { weight, feet, level } = stateAt(simulation, at)
        const isTurned = what[side] === 'in' || what[side] === 'out'
        if (!isTurned || weight !== side || feet[side].contact !== 'flat') return false
        return level === 'low' || level === 'deep' || turnsOver(side, at, end)
      })
      if (!leg) continue
      yield {
        code: 'legs.twist',
        leg,
        isTurning: turnsOver(leg, at, end),
        spot: spotOf(pass, event),
        events: [event.id],
      }
    }

    /** Whether one turns on a foot that stays while its leg is turned. */
    function turnsOver(side: 'R' | 'L', from: number, to: number): boolean {
      return simulation.danced.some(
        ({ at, action }) =>
          at >= from && at < to && action.turn !== undefined && action.foot !== side,
      )
    }
  },
}
