import { UserError } from '../../core/errors'
import type { Stage, StageColours } from '../../dancer/stage'
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

/** The dancer as the house wants her, as finely as this browser draws well. */
export const dressedNow = () =>
  dressed({ ...dancerNow.getState().dress, detail: drawing().isSoftware ? SOFTWARE_DETAIL : 1 })

/**
 * Makes a stage on a canvas: what draws, which is large, is loaded while the dancer is dressed.
 * @throws UserError where there is nothing to draw it with.
 */
export async function stageOn(canvas: HTMLCanvasElement, colours: StageColours): Promise<Stage> {
  if (!drawing().canDraw)
    throw new UserError(
      'The figure can’t be drawn in space here.',
      'Allow WebGL in the browser’s settings, or use another browser; the flat drawing works in all.',
    )
  const [{ createStage }, one] = await Promise.all([import('../../dancer/stage'), dressedNow()])
  return createStage(canvas, colours, { dressed: one, isSmooth: !drawing().isSoftware })
}
