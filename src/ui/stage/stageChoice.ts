import { createStore } from 'zustand/vanilla'
import type { View } from '../../core/pose/views'
import type { FrameChoice } from '../../dancer/frames'

/** What is chosen on the stage; it stays while one goes from screen to screen. */
export interface StageChoice extends FrameChoice {
  readonly view: View
  /** The other side beside it. */
  readonly both: boolean
  /** The picture is filled by the layer that is looked at. */
  readonly close: boolean
  /** How much larger than it is danced an isolation is shown, 1 to 1.6. */
  readonly clearer: number
  /** Whether the figure has much of the screen; as there is room where nobody said. */
  readonly isWide: boolean | undefined
  /** Whether the floor map takes the braid's place. */
  readonly isFloorAlone: boolean
}

export const stageChoice = createStore<StageChoice>(() => ({
  view: 'behind',
  both: false,
  trails: false,
  ghost: 'none',
  close: true,
  clearer: 1,
  isWide: undefined,
  isFloorAlone: false,
}))
