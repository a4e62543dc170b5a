import type { Pose } from '../../core/pose/joints'
import type { View } from '../../core/pose/views'
import type { Worn } from '../../core/skin/dress'
import { flatOf } from '../../core/skin/flat'
import classes from './stage.module.css'

const SVG = 'http://www.w3.org/2000/svg'

/** Draws a pose flat into a group, frame by frame: no component is rendered. */
export function drawFlat(group: SVGGElement, pose: Pose, view: View, worn: Worn): void {
  const pieces = flatOf(pose, view, worn)
  while (group.childElementCount < pieces.length)
    group.append(document.createElementNS(SVG, 'path'))
  while (group.childElementCount > pieces.length) group.lastElementChild?.remove()
  for (const [i, { layer, tone, width, d }] of pieces.entries()) {
    const path = group.children[i]
    if (!path) continue
    path.setAttribute('d', d)
    path.setAttribute('class', `${classes[tone]} layer-${layer}`)
    set(path, 'fill', width > 0 ? 'none' : undefined)
    set(path, 'stroke', width > 0 ? undefined : 'none')
    set(path, 'stroke-width', width > 0 ? String(width) : undefined)
  }
}

const set = (path: Element, name: string, value: string | undefined): void => {
  if (value === undefined) path.removeAttribute(name)
  else path.setAttribute(name, value)
}
