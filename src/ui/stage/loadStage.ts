import { UserError } from '../../core/errors'

let isDrawn: boolean | undefined

/** Whether this browser can draw in space; asked once, since every asking takes one of its few contexts. */
function hasWebGl(): boolean {
  if (isDrawn !== undefined) return isDrawn
  const context = document.createElement('canvas').getContext('webgl2')
  context?.getExtension('WEBGL_lose_context')?.loseContext()
  isDrawn = context !== null
  return isDrawn
}

/**
 * Loads the stage, which is large.
 * @throws UserError where there is nothing to draw it with.
 */
export async function loadStage(): Promise<typeof import('../../dancer/stage')> {
  if (!hasWebGl())
    throw new UserError(
      'The figure can’t be drawn in space here.',
      'Allow WebGL in the browser’s settings, or use another browser; the flat drawing works in all.',
    )
  return import('../../dancer/stage')
}
