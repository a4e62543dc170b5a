import type { Layer } from '../body/layers'
import type { DancerLook } from '../house/dancerLook'
import type { Family } from '../moves/move'
import type { Pose } from '../pose/joints'
import type { View } from '../pose/views'
import { escaped } from '../record/escaped'
import { FLAT, flatOf } from './flat'
import type { FlatPiece } from './flatPen'
import { dressFor } from './outfits'

/** A pose with the words that stand under it. */
export interface LabelledPose {
  readonly pose: Pose
  readonly label: string
}

/** Ink that reads on white paper. */
const CLOTH: Readonly<Record<Layer, string>> = {
  feet: '#4a3348',
  legs: '#4a3348',
  hips: '#c4501a',
  torso: '#8d2f66',
  arms: '#2a7a72',
  head: '#b98309',
}
const TONE = { hair: '#2b1a17', band: '#e8a13c' } as const
const SKIN: Readonly<Record<DancerLook['skin'], string>> = {
  light: '#d49b76',
  warm: '#a86a45',
  deep: '#6f4029',
}

/** Who is drawn, dressed for a dance of some families. */
interface Drawn {
  readonly look: DancerLook
  readonly families: readonly Family[]
}
const CELL = { width: 190, height: 262 } as const
const PER_ROW = 8
const HEAD = 52

const colourOf = ({ tone, layer }: FlatPiece, skin: DancerLook['skin']): string =>
  tone === 'cloth' ? CLOTH[layer] : tone === 'skin' ? SKIN[skin] : TONE[tone]

const piece = (one: FlatPiece, skin: DancerLook['skin']): string =>
  one.width > 0
    ? `<path d="${one.d}" fill="none" stroke="${colourOf(one, skin)}" stroke-width="${one.width}" stroke-linecap="round" stroke-linejoin="round"/>`
    : `<path d="${one.d}" fill="${colourOf(one, skin)}"/>`

/** A pose by itself, as an SVG file with nothing round it. */
export function poseSvg(pose: Pose, view: View, { look, families }: Drawn): string {
  const { left, top, width, height } = FLAT
  const pieces = flatOf(pose, view, dressFor(look, families))
  return `<svg xmlns="http://www.w3.org/2000/svg" viewBox="${left} ${top} ${width} ${height}">${pieces.map((one) => piece(one, look.skin)).join('')}</svg>`
}

/** Poses in rows on one sheet, as an SVG file of its own. */
export function posesSvg(
  title: string,
  whose: string,
  poses: readonly LabelledPose[],
  view: View,
  { look, families }: Drawn,
): string {
  const worn = dressFor(look, families)
  const columns = Math.min(PER_ROW, Math.max(1, poses.length))
  const [width, height] = [
    Math.max(520, columns * CELL.width),
    HEAD + Math.ceil(poses.length / PER_ROW) * CELL.height,
  ]
  const cells = poses.map(({ pose, label }, i) => {
    const x = (i % PER_ROW) * CELL.width + CELL.width / 2
    const y = HEAD + Math.floor(i / PER_ROW) * CELL.height - FLAT.top + 10
    const floor = view === 'above' ? '' : '<ellipse rx="70" ry="7" fill="#e3cdb2"/>'
    return [
      `<g transform="translate(${x} ${y})">`,
      floor,
      ...flatOf(pose, view, worn).map((one) => piece(one, look.skin)),
      `<text y="34" text-anchor="middle" font-size="19" font-weight="700">${escaped(label)}</text></g>`,
    ].join('')
  })
  return [
    `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${width} ${height}" width="${width}" height="${height}" font-family="Figtree, sans-serif" fill="#2a1826">`,
    `<title>${escaped(title)}</title>`,
    `<rect width="${width}" height="${height}" fill="#fff"/>`,
    `<text x="14" y="26" font-size="22" font-weight="800">${escaped(title)}</text>`,
    `<text x="14" y="45" font-size="14">${escaped(whose)}</text>`,
    ...cells,
    '</svg>\n',
  ].join('\n')
}
