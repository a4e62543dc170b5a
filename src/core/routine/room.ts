import type { Combination } from '../combination/combination'
import { firstOne, type Song } from '../song/song'
import { endOfPiece, type Piece, type Routine } from './routine'

/** The stretch of a song that a routine is danced to: from its first 1, or what is laid before it, to its last count. */
export const spanOf = (
  { counts }: Song,
  { pieces }: Routine,
): { readonly from: number; readonly to: number } => ({
  from: Math.min(firstOne(counts), pieces[0]?.at ?? Number.POSITIVE_INFINITY),
  to: counts.ms.length,
})

/** Counts of a combination as it is danced once through, from one of its passes on. */
export function countsFrom({ phrases, order }: Combination, from = 0): number {
  const byId = new Map(phrases.map(({ id, counts }) => [id, counts]))
  return order.slice(from).reduce((sum, { phrase }) => sum + (byId.get(phrase) ?? 0), 0)
}

/** The counts that are free from one on: to the next piece, or the end of the song. */
export function roomAt(routine: Routine, song: Song, at: number): number {
  const { pieces } = routine
  const { to } = spanOf(song, routine)
  if (at < 0 || at >= to) return 0
  if (pieceAt(routine, at)) return 0
  const next = pieces.find((piece) => piece.at > at)
  return (next?.at ?? to) - at
}

/** The first count that is free from one on, behind the piece that lies there. */
export function freeFrom({ pieces }: Routine, at: number): number {
  const over = pieceAt({ pieces }, at)
  return over ? endOfPiece(over) : at
}

/** What lies on a count. */
export const pieceAt = ({ pieces }: Pick<Routine, 'pieces'>, at: number): Piece | undefined =>
  pieces.find((piece) => at >= piece.at && at < endOfPiece(piece))

/** Counts to where the section that holds there ends, or counting begins anew. */
export function leftInSection({ sections, counts }: Song, at: number): number {
  const borders = [...sections.map((one) => one.at), ...counts.ones.map((one) => one.at)]
  const next = Math.min(...borders.filter((one) => one > at), counts.ms.length)
  return next - at
}
