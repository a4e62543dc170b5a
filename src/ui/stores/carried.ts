import { createStore } from 'zustand/vanilla'
import type { Layer } from '../../core/body/layers'
import type { Tick } from '../../core/time/time'
import type { What } from '../../core/what/kinds'

/** A move on its way from a list to the braid. */
export interface Carried {
  readonly name: string
  readonly layer: Layer
  readonly what: What
  readonly length: Tick
  /** Where the pointer has it, in pixels of the window. */
  readonly clientX: number
  readonly clientY: number
  /** It was let go there: whoever stands there takes it. */
  readonly isLetGo: boolean
}

export const carried = createStore<Carried | undefined>(() => undefined)
