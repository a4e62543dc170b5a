import { otherSide, type Side } from '../body/side'
import type { Combination } from '../combination/combination'
import type { Pace } from '../combination/pace'
import { canPace } from '../combination/paced'
import { UserError } from '../errors'
import type { Section, Song } from '../song/song'
import { countsFrom, leftInSection, roomAt } from './room'
import { endOfPiece, type Piece, type RestHow, type Routine } from './routine'

const inOrder = (pieces: readonly Piece[]): readonly Piece[] =>
  [...pieces].sort((a, b) => a.at - b.at)

const noRoom = () =>
  new UserError(
    'Something is laid there already.',
    'Choose a count that is free, or take away what is there.',
  )

/**
 * Lays a combination from a count on: all of it, or as much as there is room for to the end of
 * the section.
 * @throws UserError where there is no room
 */
export function laidOn(
  routine: Routine,
  song: Song,
  combination: Combination,
  {
    at,
    side,
    id,
    from = 0,
  }: {
    readonly at: number
    readonly side: Side
    readonly id: string
    readonly from?: number
  },
): Routine {
  const room = Math.min(roomAt(routine, song, at), leftInSection(song, at))
  if (room < 1) throw noRoom()
  const counts = Math.min(room, countsFrom(combination, from))
  const what = { kind: 'dance', combination: combination.id, from, side } as const
  return { ...routine, pieces: inOrder([...routine.pieces, { id, at, counts, what }]) }
}

/** Lays a combination from a count on, again and again to the end of the section or the next piece. */
export function filledWith(
  routine: Routine,
  song: Song,
  combination: Combination,
  { at, newId }: { readonly at: number; readonly newId: () => string },
): Routine {
  const id = newId()
  const laid = laidOn(routine, song, combination, { at, side: combination.lead, id })
  const counts = Math.min(roomAt(routine, song, at), leftInSection(song, at))
  return changed(laid, id, (piece) => ({ ...piece, counts }))
}

/**
 * Rests from a count on: for so many counts, or as long as there is room in the section.
 * @throws UserError where there is no room
 */
export function restedOn(
  routine: Routine,
  song: Song,
  {
    at,
    counts = leftInSection(song, at),
    how,
    id,
  }: {
    readonly at: number
    readonly counts?: number
    readonly how: RestHow
    readonly id: string
  },
): Routine {
  const room = Math.min(roomAt(routine, song, at), counts)
  if (room < 1) throw noRoom()
  const what = { kind: 'rest', how, words: '' } as const
  return { ...routine, pieces: inOrder([...routine.pieces, { id, at, counts: room, what }]) }
}

/** @throws UserError where a piece is locked */
function checkFree({ pieces }: Routine, id: string): void {
  if (pieces.find((piece) => piece.id === id)?.locked)
    throw new UserError('This piece is locked.', 'Unlock it first.')
}

/** @throws UserError where it is locked */
export function removed(routine: Routine, id: string): Routine {
  checkFree(routine, id)
  return without(routine, id)
}

const without = (routine: Routine, id: string): Routine => ({
  ...routine,
  pieces: routine.pieces.filter((piece) => piece.id !== id),
})

/** A piece stays as it is, or no longer does. */
export const lockToggled = (routine: Routine, id: string): Routine =>
  changed(routine, id, ({ locked, ...free }) => (locked ? free : { ...free, locked: true }))

/**
 * A section danced as the one it is like, as far as both go; what lies there is taken away.
 * @throws UserError where something that lies there is locked, or goes over its borders
 */
