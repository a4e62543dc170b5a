import type { View } from '../../core/pose/views'
import type { Worn } from '../../core/skin/dress'
import { flatOf } from '../../core/skin/flat'
import { flatCarried } from '../../core/skin/flatCarried'
import type { OnStage } from '../../dancer/onStage'
import classes from './stage.module.css'

const SVG = 'http://www.w3.org/2000/svg'

/** Draws a pose flat into a group, frame by frame: no component is rendered. */
export function drawFlat(
  group: SVGGElement,
  { pose, carried }: Pick<OnStage, 'pose' | 'carried'>,
  view: View,
  worn: Worn,
): void {
  const pieces = [
    ...flatOf(pose, view, worn).map((one) => ({
      ...one,
      look: `${classes[one.tone]} layer-${one.layer}`,
    })),
    ...flatCarried(carried, pose, view).map((one) => ({ ...one, look: classes.carried ?? '' })),
  ]
  while (group.childElementCount < pieces.length)
    group.append(document.createElementNS(SVG, 'path'))
  while (group.childElementCount > pieces.length) group.lastElementChild?.remove()
  for (const [i, { width, d, look }] of pieces.entries()) {
    const path = group.children[i]
    if (!path) continue
    path.setAttribute('d', d)
    path.setAttribute('class', look)
    set(path, 'fill', width > 0 ? 'none' : undefined)
    set(path, 'stroke', width > 0 ? undefined : 'none')
    set(path, 'stroke-width', width > 0 ? String(width) : undefined)
  }
}

const set = (path: Element, name: string, value: string | undefined): void => {
  if (value === undefined) path.removeAttribute(name)
  else path.setAttribute(name, value)
}
