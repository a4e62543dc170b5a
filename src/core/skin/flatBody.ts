import type { Layer } from '../body/layers'
import { SIDES, type Side, signOf } from '../body/side'
import { type Carried, SIDE_BONES, spineChain } from './bones'
import type { Vec } from './field'
import { type FlatPen, type FlatPiece, nearOf } from './flatPen'
import { type FlatShape, type Limb, loose, ringAt } from './flatShapes'
import { hull, outline, steps } from './outlines'
import { type Clothes, HEM, LEGGINGS_TO, TROUSERS_TO } from './paint'
import { ANKLE } from './rest'

/** Draws legs and arms in what they wear. */
export function drawLimbs(pen: FlatPen, { leg, arm, hand }: FlatShape, clothes: Clothes): void {
  const { scale, seenOn, closed, put } = pen
  const hasTrousers = clothes.legs === 'trousers'
  const legTo = hasTrousers ? TROUSERS_TO : LEGGINGS_TO
  const sleeveTo = clothes.top === 'long' ? 0.03 : 0.098
  for (const side of SIDES) {
    const limb = (
      layer: Layer,
      tone: FlatPiece['tone'],
      samples: readonly number[],
      own: Limb,
      isRound = false,
    ) => {
      const middle = samples.map((along) => seenOn(side, own, along))
      const half = samples.map((along) => own.thick(along) * scale)
      put(layer, tone, outline(middle, half, isRound, closed), nearOf(middle))
    }
    limb('feet', 'skin', steps(LEGGINGS_TO, 0.815, 3), leg)
    limb('feet', 'cloth', steps(-0.03, legTo, 12), hasTrousers ? loose(leg) : leg, true)
    limb('torso', 'cloth', steps(-0.015, sleeveTo, 4), arm, true)
    limb('arms', 'skin', steps(sleeveTo, 0.292, 6), arm)
    limb('arms', 'cloth', steps(0.292, 0.487, 5), arm)
    limb('arms', 'skin', steps(0.487, 0.68, 6), hand, true)
    foot(pen, side)
  }
}

function foot({ seen, closed, put }: FlatPen, side: Side): void {
  const bones = SIDE_BONES[side]
  const by: Carried = { first: bones.foot, second: bones.foot, share: 1 }
  const toes: Carried = { first: bones.toes, second: bones.toes, share: 1 }
  const points = FOOT_POINTS.map(([aside, up, ahead]) =>
    seen([signOf(side) * (ANKLE[0] + aside), up, -ahead], ahead > 0.125 ? toes : by),
  )
  put('feet', 'skin', closed(hull(points)), nearOf(points))
}

/** Draws the trunk from the hips to the neck in what it wears. */
export function drawTrunk(pen: FlatPen, shape: FlatShape, clothes: Clothes): void {
  const isBare = clothes.top === 'short' && clothes.waist === 'bare'
  if (isBare) trunk(pen, shape, ['torso', 'skin'], [0.95, HEM + 0.01])
  trunk(pen, shape, ['torso', 'cloth'], [isBare ? HEM : 0.95, 1.425])
  trunk(pen, shape, ['head', 'skin'], [1.4, 1.5])
  trunk(pen, shape, ['feet', 'cloth'], [0.83, 0.97])
  trunk(pen, shape, ['hips', 'cloth'], [clothes.hips === 'sash' ? 0.925 : 0.89, 0.982], 0.008)
}

function trunk(
  pen: FlatPen,
  shape: FlatShape,
  [layer, tone]: readonly [Layer, FlatPiece['tone']],
  [from, to]: readonly [number, number],
  more = 0,
): void {
  const rings = steps(from, to, Math.max(3, Math.round((to - from) / 0.03))).map((up) =>
    ringAt(pen, shape, up),
  )
  const side = (sign: 1 | -1) =>
    rings.map(({ middle, wide, rise }) => ({
      right: middle.right + sign * (wide + more),
      up: middle.up + sign * rise,
    }))
  pen.put(
    layer,
    tone,
    pen.closed([...side(1), ...side(-1).reverse()]),
    nearOf(rings.map(({ middle }) => middle)) + more,
  )
}

/** Draws the neckline, where it is seen. */
export function drawNeckline({ seen, closed, put }: FlatPen): void {
  const collar = NECKLINE.map((point) => seen(point, spineChain(point[1])))
  const throat = seen([0, 1.36, 0], spineChain(1.36))
  if (nearOf(collar) > throat.near) put('torso', 'skin', closed(collar), nearOf(collar) + 0.05)
}

/** The foot's outline as points of its skin: aside, up, ahead of the ankle. */
const FOOT_POINTS: readonly Vec[] = [
  [-0.025, -0.01, -0.05],
  [0.025, -0.01, -0.05],
  [-0.02, 0.06, -0.03],
  [0.02, 0.06, -0.03],
  [-0.03, 0.05, 0.03],
  [0.03, 0.05, 0.03],
  [-0.04, -0.01, 0.1],
  [0.042, -0.01, 0.1],
  [-0.035, 0.02, 0.1],
  [0.035, 0.02, 0.1],
  [-0.03, -0.01, 0.18],
  [0.03, -0.01, 0.16],
  [0, 0.005, 0.185],
]

const NECKLINE: readonly Vec[] = [
  [-0.085, 1.405, -0.045],
  [-0.04, 1.365, -0.085],
  [0, 1.34, -0.1],
  [0.04, 1.365, -0.085],
  [0.085, 1.405, -0.045],
  [0.045, 1.44, -0.04],
  [-0.045, 1.44, -0.04],
]
