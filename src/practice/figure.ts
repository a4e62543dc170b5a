import type { CarriedShape } from '../core/pose/carrying'
import type { Pose } from '../core/pose/joints'
import { VIEWS, type View, viewFacts } from '../core/pose/views'
import type { PageData } from '../core/practice/pageData'
import { FLAT, flatOf } from '../core/skin/flat'
import { flatCarried } from '../core/skin/flatCarried'
import { dressFor } from '../core/skin/outfits'

const SVG = 'http://www.w3.org/2000/svg'

/** The views of a page, and whose right is whose in each. */
export const PAGE_VIEWS = VIEWS.filter((view) => view !== 'side' && view !== 'above')
export const viewName = (view: View): string => viewFacts[view].name
export const whoseRight = (view: View): string => viewFacts[view].whose

/** The dancer of a page, drawn flat. */
export interface Figure {
  readonly element: SVGSVGElement
  readonly draw: (pose: Pose, view: View, carried: readonly CarriedShape[]) => void
}

export function figureOf({ house, combination }: PageData): Figure {
  const { look } = house.dancer
  const worn = dressFor(look, combination.families)
  const element = document.createElementNS(SVG, 'svg')
  element.setAttribute('viewBox', `${FLAT.left} ${FLAT.top} ${FLAT.width} ${FLAT.height}`)
  element.setAttribute('role', 'img')
  element.setAttribute('class', `figure skin-${look.skin}`)
  const floor = document.createElementNS(SVG, 'ellipse')
  for (const [name, value] of [
    ['rx', '70'],
    ['ry', '7'],
    ['class', 'floor'],
  ] as const)
    floor.setAttribute(name, value)
  const group = document.createElementNS(SVG, 'g')
  element.append(floor, group)
  return {
    element,
    draw(pose, view, carried) {
      const pieces = [
        ...flatOf(pose, view, worn).map((one) => ({ ...one, look: `${one.tone} ${one.layer}` })),
        ...flatCarried(carried, pose, view).map((one) => ({ ...one, look: 'carried' })),
      ]
      while (group.childElementCount < pieces.length)
        group.append(document.createElementNS(SVG, 'path'))
      while (group.childElementCount > pieces.length) group.lastElementChild?.remove()
      for (const [i, { d, width, look }] of pieces.entries()) {
        const path = group.children[i]
        if (!path) continue
        path.setAttribute('d', d)
        path.setAttribute('class', `${width > 0 ? 'line' : 'area'} ${look}`)
        path.setAttribute('stroke-width', width > 0 ? String(width) : '0')
      }
      const label = `The dancer. ${whoseRight(view)}`
      if (element.getAttribute('aria-label') !== label) element.setAttribute('aria-label', label)
    },
  }
}
