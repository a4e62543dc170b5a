import { createStore } from 'zustand/vanilla'
import type { View } from '../../core/pose/views'
import type { FrameChoice } from '../../dancer/frames'

/** What is chosen on the stage; it stays while one goes from screen to screen. */
export interface StageChoice extends FrameChoice {
  readonly view: View
}

export const stageChoice = createStore<StageChoice>(() => ({
  view: 'behind',
  both: false,
  trails: false,
  next: false,
}))
