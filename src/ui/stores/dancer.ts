import { createStore } from 'zustand/vanilla'
import { MODEL_HEIGHT } from '../../core/house/house'
import { houseNow } from './house'

/** How the figure is built: its height against the model's, and how broad it is. */
export interface DancerBuild {
  readonly scale: number
  readonly build: number
}

const of = (): DancerBuild => {
  const { height, build } = houseNow.getState().rules.dancer
  return { scale: height / MODEL_HEIGHT, build }
}

/** The figure as the studio wants it; follows the house rules. */
export const dancerNow = createStore<DancerBuild>(of)
houseNow.subscribe(() => dancerNow.setState(of))
