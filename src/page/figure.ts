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
export type PageView = (typeof PAGE_VIEWS)[number]
export const viewName = (view: View): string => viewFacts[view].name
export const whoseRight = (view: View): string => viewFacts[view].whose

/** What is drawn besides her: what she carries, and those who dance with her, faintly. */
interface Beside {
  readonly carried: readonly CarriedShape[]
  readonly others: readonly Pose[]
}

/** Who dances with others needs room for them in the picture: so many centimetres more on each side. */
const ROOM_FOR_OTHERS = 70

/** The dancer of a page, drawn flat. */
export interface Figure {
  readonly element: SVGSVGElement
  readonly draw: (pose: Pose, view: View, beside: Beside) => void
}

/** Whose dance is drawn, and by which house. */
interface Drawing extends Pick<PageData, 'house' | 'combination'> {
  /** Others dance with her. */
  readonly isAmongOthers: boolean
}

export function figureOf({ house, combination, isAmongOthers }: Drawing): Figure {
  const { look } = house.dancer
  const worn = dressFor(look, combination.families)
  const element = document.createElementNS(SVG, 'svg')
  const more = isAmongOthers ? ROOM_FOR_OTHERS : 0
  element.setAttribute(
    'viewBox',
    `${FLAT.left - more} ${FLAT.top} ${FLAT.width + 2 * more} ${FLAT.height}`,
  )
  element.setAttribute('role', 'img')
  element.setAttribute('class', `figure skin-${look.skin}`)
  const floor = document.createElementNS(SVG, 'ellipse')
  for (const [name, value] of [
    ['rx', '70'],
    ['ry', '7'],
    ['class', 'floor'],
  ] as const)
    floor.setAttribute(name, value)
  const [beside, group] = ['others', 'own'].map((name) => {
    const made = document.createElementNS(SVG, 'g')
    made.setAttribute('class', name)
    return made
  }) as [SVGGElement, SVGGElement]
  element.append(floor, beside, group)
  return {
    element,
    draw(pose, view, { carried, others }) {
      const body = (of: Pose) =>
        flatOf(of, view, worn).map((one) => ({ ...one, look: `${one.tone} ${one.layer}` }))
      fill(beside, others.flatMap(body))
      fill(group, [
        ...body(pose),
        ...flatCarried(carried, pose, view).map((one) => ({ ...one, look: 'carried' })),
      ])
      const label = `The dancer. ${whoseRight(view)}`
      if (element.getAttribute('aria-label') !== label) element.setAttribute('aria-label', label)
    },
  }
}

interface Drawn {
  readonly d: string
  readonly width: number
  readonly look: string
}

/** Draws pieces into a group that is there, piece by piece. */
function fill(group: SVGGElement, pieces: readonly Drawn[]): void {
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
}
