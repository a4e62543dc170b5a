import { type Side, signOf } from '../../core/body/side'
import type { StandingBody } from '../../core/pose/standing'

/** Attributes of each part of the drawing, by the part's name. */
export type FigureParts = Readonly<Record<string, Readonly<Record<string, string>>>>

/** Pixels a metre. */
const SCALE = 128
const MIDDLE = 100
const FLOOR = 236
const HIP_HEIGHT = 0.8
const CHEST_HEIGHT = 1.14
const FOOT_APART = 0.17

interface Point {
  readonly x: number
  readonly y: number
}

const at = (right: number, up: number): Point => ({
  x: MIDDLE + right * SCALE,
  y: FLOOR - up * SCALE,
})
const n = (value: number) => value.toFixed(1)
const to = (points: readonly Point[]) => points.map(({ x, y }) => `${n(x)} ${n(y)}`)

/** The standing body as lines on paper, from behind: right is right. */
export function partsOf(body: StandingBody): FigureParts {
  const shift = body.weight * 0.07
  const hips = { right: shift + body.hips.right, up: HIP_HEIGHT + body.hips.up }
  const chest = { right: shift * 0.6 + body.ribs.right, up: CHEST_HEIGHT + body.ribs.up }
  const tilt = (body.hips.tilt * Math.PI) / 180
  const hipEnd = (side: Side) =>
    at(
      hips.right + signOf(side) * 0.1 * Math.cos(tilt),
      hips.up + signOf(side) * 0.1 * Math.sin(tilt),
    )
  const foot = (side: Side) => at(signOf(side) * FOOT_APART, 0.03 + body.lifted[side])
  const leg = (side: Side) => {
    const [hip, ankle] = [hipEnd(side), foot(side)]
    // A lifted foot bends its knee outwards; a standing one stays soft.
    const out = signOf(side) * (4 + body.lifted[side] * 120)
    const knee = { x: (hip.x + ankle.x) / 2 + out, y: (hip.y + ankle.y) / 2 }
    return { d: `M${to([hip, knee, ankle]).join(' L')}` }
  }
  const sole = (side: Side) => {
    const { x, y } = foot(side)
    return { d: `M${n(x - 5)} ${n(y)} q5 -8 10 0 q${signOf(side) * 2} 6 -5 6 q-6 0 -5 -6 z` }
  }
  const shoulder = (side: Side) => at(chest.right + signOf(side) * 0.165, chest.up + 0.12)
  const arm = (side: Side) => {
    const from = shoulder(side)
    const palm = body.palms[side]
    const hand = at(chest.right + palm.right, chest.up + palm.up)
    const reach = Math.hypot(hand.x - from.x, hand.y - from.y) / SCALE
    const bend = Math.sqrt(Math.max(0, 0.27 ** 2 - (reach / 2) ** 2)) * SCALE
    const elbow = {
      x: (from.x + hand.x) / 2 + signOf(side) * bend * 0.8,
      y: (from.y + hand.y) / 2 + bend * 0.5,
    }
    return { d: `M${to([from, elbow, hand]).join(' L')}` }
  }
  const waist = (side: Side) =>
    at((hips.right + chest.right) / 2 + signOf(side) * 0.085, (hips.up + chest.up) / 2)
  const [sr, sl, hr, hl, wr, wl] = to([
    shoulder('R'),
    shoulder('L'),
    hipEnd('R'),
    hipEnd('L'),
    waist('R'),
    waist('L'),
  ])
  const hip = at(hips.right, hips.up)
  const head = at(chest.right * 0.5, chest.up + 0.38)
  const knotShift = -Math.sin((body.head.turn * Math.PI) / 180) * 9
  return {
    legR: leg('R'),
    legL: leg('L'),
    footR: sole('R'),
    footL: sole('L'),
    torso: { d: `M${sl} L${sr} Q${wr} ${hr} L${hl} Q${wl} ${sl} Z` },
    hips: {
      cx: n(hip.x),
      cy: n(hip.y),
      rx: '17',
      ry: '11',
      transform: `rotate(${n(-body.hips.tilt)} ${n(hip.x)} ${n(hip.y)})`,
    },
    belt: { d: `M${hl} Q${n(hip.x)} ${n(hip.y + 9)} ${hr}` },
    armR: arm('R'),
    armL: arm('L'),
    neck: { d: `M${to([at(chest.right * 0.8, chest.up + 0.12), head]).join(' L')}` },
    head: {
      cx: n(head.x),
      cy: n(head.y + body.head.nod * 0.08),
      rx: '12',
      ry: '15',
      transform: `rotate(${n(body.head.tilt)} ${n(head.x)} ${n(head.y)})`,
    },
    headKnot: {
      cx: n(head.x + knotShift),
      cy: n(head.y - 3 - body.head.nod * 0.1),
      rx: '5.5',
      ry: '5.5',
    },
  }
}
