import type { FloorPoint } from '../../core/body/places'
import type { Combination } from '../../core/combination/combination'
import type { PartId } from '../../core/combination/whose'
import type { House } from '../../core/house/house'
import { nearestIn } from '../../core/piece/near'
import type { DancedPiece } from '../../core/piece/piece'
import { placeAt } from '../../core/piece/way'
import { type Area, areaOf, type Round, roundsOf } from '../../core/space/space'
import type { OtherWay, PartOnMap } from './FloorMap'

/** What the map shows of a combination for several, seen by one of them. */
interface OnMap {
  readonly own: PartOnMap
  readonly rounds: readonly Round[]
  readonly others: readonly OtherWay[]
  readonly held: readonly (readonly [number, number])[]
  readonly near: readonly FloorPoint[]
  readonly area: Area
}

/** Two are near where they are less apart than their bodies take, so many times over. */
const NEAR = 1.25

interface Asked {
  readonly rounds: number
  readonly switches: boolean
  /** The tick that is pointed out, and the ticks that are read. */
  readonly at: number
  readonly read: { readonly from: number; readonly to: number }
}

/** Everybody's way in one room. */
export function onMap(
  { parts = [] }: Combination,
  piece: DancedPiece,
  id: PartId,
  { rounds, switches, at, read }: Asked,
  house: House,
): OnMap | undefined {
  const all = piece.lead.placed.map(({ part }) => {
    const dance = piece.of(part.id)
    const place = part.at[0] ?? { right: 0, forward: 0 }
    return {
      id: part.id,
      index: parts.indexOf(part),
      name: part.name,
      rounds: roundsOf(dance.lead, dance.other, rounds, switches).map((round) =>
        moved(round, place),
      ),
    }
  })
  const own = all.find((one) => one.id === id)
  if (!own) return undefined
  const indexOf = (part: PartId) => parts.findIndex((one) => one.id === part)
  const held = piece.lead.meetings.flatMap(({ meeting: { what }, from, until }) =>
    what.kind === 'hold' && at >= from && at < until
      ? [[indexOf(what.from.part), indexOf(what.to.part)] as const]
      : [],
  )
  const near = piece.lead.placed.flatMap((a, i) =>
    piece.lead.placed.slice(i + 1).flatMap((b): readonly FloorPoint[] => {
      const found = nearestIn(a.way, b.way, read, house)
      if (found.apart > found.touch * NEAR) return []
      const [one, other] = [placeAt(a.way, found.at), placeAt(b.way, found.at)]
      return [{ right: (one.right + other.right) / 2, forward: (one.forward + other.forward) / 2 }]
    }),
  )
  return {
    own: { index: own.index, name: own.name },
    rounds: own.rounds,
    others: all.filter((one) => one !== own),
    held,
    near,
    area: areaOf(all.flatMap((one) => one.rounds)),
  }
}

const moved = ({ points, ...round }: Round, by: FloorPoint): Round => ({
  ...round,
  points: points.map((point) => ({
    ...point,
    right: point.right + by.right,
    forward: point.forward + by.forward,
    feet: {
      R: { right: point.feet.R.right + by.right, forward: point.feet.R.forward + by.forward },
      L: { right: point.feet.L.right + by.right, forward: point.feet.L.forward + by.forward },
    },
  })),
})
