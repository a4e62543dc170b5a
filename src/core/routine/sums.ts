import type { Side } from '../body/side'
import { loadsOf } from '../load/load'
import { addRisks, NO_RISKS, type Risks, risksOf } from '../load/risk'
import type { Danced } from '../simulate/danced'
import { partsOf } from '../song/parts'
import { type Section, type Song, secondsOfCount } from '../song/song'
import { TICKS_PER_COUNT } from '../time/time'
import type { Laid } from './laid'
import { spanOf } from './room'
import { endOfPiece, type Piece, type Routine } from './routine'

/** What counts of a song come to. */
export interface CountSums {
  readonly counts: number
  /** Of them those that are danced, at rest, and not covered. */
  readonly danced: number
  readonly rest: number
  readonly left: number
  readonly sides: Readonly<Record<Side, number>>
}

/** What a routine comes to. */
export const sumsOf = (routine: Routine, song: Song): CountSums => {
  const { from, to } = spanOf(song, routine)
  return sumsBetween(routine.pieces, from, to)
}

function sumsBetween(pieces: readonly Piece[], from: number, to: number): CountSums {
  const sums = { counts: to - from, danced: 0, rest: 0, sides: { R: 0, L: 0 } }
  for (const piece of pieces) {
    const inside = Math.min(to, endOfPiece(piece)) - Math.max(from, piece.at)
    if (inside <= 0) continue
    if (piece.what.kind === 'rest') sums.rest += inside
    else {
      sums.danced += inside
      sums.sides[piece.what.side] += inside
    }
  }
  return { ...sums, left: sums.counts - sums.danced - sums.rest }
}

/** What one section comes to. */
interface SectionSums extends CountSums {
  readonly section: Section
  readonly seconds: number
  /** Mean load of its danced counts; 0 where nothing is danced. */
  readonly load: number
}

/** How often a combination is danced, and for how long. */
interface CombinationSums {
  readonly id: string
  readonly pieces: number
  readonly counts: number
  readonly sides: Readonly<Record<Side, number>>
}

/** All of a routine in numbers. */
export interface SongSums {
  readonly sections: readonly SectionSums[]
  readonly combinations: readonly CombinationSums[]
  /** The load of each count from the first on that is danced to (model 9). */
  readonly loads: readonly { readonly at: number; readonly load: number }[]
  /** How often what can strain is danced, once through. */
  readonly risks: Risks
}

export function songSums(routine: Routine, song: Song, laid: Laid, { lead }: Danced): SongSums {
  const loads = loadsOf(lead).map(({ at, total }) => ({
    at: laid.from + at / TICKS_PER_COUNT,
    load: total,
  }))
  const isDanced = (at: number) =>
    routine.pieces.some(
      (piece) => piece.what.kind === 'dance' && piece.at <= at && at < endOfPiece(piece),
    )
  const danced = loads.filter(({ at }) => isDanced(at))
  const of = new Map<string, CombinationSums>()
  for (const { counts, what } of routine.pieces) {
    if (what.kind !== 'dance') continue
    const id = what.combination
    const known = of.get(id) ?? { id, pieces: 0, counts: 0, sides: { R: 0, L: 0 } }
    of.set(id, {
      id,
      pieces: known.pieces + 1,
      counts: known.counts + counts,
      sides: { ...known.sides, [what.side]: known.sides[what.side] + counts },
    })
  }
  return {
    sections: partsOf(song).map(({ section, from, to }) => {
      const here = danced.filter(({ at }) => from <= at && at < to)
      return {
        section,
        ...sumsBetween(routine.pieces, from, to),
        seconds: secondsOfCount(song, to) - secondsOfCount(song, from),
        load: here.reduce((sum, { load }) => sum + load, 0) / Math.max(1, here.length),
      }
    }),
    combinations: [...of.values()].sort((a, b) => b.counts - a.counts),
    loads,
    risks: lead.passes.reduce(
      (sum, { events }) => addRisks(sum, risksOf(events, lead.vocabulary)),
      NO_RISKS,
    ),
  }
}
