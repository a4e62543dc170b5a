import type { Move } from '../moves/move'
import { COUNT, slotAt, TICKS_PER_COUNT, type Tick, tick } from '../time/time'
import type { What } from '../what/kinds'

/**
 * How long something lasts whose count alone is written: a whole count means the move's own
 * counts or its spacing, at most to the end of the phrase; anything else its own slot.
 */
export function meantLength(at: Tick, what: What, move: Move | undefined, counts: number): Tick {
  const slot = slotAt(at)
  if (slot !== COUNT) return slot
  const own = what.kind === 'move' ? Math.max(move?.length ?? COUNT, what.every ?? 0) : COUNT
  return tick(Math.min(own, counts * TICKS_PER_COUNT - at))
}
