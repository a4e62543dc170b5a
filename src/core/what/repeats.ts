import type { Move } from '../moves/move'
import { type Tick, tick } from '../time/time'

/** How a move fills the ticks it has. */
export interface Repeats {
  /** Ticks of each repeat. */
  readonly every: Tick
  /** Whole ones; 0 for a figure that does not fit even once, all else is danced at least once. */
  readonly times: number
  /** Ticks behind the last whole one. */
  readonly left: Tick
}

/**
 * How often a move is danced in its range (model 1): steps and accents again and again at their
 * own length, a path, a place or a texture once, stretched to all of it; each at its spacing where
 * one is written.
 */
export function repeatsOf(
  what: { readonly kind: string; readonly every?: Tick | undefined },
  length: number,
  move: Move,
): Repeats {
  const isStretched = move.kind !== 'steps' && move.kind !== 'accent'
  const every = what.every ?? tick(isStretched ? length : move.length)
  const whole = Math.floor(length / every)
  const times = move.kind === 'steps' ? whole : Math.max(1, whole)
  return { every, times, left: tick(Math.max(0, length - times * every)) }
}
