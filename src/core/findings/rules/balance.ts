import { factsOf } from '../../body/feet'
import { SIDES, type Side } from '../../body/side'
import type { DancedStep } from '../../simulate/simulate'
import type { BodyState } from '../../simulate/state'
import { secondsBetween } from '../../time/timeMap'
import { type Danceable, type Rule, spotIn } from '../rule'

/** One foot in the air, all on the toes, or deep down, for longer than most can hold it (model 8). */
export const balance: Rule = {
  id: 'balance',
  *check(danceable) {
    const { simulation, house } = danceable
    const { danced, length } = simulation
    for (const foot of SIDES) {
      const isUp = ({ feet, weight }: BodyState) => weight !== foot && feet[foot].contact === 'air'
      for (const { from, to } of stretches(danced, isUp, length))
        yield* long(danceable, from, to, 'air', house.limits['balance.air'], foot)
    }
    for (const { from, to, steps } of stretches(danced, isOnToes, length)) {
      const walking = steps > 0
      const most = house.limits[walking ? 'balance.toesWalking' : 'balance.toes']
      yield* long(danceable, from, to, walking ? 'toes-walking' : 'toes', most)
    }
    for (const down of ['low', 'deep'] as const) {
      const isDown = ({ stands }: BodyState) => stands === down
      const most = house.limits[`balance.${down}`]
      for (const { from, to } of stretches(danced, isDown, length)) {
        const seconds = secondsBetween(simulation.time, from.at, to)
        if (seconds > most + 1e-9)
          yield {
            code: 'legs.long',
            level: down,
            seconds,
            most,
            spot: spotIn(from.pass, from.at, 'feet'),
            events: [from.event.id],
          }
      }
    }
  },
}

const isOnToes = ({ level, weight, feet }: BodyState): boolean =>
  level === 'toes' ||
  (weight === 'both'
    ? SIDES.every((side) => feet[side].contact === 'ball')
    : feet[weight].contact === 'ball')

interface Stretch {
  readonly from: DancedStep
  readonly to: number
  /** Landings inside it. */
  readonly steps: number
}

function stretches(
  danced: readonly DancedStep[],
  holds: (state: BodyState) => boolean,
  end: number,
): readonly Stretch[] {
  const list: Stretch[] = []
  let from: DancedStep | undefined
  let steps = 0
  for (const one of danced) {
    if (holds(one.after)) {
      if (from && factsOf(one.action.primitive).lands) steps++
      from ??= one
    } else if (from) {
      list.push({ from, to: one.at, steps })
      from = undefined
      steps = 0
    }
  }
  return from ? [...list, { from, to: end, steps }] : list
}

function* long(
  danceable: Danceable,
  { pass, at, event }: DancedStep,
  to: number,
  what: 'air' | 'toes' | 'toes-walking',
  most: number,
  foot?: Side,
): ReturnType<Rule['check']> {
  const seconds = secondsBetween(danceable.simulation.time, at, to)
  if (seconds > most + 1e-9)
    yield {
      code: 'balance.long',
      what,
      seconds,
      most,
      ...(foot && { foot }),
      spot: spotIn(pass, at, 'feet'),
      events: [event.id],
    }
}
