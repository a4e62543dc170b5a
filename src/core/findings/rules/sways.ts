import { factsOf } from '../../body/feet'
import { otherSide, SIDES, type Side } from '../../body/side'
import { asSeen, distance } from '../../simulate/landing'
import { beforeStep, type DancedStep, type Simulation } from '../../simulate/simulate'
import { aboutStep, type Rule } from '../rule'

/** Sways that go nowhere, and sways around a foot that only touched somewhere out (model 8). */
export const sways: Rule = {
  id: 'sways',
  *check({ simulation, house }) {
    const apart = house.limits['landing.apart']
    const touched: Record<Side, boolean> = { R: false, L: false }
    for (const [before, step] of stepsIn(simulation)) {
      const { action, event } = step
      const { foot, primitive } = action
      const isSway = factsOf(primitive).needs === 'both-on-floor'
      if (isSway && event.what.kind === 'foot') {
        const out = SIDES.find((side) => touched[side] && isOut(before, side, apart))
        if (out) {
          const { R, L } = before.feet
          yield {
            code: 'feet.left-out',
            foot: out,
            metres: distance(R.place, L.place),
            ...aboutStep(step),
          }
        } else if (foot && before.weight === foot && !hasLayer(step))
          yield { code: 'feet.same-sway', foot, ...aboutStep(step) }
      }
      if (foot) touched[foot] = factsOf(primitive).needs === 'free-touch'
    }
  },
}

const stepsIn = ({ slices }: Simulation) =>
  slices.flatMap((slice) => slice.danced.map((step, i) => [beforeStep(slice, i), step] as const))

/** A foot in front of the other, behind it or on a diagonal: not where a rock would have it. */
const AHEAD = 0.2

function isOut({ feet, facing }: Simulation['start'], side: Side, apart: number): boolean {
  const [own, other] = [feet[side].place, feet[otherSide[side]].place]
  return distance(own, other) > apart && Math.abs(asSeen(facing, other, own).forward) > AHEAD
}

/** Whether the hips or the trunk do something there: then the sway is theirs. */
const hasLayer = ({ pass, at }: DancedStep): boolean =>
  pass.events.some(
    (event) =>
      (event.layer === 'hips' || event.layer === 'torso') &&
      pass.at + event.at <= at &&
      pass.at + event.at + event.length > at,
  )
