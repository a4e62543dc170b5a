import { UserError } from '../../core/errors'
import type { Family } from '../../core/moves/move'
import type { Dressed } from '../../core/skin/dress'
import { dressFor } from '../../core/skin/outfits'
import type { StageColours } from '../../dancer/onStage'
import type { Stage } from '../../dancer/stage'
import { dressed } from '../../workers/dressing'
import { dancerNow } from '../stores/dancer'

/** How this browser draws in space, if it can. */
interface Drawing {
  readonly canDraw: boolean
  /** It has no graphics processor to draw with: it says so by its drawer's name. */
  readonly isSoftware: boolean
}

let known: Drawing | undefined

/** Asked once, since every asking takes one of the browser's few contexts. */
function drawing(): Drawing {
  if (known) return known
  const context = document.createElement('canvas').getContext('webgl2')
  const info = context?.getExtension('WEBGL_debug_renderer_info')
  const name = info ? String(context?.getParameter(info.UNMASKED_RENDERER_WEBGL)) : ''
  context?.getExtension('WEBGL_lose_context')?.loseContext()
  known = {
    canDraw: context !== null,
    isSoftware: /swiftshader|llvmpipe|software|basic render/i.test(name),
  }
  return known
}

/** Fewer triangles where there is no graphics processor. */
const SOFTWARE_DETAIL = 0.7

/** @throws UserError where there is nothing to draw in space with. */
function drawsInSoftware(): boolean {
  const { canDraw, isSoftware } = drawing()
  if (canDraw) return isSoftware
  throw new UserError(
    'The figure can’t be drawn in space here.',
    'Allow WebGL in the browser’s settings, or use another browser; the flat drawing works in all.',
  )
}

/**
 * The dancer as the house wants her for a dance, as finely as this browser draws well.
 * @throws UserError where there is nothing to draw her with: nobody makes her in vain.
 */
export async function dressedNow(families: readonly Family[]): Promise<Dressed> {
  const detail = drawsInSoftware() ? SOFTWARE_DETAIL : 1
  return dressed({ ...dressFor(dancerNow.getState().look, families), detail })
}

/**
 * Makes a stage on a canvas. What draws is large, and loaded when it is first asked for.
 * @throws UserError where there is nothing to draw it with.
 */
export async function stageOn(canvas: HTMLCanvasElement, colours: StageColours): Promise<Stage> {
  const isSmooth = !drawsInSoftware()
  const { createStage } = await import('../../dancer/stage')
  return createStage(canvas, colours, { isSmooth })
}
