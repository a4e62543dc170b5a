import { createStore } from 'zustand/vanilla'
import type { Dancing } from '../../core/combination/dancing'

/** A moment that is looked at by dragging over a ruler; ticks from the start of the combination. */
export interface Scrub {
  readonly dancing: Dancing
  readonly tick: number
}

export const scrubbed = createStore<Scrub | undefined>(() => undefined)
