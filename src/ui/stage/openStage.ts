import { LAYERS } from '../../core/body/layers'
import type { StageColours } from '../../dancer/onStage'
import type { Stage } from '../../dancer/stage'
import { dancerNow } from '../stores/dancer'
import { stageOn } from './loadStage'

/** How finely the stage is drawn at the most: more pixels than that cost frames and show nothing. */
const MOST_RATIO = 1.5
/** Small pictures are drawn finer than they are shown, so that their edges are smooth. */
const SMALL_RATIO = 2

/** A stage as it is used on one canvas. */
export type StageOn = Pick<Stage, 'draw' | 'partAt' | 'prepare'>

interface Watching {
  readonly onOpen: (stage: StageOn) => void
  /** Its size or its colours are others: it is to be drawn again. */
  readonly onResize: () => void
  /** There is no WebGL here, or it could not be loaded. */
  readonly onFail: () => void
  readonly onClose: () => void
}

/**
 * Loads the stage and opens it on a canvas; it follows the canvas' size and the theme. Returns
 * what closes it.
 */
export const openStage = (canvas: HTMLCanvasElement, watching: Watching): (() => void) =>
  opening(stageOn(canvas, coloursOf(canvas)), watching, (stage) => {
    const resize = () => {
      const { clientWidth, clientHeight } = canvas
      if (clientWidth === 0 || clientHeight === 0) return
      stage.resize(clientWidth, clientHeight, Math.min(devicePixelRatio, MOST_RATIO))
      watching.onResize()
    }
    const sizes = new ResizeObserver(resize)
    sizes.observe(canvas)
    const unwatch = watchTheme(() => {
      stage.setColours(coloursOf(canvas))
      watching.onResize()
    })
    resize()
    return {
      on: stage,
      close() {
        sizes.disconnect()
        unwatch()
        stage.dispose()
      },
    }
  })

interface Shared {
  readonly stage: Stage
  readonly canvas: HTMLCanvasElement
  /** Makes it as large as the picture that is drawn next. */
  readonly sizeFor: (width: number, height: number) => void
}

let shared: Promise<Shared> | undefined

/** A browser has few places to draw in space, so one stage draws all small pictures in turn. */
function sharedStage() {
  if (shared) return shared
  const canvas = document.createElement('canvas')
  shared = stageOn(canvas, coloursOf(document.documentElement)).then((stage) => {
    watchTheme(() => stage.setColours(coloursOf(document.documentElement)))
    let size = ''
    const sizeFor = (width: number, height: number) => {
      const next = `${width} ${height}`
      if (next !== size) stage.resize(width, height, SMALL_RATIO)
      size = next
    }
    return { stage, canvas, sizeFor }
  })
  return shared
}

/** The same for a small picture among others. */
export const shareStage = (canvas: HTMLCanvasElement, watching: Watching): (() => void) =>
  opening(sharedStage(), watching, ({ stage, canvas: source, sizeFor }) => {
    const pen = canvas.getContext('2d')
    return {
      on: {
        draw(dancers, look) {
          const { clientWidth, clientHeight } = canvas
          if (clientWidth === 0 || clientHeight === 0) return
          sizeFor(clientWidth, clientHeight)
          stage.draw(dancers, look)
          // Its size takes what was there away.
          canvas.width = source.width
          canvas.height = source.height
          pen?.drawImage(source, 0, 0)
        },
        partAt: stage.partAt,
        prepare: stage.prepare,
      },
      close: watchTheme(watching.onResize),
    }
  })

interface Opened {
  readonly on: StageOn
  readonly close: () => void
}

/** Opens what is being loaded, unless it is closed before. */
function opening<T>(
  loading: Promise<T>,
  watching: Watching,
  open: (loaded: T) => Opened,
): () => void {
  let isClosed = false
  let close = () => {}
  void loading
    .then((loaded) => {
      if (isClosed) return
      const opened = open(loaded)
      close = () => {
        opened.close()
        watching.onClose()
      }
      watching.onOpen(opened.on)
    })
    .catch(() => {
      if (!isClosed) watching.onFail()
    })
  return () => {
    isClosed = true
    close()
  }
}

function watchTheme(changed: () => void): () => void {
  const themes = new MutationObserver(changed)
  themes.observe(document.documentElement, { attributeFilter: ['data-mantine-color-scheme'] })
  // The dancer's own colours are the house's.
  const unwatch = dancerNow.subscribe(({ look }, before) => {
    if (look.skin !== before.look.skin) changed()
  })
  return () => {
    themes.disconnect()
    unwatch()
  }
}
/** The theme's colours; the skin is the dancer's own. */
export function coloursOf(element: Element): StageColours {
  const style = getComputedStyle(element)
  const read = (name: string) => style.getPropertyValue(name).trim()
  return {
    body: {
      layers: Object.fromEntries(
        LAYERS.map((layer) => [layer, read(`--cloth-${layer}`)]),
      ) as StageColours['body']['layers'],
      skin: read(`--skin-${dancerNow.getState().look.skin}`),
      hair: read('--hair'),
      band: read('--beads'),
      quiet: read('--line'),
    },
    air: read('--stage-air'),
    floor: read('--stage-floor'),
    line: read('--stage-line'),
    ink: read('--ink'),
    parts: Array.from({ length: 8 }, (_, i) => read(`--part-${i + 1}`)),
  }
}
