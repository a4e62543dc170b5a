import { MODEL_HEIGHT } from '../../core/house/house'
import { houseNow } from './house'
import { createStore } from './store'

/** How the figure is built: its height against the model's, and how broad it is. */
export interface FigureBuild {
  readonly scale: number
  readonly build: number
}

const of = (): FigureBuild => {
  const { height, build } = houseNow.get().rules.figure
  return { scale: height / MODEL_HEIGHT, build }
}

/** The figure as the studio wants it; follows the house rules. */
export const figureNow = createStore<FigureBuild>(of())
houseNow.subscribe(() => figureNow.set(of))
