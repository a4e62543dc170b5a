import type { Event } from '../combination/combination'
import type { Move } from '../moves/move'

/** How often a move is danced in its event (model 1): a path or a place is stretched, others repeat. */
export function repeatsIn({ what, length }: Event, move: Move): number {
  const every = what.kind === 'move' ? what.every : undefined
  if (every === undefined && (move.kind === 'path' || move.kind === 'place')) return 1
  return Math.max(1, Math.floor(length / (every ?? move.length)))
}
