import { LAYERS } from '../../core/body/layers'
import type { Stage, StageColours } from '../../dancer/stage'
import { loadStage } from './loadStage'

/** How finely the stage is drawn at the most: more pixels than that cost frames and show nothing. */
const MOST_RATIO = 1.5

interface Watching {
  readonly onOpen: (stage: Stage) => void
  readonly onResize: () => void
  /** There is no WebGL here, or it could not be loaded. */
  readonly onFail: () => void
  readonly onClose: () => void
}

/**
 * Loads the stage and opens it on a canvas; it follows the canvas' size and the theme. Returns
 * what closes it.
 */
export function openStage(canvas: HTMLCanvasElement, watching: Watching): () => void {
  let isClosed = false
  let close = () => {}
  void loadStage()
    .then(({ createStage }) => {
      if (isClosed) return
      const stage = createStage(canvas, coloursOf(canvas))
      const resize = () => {
        const { clientWidth, clientHeight } = canvas
        if (clientWidth === 0 || clientHeight === 0) return
        stage.resize(clientWidth, clientHeight, Math.min(devicePixelRatio, MOST_RATIO))
        watching.onResize()
      }
      const sizes = new ResizeObserver(resize)
      sizes.observe(canvas)
      const themes = new MutationObserver(() => {
        stage.setColours(coloursOf(canvas))
        watching.onResize()
      })
      themes.observe(document.documentElement, { attributeFilter: ['data-mantine-color-scheme'] })
      close = () => {
        sizes.disconnect()
        themes.disconnect()
        stage.dispose()
        watching.onClose()
      }
      watching.onOpen(stage)
      resize()
    })
    .catch(() => {
      if (!isClosed) watching.onFail()
    })
  return () => {
    isClosed = true
    close()
  }
}

/** The theme's colours; skin and hair are the figure's own. */
export function coloursOf(element: Element): StageColours {
  const style = getComputedStyle(element)
  const read = (name: string) => style.getPropertyValue(name).trim()
  return {
    body: {
      layers: Object.fromEntries(
        LAYERS.map((layer) => [layer, read(`--cloth-${layer}`)]),
      ) as StageColours['body']['layers'],
      skin: read('--skin'),
      hair: read('--hair'),
      band: read('--beads'),
      quiet: read('--line'),
    },
    air: read('--stage-air'),
    floor: read('--stage-floor'),
    line: read('--stage-line'),
    ink: read('--ink'),
  }
}
