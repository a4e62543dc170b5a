import type { FootAction } from '../body/feet'
import { dance, settled } from '../simulate/primitives'
import type { BodyState } from '../simulate/state'
import { tick } from '../time/time'

/** A way to stand, as far as it decides whether a step can be danced; -1 where one could not. */
export type Stance = number
export const FALLEN: Stance = -1

/**
 * All ways to stand that a search meets, numbered, with what every action makes of them. It
 * asks the simulation itself once for each pair, so the two can't disagree.
 */
export interface Stances {
  readonly of: (state: BodyState) => Stance
  readonly weightOf: (stance: Stance) => BodyState['weight']
  /** @param settles the weight has settled on planted feet before it. */
  readonly after: (stance: Stance, action: FootAction, settles?: boolean) => Stance
  /** With the weight settled, where both feet are planted. */
  readonly settled: (stance: Stance) => Stance
}

const SPOT = { right: 0, forward: 0 }

/** Where the feet are does not decide who carries the weight: it is left out, so that few ways remain. */
const plain = ({ weight, feet, level, moment, stands, pressed }: BodyState): BodyState => ({
  weight,
  feet: {
    R: { place: SPOT, contact: feet.R.contact },
    L: { place: SPOT, contact: feet.L.contact },
  },
  facing: 0,
  level: level === 'toes' ? 'toes' : 'soft',
  turnedOnStep: false,
  stands: stands === 'toes' ? 'toes' : 'soft',
  moment,
  crossed: undefined,
  lastLanding: undefined,
  pressed,
})

export function createStances(): Stances {
  const states: BodyState[] = []
  const numbers = new Map<string, Stance>()
  const actions = new Map<string, number>()
  const known: (Stance | undefined)[][] = []
  const of = (state: BodyState): Stance => {
    const { weight, feet, level, moment, stands, pressed } = state
    const up = `${level === 'toes'}${stands === 'toes'}${moment}`
    const key = `${weight}${feet.R.contact}${feet.L.contact}${up}${pressed}`
    const before = numbers.get(key)
    if (before !== undefined) return before
    numbers.set(key, states.length)
    states.push(plain(state))
    known.push([])
    return states.length - 1
  }
  const numberOf = ({ primitive, foot, size, contact, jump, shared }: FootAction): number => {
    const key = `${primitive} ${foot} ${size} ${contact} ${jump} ${shared}`
    const before = actions.get(key)
    if (before !== undefined) return before
    actions.set(key, actions.size)
    return actions.size - 1
  }
  return {
    of,
    weightOf: (stance) => states[stance]?.weight ?? 'both',
    settled(stance) {
      const state = states[stance]
      return state ? of(settled(state)) : stance
    },
    after(stance, action, settles = false) {
      const state = states[stance]
      if (stance === FALLEN || !state) return FALLEN
      const row = known[stance] ?? []
      const number = numberOf(action) * 2 + (settles ? 1 : 0)
      const before = row[number]
      if (before !== undefined) return before
      const { state: after, fault } = dance(state, action, tick(0), undefined, settles)
      const result = fault ? FALLEN : of(after)
      row[number] = result
      return result
    },
  }
}