export function dancedLike(
  routine: Routine,
  song: Song,
  section: string,
  like: Section,
  newId: () => string,
): Routine {
  const own = song.sections.find(({ id }) => id === section)
  if (!own) return routine
  const counts = Math.min(leftInSection(song, own.at), leftInSection(song, like.at))
  const isIn = (piece: Piece, from: number) => piece.at < from + counts && endOfPiece(piece) > from
  const there = routine.pieces.filter((piece) => isIn(piece, own.at))
  for (const piece of there) {
    checkFree(routine, piece.id)
    if (piece.at < own.at || endOfPiece(piece) > own.at + counts)
      throw new UserError(
        'Something that lies there goes on in another section.',
        'Make it shorter first.',
      )
  }
  const by = own.at - like.at
  const copies = routine.pieces
    .filter(({ at }) => at >= like.at && at < like.at + counts)
    .map(({ ms: _, locked: __, ...piece }): Piece => {
      const to = Math.min(like.at + counts, endOfPiece(piece))
      return { ...piece, id: newId(), at: piece.at + by, counts: to - piece.at }
    })
  return {
    ...routine,
    pieces: inOrder([...routine.pieces.filter((piece) => !there.includes(piece)), ...copies]),
  }
}

/** Only what is locked of a routine. */
export const onlyLocked = (routine: Routine): Routine => ({
  ...routine,
  pieces: routine.pieces.filter(({ locked }) => locked),
})

const changed = (routine: Routine, id: string, make: (piece: Piece) => Piece): Routine => ({
  ...routine,
  pieces: routine.pieces.map((piece) => (piece.id === id ? make(piece) : piece)),
})

/** A piece from its other side. @throws UserError where it is locked */
export function turned(routine: Routine, id: string): Routine {
  checkFree(routine, id)
  return changed(routine, id, (piece) =>
    piece.what.kind === 'dance'
      ? { ...piece, what: { ...piece.what, side: otherSide[piece.what.side] } }
      : piece,
  )
}

/**
 * A piece twice or half as fast as it is written, or as it is, in as many counts as that takes.
 * @throws UserError where another one is in the way, it is locked, or it has moments nobody could count then
 */
export function pacedTo(
  routine: Routine,
  song: Song,
  combination: Combination,
  id: string,
  pace: Pace | 1,
): Routine {
  const piece = routine.pieces.find((one) => one.id === id)
  if (piece?.what.kind !== 'dance') return routine
  checkFree(routine, id)
  if (pace !== 1 && !canPace(combination, pace))
    throw new UserError(
      `“${combination.title}” has moments nobody could count at that pace.`,
      'Dance it as it is, or write a form of it with fewer moments between the counts.',
    )
  const { pace: before = 1, ...own } = piece.what
  const counts = (piece.counts * before) / pace
  if (!Number.isInteger(counts))
    throw new UserError(
      'It would end between two counts.',
      'Make it a count longer or shorter first.',
    )
  if (roomAt(without(routine, id), song, piece.at) < counts) throw noRoom()
  const what = pace === 1 ? own : { ...own, pace }
  return changed(routine, id, (one) => ({ ...one, counts, what }))
}

/**
 * A piece that begins some counts later, or earlier.
 * @throws UserError where another one is in the way
 */
export function moved(routine: Routine, song: Song, id: string, by: number): Routine {
  const piece = routine.pieces.find((one) => one.id === id)
  if (!piece || by === 0) return routine
  checkFree(routine, id)
  const others = without(routine, id)
  const at = piece.at + by
  if (roomAt(others, song, at) < piece.counts) throw noRoom()
  return { ...routine, pieces: inOrder([...others.pieces, { ...piece, at }]) }
}

/**
 * A piece that goes on for some counts more, or less; a combination that is over begins again.
 * @throws UserError where another one is in the way
 */
export function lengthened(routine: Routine, song: Song, id: string, by: number): Routine {
  const piece = routine.pieces.find((one) => one.id === id)
  if (!piece || by === 0) return routine
  checkFree(routine, id)
  const counts = piece.counts + by
  if (counts < 1) throw new UserError('It has no counts then.', 'Take it away instead.')
  if (roomAt(without(routine, id), song, piece.at) < counts) throw noRoom()
  return changed(routine, id, (one) => ({ ...one, counts }))
}
