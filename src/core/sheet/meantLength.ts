import { COUNT, slotAt, TICKS_PER_COUNT, type Tick, tick } from '../time/time'

/**
 * How long something lasts whose count alone is written: a whole count means the move's own
 * counts or its spacing, at most to the end of the phrase; anything else its own slot.
 * @param own what it lasts by itself
 */
export function meantLength(at: Tick, own: Tick, counts: number): Tick {
  const slot = slotAt(at)
  if (slot !== COUNT) return slot
  return tick(Math.min(own, counts * TICKS_PER_COUNT - at))
}
