import { createStore } from 'zustand/vanilla'
import { MODEL_HEIGHT } from '../../core/house/house'
import type { DressWish } from '../../core/skin/dress'
import { houseNow } from './house'

/** How the figure is built: its height against the model's, how broad it is, and what it wears. */
export interface DancerBuild {
  readonly scale: number
  readonly build: number
  readonly dress: Omit<DressWish, 'detail'>
}

const USUAL_DRESS: DancerBuild['dress'] = {
  shape: 'woman',
  hair: 'braid',
  clothes: { top: 'short', waist: 'bare', legs: 'leggings', hips: 'scarf' },
}

const of = (): DancerBuild => {
  const { height, build } = houseNow.getState().rules.dancer
  return { scale: height / MODEL_HEIGHT, build, dress: USUAL_DRESS }
}

/** The figure as the studio wants it; follows the house rules. */
export const dancerNow = createStore<DancerBuild>(of)
houseNow.subscribe(() => dancerNow.setState(of))
