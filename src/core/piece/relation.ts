import type { FloorPoint } from '../body/places'
import type { Between, MeetingOf, Relation } from '../combination/between'
import type { CENTRE, PartId } from '../combination/whose'
import type { House } from '../house/house'
import { intoRoom } from '../simulate/landing'
import { plus } from './drawn'
import type { WayPoint } from './way'

/** Where one is to stand by another one, and how she is to face, where that is said. */
export interface Goal extends FloorPoint {
  readonly facing: number | undefined
}

const OFFSETS: Readonly<Record<Relation, readonly [right: number, forward: number]>> = {
  right: [1, 0],
  left: [-1, 0],
  before: [0, 1],
  behind: [0, -1],
  facing: [0, 1],
  'back-to-back': [0, -1],
}

/** Where a relation leads to, as seen by the one it is a relation to. */
export function goalOf(rel: Relation, to: Omit<WayPoint, 'at'>, apart: number): Goal {
  const [right, forward] = OFFSETS[rel]
  const way = intoRoom(to.facing, right * apart, forward * apart)
  const turned = rel === 'facing' || rel === 'back-to-back'
  return { ...plus(to, way), facing: turned ? to.facing + 180 : undefined }
}

/** The middle of the piece, seen to the front. */
export const MIDDLE = { right: 0, forward: 0, facing: 0 }

/** Metres between the two of a place where nobody said it: nearer with a hand held. */
export function apartOf(
  { to, of, apart }: MeetingOf<'place'>,
  at: number,
  meetings: readonly { readonly meeting: Between; readonly from: number; readonly until: number }[],
  { limits }: House,
): number {
  if (apart !== undefined) return apart
  const isHeld = meetings.some(
    ({ meeting: { what }, from, until }) =>
      what.kind === 'hold' &&
      at >= from &&
      at <= until &&
      isBetween([what.from.part, what.to.part], of, to),
  )
  return limits[isHeld ? 'pair.apartHeld' : 'pair.apart']
}

const isBetween = (met: readonly PartId[], of: PartId, to: PartId | typeof CENTRE): boolean =>
  met.includes(of) && met.includes(to)

/** Degrees from one facing to another, the short way, 0 to 180. */
export const turnBetween = (a: number, b: number): number => {
  const off = (((b - a) % 360) + 360) % 360
  return Math.min(off, 360 - off)
}
