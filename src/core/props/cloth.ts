import type { ArmPlace, FloorPoint, PalmPoint, Palms } from '../body/places'
import { palmAt } from '../body/places'
import { SIDES, type Side } from '../body/side'
import type { Carried, Drape, Feature, Prop } from '../combination/carried'
import type { House } from '../house/house'

/** How high the middle of the chest is, in metres of a dancer of 1.65 m. */
const CHEST_UP = 1.27

/** Where a feature is on a thing that lies flat: along it from its left end, and down from its upper edge. */
export function placeOn({ long, deep }: Prop['size'], feature: Feature): readonly [number, number] {
  switch (feature) {
    case 'top-R':
      return [long, 0]
    case 'top-L':
    case 'end':
    case 'handle':
      return [0, 0]
    case 'bottom-R':
      return [long, deep]
    case 'bottom-L':
      return [0, deep]
    case 'top':
    case 'middle':
      return [long / 2, 0]
    case 'bottom':
      return [long / 2, deep]
    case 'side-R':
      return [long, deep / 2]
    case 'side-L':
      return [0, deep / 2]
    case 'hem-R':
      return [long, deep]
    case 'hem-L':
      return [0, deep]
    case 'tip':
      return [long, 0]
  }
}

/** How far two features are from each other along the thing, in metres. */
export function alongBetween(
  size: Prop['size'],
  a: readonly Feature[],
  b: readonly Feature[],
): number {
  const far = a.flatMap((one) =>
    b.map((other) => {
      const [p, q] = [placeOn(size, one), placeOn(size, other)]
      return Math.hypot(p[0] - q[0], p[1] - q[1])
    }),
  )
  return far.length === 0 ? 0 : Math.min(...far)
}

/** Both palms where arms are at named places. */
export const palmsAt = (
  arms: Readonly<Record<Side, ArmPlace>>,
  palms: Palms,
): Readonly<Record<Side, PalmPoint>> => ({
  R: palmAt('R', arms.R, palms),
  L: palmAt('L', arms.L, palms),
})

export const apart = (a: PalmPoint, b: PalmPoint): number =>
  Math.hypot(a.right - b.right, a.up - b.up, a.forward - b.forward)

/** Drapes in which a cloth hangs from the hands. */
const HANGS: ReadonlySet<Drape> = new Set<Drape>(['none', 'behind', 'front', 'frame'])

/** How much farther behind the hands a cloth behind the back lies (h), in metres. */
const BEHIND = 0.2

/** Where a cloth lies on the floor: along a line before the dancer, and so far round it, in metres. */
export interface OnFloor {
  readonly from: FloorPoint
  readonly to: FloorPoint
  readonly reach: number
  /** How much of it is longer than the hand is high. */
  readonly over: number
}

/** What of a cloth lies on the floor as it is held; nothing where it is short enough, worn, or in the air. */
export function onFloor(
  { kind, size }: Prop,
  { hands, drape, open }: Carried,
  palms: Readonly<Record<Side, PalmPoint>>,
  { limits }: House,
): OnFloor | undefined {
  if ((kind !== 'veil' && kind !== 'scarf') || !HANGS.has(drape) || !open) return undefined
  const held = SIDES.filter((side) => hands[side])
  const [first, second] = held
  if (!first) return undefined
  const up = Math.min(...held.map((side) => CHEST_UP + palms[side].up))
  const over = hangingFrom(size, hands, held) - up
  if (over <= 0) return undefined
  const under = (side: Side): FloorPoint => ({
    right: palms[side].right,
    forward: palms[side].forward - (drape === 'behind' ? BEHIND : 0),
  })
  return {
    from: under(first),
    to: under(second ?? first),
    reach: over * limits['prop.onFloor'],
    over,
  }
}

/** The farthest any of it is from where it is held, or the depth below two hands. */
function hangingFrom(size: Prop['size'], hands: Carried['hands'], held: readonly Side[]): number {
  if (held.length === 2) return size.deep
  const at = held.flatMap((side) => hands[side]?.at ?? [])
  const far = (feature: Feature) => {
    const [along, down] = placeOn(size, feature)
    return Math.max(along, size.long - along, down, size.deep - down)
  }
  return Math.min(...at.map(far))
}

/** Seconds in which a cloth has followed a turn, longer ones later. */
export const lagOf = ({ kind, size }: Prop, drape: Drape, { limits }: House): number => {
  if (kind === 'stick' || kind === 'fan' || kind === 'skirt') return 0
  return drape === 'behind' || drape === 'front' || drape === 'frame' || drape === 'none'
    ? (limits['prop.settles'] * size.long) / 2.5
    : 0
}
