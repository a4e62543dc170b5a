import type { Finding } from '../findings/finding'
import type { Section, Song } from '../song/song'
import type { Laid } from './laid'
import { spanOf } from './room'
import { endOfPiece, type Piece, type Routine } from './routine'
import type { LaidPass } from './turns'

/** Something of a routine that is worth a look, as a fact. */
export type SongFact = {
  /** The count it is at. */
  readonly at: number
  readonly piece?: Piece
} & (
  | { readonly code: 'song.gap'; readonly counts: number }
  /** The last phrase of a piece is broken off. */
  | { readonly code: 'song.cut'; readonly counts: number; readonly whole: number }
  | { readonly code: 'song.end'; readonly counts: number }
  /** Nothing is danced before it, and still its pickup has no time. */
  | { readonly code: 'song.pickup'; readonly counts: number }
  /** The combination is gone. */
  | { readonly code: 'song.lost' }
  /** What the dance as a whole has, and the combination by itself has not. */
  | { readonly code: 'song.dance'; readonly finding: Finding }
  /** Danced otherwise than the section it is like: on so many counts, this one being the first. */
  | {
      readonly code: 'song.same'
      readonly section: string
      readonly like: Section
      readonly counts: number
    }
  /** It ends turned away: degrees to the right of front, below 0 to the left. */
  | {
      readonly code: 'song.facing'
      readonly section: string
      readonly facing: number
      readonly isEnd: boolean
    }
  /** A loud section is danced with clearly less than a quiet one: mean loads of a count. */
  | {
      readonly code: 'song.load'
      readonly section: string
      readonly load: number
      readonly quiet: Section
      readonly quietLoad: number
    }
)

/** Counts in a row that nothing is laid on. */
export interface Gap {
  readonly at: number
  readonly counts: number
}

/** Counts that nothing is laid on, each stretch within one section. */
export function gapsIn(routine: Routine, song: Song): readonly Gap[] {
  const { from, to } = spanOf(song, routine)
  const borders = [...song.sections.map(({ at }) => at), to].filter((at) => at > from)
  const gaps: Gap[] = []
  let at = from
  const leave = (until: number) => {
    while (at < until) {
      const end = Math.min(until, ...borders.filter((border) => border > at))
      gaps.push({ at, counts: end - at })
      at = end
    }
  }
  for (const piece of routine.pieces) {
    leave(Math.min(piece.at, to))
    at = Math.max(at, endOfPiece(piece))
  }
  leave(to)
  return gaps
}

/** What does not come out even: counts that are left, phrases that are cut, an end that comes too soon. */
export function fitOf(routine: Routine, song: Song, laid: Laid): readonly SongFact[] {
  const last = routine.pieces.at(-1)
  const end = last ? endOfPiece(last) : Number.POSITIVE_INFINITY
  const gaps = gapsIn(routine, song)
    .filter(({ at }) => at < end)
    .map((gap): SongFact => ({ code: 'song.gap', ...gap }))
  // The end is one thing, however many sections it has.
  const after = spanOf(song, routine).to - end
  const cut = laid.passes.flatMap(({ piece, at, counts, whole }): readonly SongFact[] =>
    piece && counts < whole ? [{ code: 'song.cut', at, counts, whole, piece }] : [],
  )
  const lost = laid.passes.flatMap(({ piece, combination, at }): readonly SongFact[] =>
    piece?.what.kind === 'dance' && !combination ? [{ code: 'song.lost', at, piece }] : [],
  )
  return [
    ...gaps,
    ...cut,
    ...lostPickups(routine, laid),
    ...new Map(lost.map((one) => [one.piece?.id, one])).values(),
    ...(after > 0 ? [{ code: 'song.end', at: end, counts: after } as const] : []),
  ].sort((a, b) => a.at - b.at)
}

/** Where a piece begins after a rest, or with the song, and its pickup is not danced. */
const lostPickups = ({ pieces }: Routine, { passes }: Laid): readonly SongFact[] =>
  pieces.flatMap((piece): readonly SongFact[] => {
    const index = passes.findIndex((pass) => pass.piece === piece && pass.combination)
    const pickup = passes[index]?.combination?.pickup
    const before = passes[index - 1]
    const isWhole = piece.what.kind === 'dance' && piece.what.from === 0
    if (index < 0 || !pickup || !isWhole || before?.isPickup || before?.combination) return []
    return [{ code: 'song.pickup', at: piece.at, counts: pickup.counts, piece }]
  })

/** Where something that is found is the combination's own, and no matter of the song. */
export const isOwn = (
  finding: Finding,
  { passes }: Laid,
  ownOf: (pass: LaidPass) => readonly Finding[],
): boolean => {
  const pass = passes[finding.spot.pass]
  if (!pass?.combination) return false
  return ownOf(pass).some(
    (one) =>
      one.code === finding.code &&
      one.spot.phrase === finding.spot.phrase &&
      // The hardest count of a phrase may be another one at another tempo.
      (one.spot.at === finding.spot.at || one.code === 'load.high') &&
      one.spot.layer === finding.spot.layer,
  )
}
