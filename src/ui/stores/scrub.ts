import { createStore } from 'zustand/vanilla'
import type { Side } from '../../core/body/side'

/** A moment that is looked at by dragging over a ruler; ticks from the start of the combination. */
export interface Scrub {
  readonly side: Side
  readonly tick: number
}

export const scrubbed = createStore<Scrub | undefined>(() => undefined)
