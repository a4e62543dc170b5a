import type { Combination, Event, Phrase, Remark, Start } from '../combination/combination'
import { defaultStart, emptyCombination } from '../combination/combination'
import { mirror } from '../combination/mirror'
import { remembered } from '../record/remembered'
import type { Song } from '../song/song'
import { MOST_PHRASE_COUNTS, TICKS_PER_COUNT, tick } from '../time/time'
import { endOfPiece, type Piece, type Routine } from './routine'

/** A stretch of the song that is danced in one go, as it stands in the whole. */
export interface LaidPass {
  /** The piece it is of; absent where nothing is laid. */
  readonly piece: Piece | undefined
  /** The combination it is of, and which of its passes. */
  readonly combination: Combination | undefined
  readonly pass: number
  /** Its first count in the song. */
  readonly at: number
  readonly counts: number
  /** The counts its phrase has; fewer are danced where it is cut. */
  readonly whole: number
}

/** A routine as one dance: the first of its counts falls on this count of the song. */
export interface Laid {
  readonly combination: Combination
  readonly from: number
  readonly passes: readonly LaidPass[]
}

/** The stretch of a song that a routine is danced to: from its first 1 to its last count. */
export const spanOf = ({ counts }: Song): { readonly from: number; readonly to: number } => ({
  from: counts.ones[0]?.at ?? 0,
  to: counts.ms.length,
})

/**
 * A routine as one combination, so that all that is known of combinations holds for it too: each
 * piece begins as the one before it ends.
 * @param find undefined for a combination that is gone: its counts are not danced
 */
export function laidOut(
  routine: Routine,
  song: Song,
  find: (id: string) => Combination | undefined,
): Laid {
  const { from, to } = spanOf(song)
  const passes: LaidPass[] = []
  const phrases = new Map<string, Phrase>()
  const order: Combination['order'][number][] = []
  let at = from
  const add = (pass: LaidPass, phrase: Phrase, mirrored: boolean) => {
    passes.push(pass)
    phrases.set(phrase.id, phrase)
    order.push({ phrase: phrase.id, mirrored })
    at += pass.counts
  }
  const wait = (until: number, piece?: Piece) => {
    while (at < until) {
      const counts = Math.min(MOST_PHRASE_COUNTS, until - at)
      const words = piece?.what.kind === 'rest' ? piece.what.words : ''
      add(
        { piece, combination: undefined, pass: 0, at, counts, whole: counts },
        stillPhrase(counts, piece ? piece.id : '', words),
        false,
      )
    }
  }
  let first: { readonly combination: Combination; readonly side: Combination['lead'] } | undefined
  for (const piece of routine.pieces) {
    if (endOfPiece(piece) > to || piece.at < at) continue
    wait(piece.at)
    const { what } = piece
    const combination = what.kind === 'dance' ? find(what.combination) : undefined
    if (what.kind === 'rest' || !combination) {
      wait(endOfPiece(piece), piece)
      continue
    }
    first ??= { combination, side: what.side }
    const isOther = what.side !== combination.lead
    for (let index = what.from; at < endOfPiece(piece); index++) {
      // A piece that is longer than its combination begins it again.
      const place = index % combination.order.length
      const entry = combination.order[place]
      const written = combination.phrases.find(({ id }) => id === entry?.phrase)
      if (!entry || !written) break
      const counts = Math.min(written.counts, endOfPiece(piece) - at)
      const phrase = phraseIn(written, `${combination.id} ${counts} ${combination.title}`)
      add(
        { piece, combination, pass: place, at, counts, whole: written.counts },
        phrase,
        entry.mirrored !== isOther,
      )
    }
  }
  wait(to)
  const start = startOf(first?.combination, first?.side)
  return {
    from,
    passes,
    combination: {
      ...emptyCombination(routine.id, ''),
      title: routine.title,
      families: [...new Set(passes.flatMap(({ combination }) => combination?.families ?? []))],
      tempo: first?.combination.tempo ?? 96,
      lead: first?.side ?? 'R',
      start,
      phrases: [...phrases.values()],
      order,
    },
  }
}

/** How the first piece begins, from its side. */
function startOf(
  combination: Combination | undefined,
  side: Combination['lead'] | undefined,
): Start {
  if (!combination || !side) return defaultStart('R')
  return side === combination.lead ? combination.start : mirror(combination).start
}

/** Counts in which the body stays as it is. */
const stillPhrase = (counts: number, piece: string, words: string): Phrase => ({
  id: `still ${counts} ${piece}`,
  name: 'Rest',
  title: words,
  counts,
  events: [],
})

/** A phrase of a combination as it stands in a routine: with names of its own, cut where it is told to be. */
const phraseIn = remembered((written: Phrase, key: string): Phrase => {
  const [combination, counts] = key.split(' ', 2) as [string, string]
  const title = key.slice(combination.length + counts.length + 2)
  return cutPhrase(written, Number(counts), combination, title)
})

function cutPhrase(written: Phrase, counts: number, combination: string, title: string): Phrase {
  const end = counts * TICKS_PER_COUNT
  const within = <T extends Event | Remark>(all: readonly T[]): readonly T[] =>
    all
      .filter(({ at }) => at >= 0 && at < end)
      .map((one) => ({
        ...one,
        id: `${combination} ${counts} ${one.id}`,
        ...(one.length !== undefined && { length: tick(Math.min(one.length, end - one.at)) }),
      }))
  const { facings: _, comments: __, unread: ___, ...phrase } = written
  return {
    ...phrase,
    id: `${combination} ${counts} ${written.id}`,
    title: [title, written.title].filter(Boolean).join(', '),
    counts,
    events: within(written.events),
    ...(written.remarks && { remarks: within(written.remarks) }),
  }
}
