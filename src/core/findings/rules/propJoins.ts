import type { Carried, Prop } from '../../combination/carried'
import { mirrorCarried } from '../../combination/mirrorProps'
import { followProps } from '../../props/follow'
import { heldWords, isHeldAlike } from '../../props/held'
import { COUNT, tick } from '../../time/time'
import { type Rule, spotIn } from '../rule'

/** A thing that is not held at the end as what follows begins with it. */
export const propJoins: Rule = {
  id: 'prop-joins',
  *check({ simulation, joins: foot }) {
    const { combination, passes } = simulation
    const pass = passes.at(-1)
    const { carried } = combination
    if (!carried || !pass || combination.once || !(foot.repeats || foot.switches)) return
    const { ends } = followProps(simulation)
    const startOf = ({ start, keepHand }: Prop): Carried =>
      foot.repeats || keepHand ? start : mirrorCarried(start)
    for (const prop of carried) {
      const { id, name, kind } = prop
      // What stays ready is no harm, and is not asked for.
      const end = ends.get(id) ?? prop.start
      const starts = startOf(prop)
      // Of two alike each may go on as the other one.
      const goesOn = carried.some(
        (other) => other.kind === kind && isHeldAlike(end, startOf(other)),
      )
      if (goesOn) continue
      yield {
        code: 'prop.join',
        prop: name,
        ends: heldWords(end),
        starts: heldWords(starts),
        into: foot.repeats ? 'repeat' : 'switch',
        spot: spotIn(pass, tick(pass.at + pass.length - COUNT), 'arms'),
        events: [],
      }
    }
  },
}
