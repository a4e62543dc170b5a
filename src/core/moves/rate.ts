import { TICKS_PER_COUNT } from '../time/time'
import type { Move } from './move'

interface Cycles {
  /** Swings a count, at its own usual length. */
  readonly perCount: number
  /** Rounds in one whole move. */
  readonly inMove: number
}

const known = new WeakMap<Move, Cycles>()

/** How often a move goes round by itself: the quickest of what it is made of. */
export function cyclesOf(move: Move): Cycles {
  const before = known.get(move)
  if (before) return before
  const counts = move.length / TICKS_PER_COUNT
  const rates = move.motion.flatMap((item) =>
    'rate' in item && item.rate
      ? [item.rate.per === 'count' ? item.rate.cycles : item.rate.cycles / counts]
      : [],
  )
  const perCount = rates.length > 0 ? Math.max(...rates) : 1 / counts
  const made = { perCount, inMove: Math.max(1, perCount * counts) }
  known.set(move, made)
  return made
}
