import type { Side } from '../body/side'
import { TICKS_PER_COUNT } from '../time/time'
import type { Simulation } from './simulate'

/** How far the body turns on one count of a pass, and where it faces after it. */
export interface CountTurn {
  readonly pass: number
  /** Count of the phrase, from 1. */
  readonly count: number
  /** Clockwise from above. */
  readonly degrees: number
  readonly facing: number
}

/** Every count that turns, in order. The sum of the degrees is the facing at the end, from the start. */
export function turnsOf(simulation: Simulation): readonly CountTurn[] {
  const turns: CountTurn[] = []
  let facing = simulation.start.facing
  for (const { action, at, pass, after } of simulation.danced) {
    if (!action.turn) continue
    const count = Math.floor((at - pass.at) / TICKS_PER_COUNT) + 1
    const last = turns.at(-1)
    facing = after.facing
    if (last && last.pass === pass.index && last.count === count)
      turns[turns.length - 1] = { ...last, degrees: last.degrees + action.turn, facing }
    else turns.push({ pass: pass.index, count, degrees: action.turn, facing })
  }
  return turns
}

/** The way a turn opens when this foot is free: towards it; the other way it crosses. */
export const naturalWay = (free: Side): 'right' | 'left' => (free === 'R' ? 'right' : 'left')
