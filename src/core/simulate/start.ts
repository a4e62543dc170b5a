import type { Start } from '../combination/start'
import { stanceAround, USUAL_LANDING } from './landing'
import type { BodyState } from './state'

/** The body on count 1, before anything is danced. */
export function startState(start: Start, landing = USUAL_LANDING): BodyState {
  const stance = stanceAround({ right: 0, forward: 0 }, start.facing, landing.stance)
  return {
    weight: start.weight,
    feet: {
      R: { place: stance.R, contact: 'flat' },
      L: { place: stance.L, contact: 'flat' },
    },
    facing: start.facing,
    level: start.level,
    turnedOnStep: false,
    stands: start.level,
    // Every field is there from the start: states of one shape are faster to copy.
    moment: undefined,
    crossed: undefined,
    lastLanding: undefined,
    pressed: undefined,
  }
}
