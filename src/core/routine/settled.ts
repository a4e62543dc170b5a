import type { Song } from '../song/song'
import { nearestIn } from '../time/nearest'
import { endOfPiece, type Piece, type Routine } from './routine'

/**
 * A routine on its song as that is counted now. Where it was counted anew since, twice as fast or
 * as it was tapped, each piece goes to the counts that are nearest to where it was in time; a
 * piece that has none left there is not laid any more. Counted as before, it is as before.
 */
export function settled(routine: Routine, song: Song): Routine {
  const { ms } = song.counts
  if (routine.of === undefined || routine.of === ms.length) return routine
  const placed = placesIn(song)
  const pieces: Piece[] = []
  for (const piece of routine.pieces) {
    const at = Math.max(
      piece.ms ? placed(piece.ms.from) : piece.at,
      endOfPiece(pieces.at(-1) ?? { ...piece, at: 0, counts: 0 }),
    )
    const to = piece.ms ? placed(piece.ms.to) : endOfPiece(piece)
    if (to > at) pieces.push({ ...piece, at, counts: to - at })
  }
  return { ...routine, of: ms.length, pieces }
}

/** The count that is nearest to a moment of a song, in milliseconds; the place behind the last one is where another would be. */
export function placesIn({ counts: { ms } }: Song): (moment: number) => number {
  const nearest = nearestIn(ms)
  const end = 2 * (ms.at(-1) ?? 0) - (ms.at(-2) ?? 0)
  return (moment) => {
    const at = nearest(moment)
    return end - moment < moment - (ms[at] as number) ? ms.length : at
  }
}

/** When a count is, or one behind the last, in milliseconds. */
export function momentOf({ counts: { ms } }: Song, at: number): number {
  const last = ms.length - 1
  const gap = (ms[last] ?? 0) - (ms[last - 1] ?? 0)
  return (ms[Math.min(at, last)] ?? 0) + Math.max(0, at - last) * gap
}

/** A routine with a note of where its pieces are in time, so that it is found there again. */
export function noted(routine: Routine, song: Song): Routine {
  return {
    ...routine,
    of: song.counts.ms.length,
    pieces: routine.pieces.map((piece) => ({
      ...piece,
      ms: { from: momentOf(song, piece.at), to: momentOf(song, endOfPiece(piece)) },
    })),
  }
}
