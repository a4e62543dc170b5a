import type { View } from '../../core/pose/views'
import { createStore } from '../stores/store'

/** What is chosen on the stage; it stays while one goes from screen to screen. */
export interface StageChoice {
  readonly view: View
  /** Both sides next to each other, in step. */
  readonly both: boolean
  /** The way of hip bones and hands over the last counts. */
  readonly trails: boolean
  /** The pose of the next count, seen through. */
  readonly next: boolean
}

export const stageChoice = createStore<StageChoice>({
  view: 'behind',
  both: false,
  trails: false,
  next: false,
})
