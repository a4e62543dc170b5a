import type { Pose } from '../pose/joints'
import type { View } from '../pose/views'
import type { Worn } from './dress'
import { drawLimbs, drawNeckline, drawTrunk } from './flatBody'
import { drawHead } from './flatHead'
import { drawHips } from './flatHips'
import { type FlatPen, type FlatPiece, type Piece, penFor } from './flatPen'
import { SHAPES } from './flatShapes'

/** How large a flat drawing is, in centimetres: the floor is at the bottom. */
export const FLAT = { left: -90, top: -205, width: 180, height: 215 } as const

/** A pose drawn flat as an SVG would draw it: the same body in the same clothes, the farthest pieces first. */
export function flatOf(
  pose: Pose,
  view: View,
  { shape, hair, clothes }: Worn,
): readonly FlatPiece[] {
  const pen = penFor(pose, view)
  const own = SHAPES[shape]
  drawLimbs(pen, own, clothes)
  drawTrunk(pen, own, clothes)
  drawHips(pen, own, clothes.hips)
  drawNeckline(pen)
  drawHead(pen, hair)
  return inOrder(pen)
}

function inOrder({ view, pieces }: FlatPen): readonly FlatPiece[] {
  // What is worn round the hips lies over the legs, however they stand.
  const legs = Math.max(
    ...pieces
      .filter(({ layer, tone }) => layer === 'feet' && tone === 'cloth')
      .map(({ near }) => near),
  )
  const over = ({ layer, near }: Piece) =>
    layer === 'hips' && view !== 'above' ? Math.max(near, legs) + 0.01 + near / 100 : near
  return pieces
    .sort((a, b) => over(a) - over(b))
    .map(({ layer, d, width, tone }) => ({ layer, d, width, tone }))
}
