import type { Layer } from '../../body/layers'
import type { FloorPoint } from '../../body/places'
import type { Part } from '../../combination/part'
import type { Pass } from '../../combination/passes'
import type { PartId } from '../../combination/whose'
import type { Piece, Placed } from '../../piece/piece'
import type { Way } from '../../piece/way'
import { TICKS_PER_COUNT, type Tick } from '../../time/time'
import type { Found } from '../finding'
import { spotIn } from '../rule'

/** What is found between dancers, and of which parts. */
export type FoundBetween = Found & { readonly whose: readonly PartId[] }

/**
 * A rule about dancers together: one pure function of one dancing of a phrase. Of a piece it sees the
 * meetings of that dancing only; what was before it may look at, what comes behind not.
 */
export type PairRule = (piece: Piece, pass: Pass) => Iterable<FoundBetween>

/** One dancer's body in the room. */
export interface Body {
  readonly placed: Placed
  readonly part: Part
  readonly way: Way
  /** How far from the first of her part. */
  readonly off: FloorPoint
}

/** Every dancer of a piece. */
export const bodiesOf = ({ placed }: Piece): readonly Body[] =>
  placed.flatMap((one) => {
    const [first] = one.at
    return one.at.map((at): Body => {
      const off = {
        right: at.right - (first?.right ?? 0),
        forward: at.forward - (first?.forward ?? 0),
      }
      const isFirst = at === first
      return {
        placed: one,
        part: one.part,
        off,
        way: isFirst
          ? one.way
          : one.way.map((point) => ({
              ...point,
              right: point.right + off.right,
              forward: point.forward + off.forward,
            })),
      }
    })
  })

/** Every two of them, each once. */
export function* pairsOf<T>(all: readonly T[]): Generator<readonly [T, T]> {
  for (const [i, one] of all.entries()) for (const other of all.slice(i + 1)) yield [one, other]
}

/** Where a tick of a pass is, for something between two. */
export const spotBetween = (pass: Pass, at: number, layer: Layer) => spotIn(pass, at as Tick, layer)

/** The last count of something that ends at a tick, or its beginning where it is shorter. */
export const lastCount = ({
  from,
  until,
}: {
  readonly from: number
  readonly until: number
}): number => Math.max(from, until - TICKS_PER_COUNT)
