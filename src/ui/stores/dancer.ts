import { createStore } from 'zustand/vanilla'
import type { DancerLook } from '../../core/house/dancerLook'
import { MODEL_HEIGHT } from '../../core/house/house'
import { houseNow } from './house'

/** How the figure is built: its height against the model's, how broad it is, and what it looks like. */
export interface DancerBuild {
  readonly scale: number
  readonly build: number
  readonly look: DancerLook
}

const of = (): DancerBuild => {
  const { height, build, look } = houseNow.getState().rules.dancer
  return { scale: height / MODEL_HEIGHT, build, look }
}

/** The figure as the studio wants it; follows the house rules. */
export const dancerNow = createStore<DancerBuild>(of)
houseNow.subscribe(() => dancerNow.setState(of))
