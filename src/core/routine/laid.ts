import type { Side } from '../body/side'
import {
  type Combination,
  defaultStart,
  type Event,
  emptyCombination,
  type Phrase,
  type Remark,
  type Start,
} from '../combination/combination'
import { mirror } from '../combination/mirror'
import { firstOne, leftInPhrase, type Song } from '../song/song'
import { TICKS_PER_COUNT, tick } from '../time/time'
import { pacedPhrase } from './paced'
import { endOfPiece, type Piece, type Routine, restWords } from './routine'

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
  /** The pickup of what follows, danced where nothing else is. */
  readonly isPickup?: true
}

/** A routine as one dance: the first of its counts falls on this count of the song. */
export interface Laid {
  readonly combination: Combination
  readonly from: number
  readonly passes: readonly LaidPass[]
}

/** The stretch of a song that a routine is danced to: from its first 1, or what is laid before it, to its last count. */
export const spanOf = (
  { counts }: Song,
  { pieces }: Routine,
): { readonly from: number; readonly to: number } => ({
  from: Math.min(firstOne(counts), pieces[0]?.at ?? Number.POSITIVE_INFINITY),
  to: counts.ms.length,
})

/** One dancing of a phrase, as it goes into the whole. */
interface Turn {
  readonly pass: Omit<LaidPass, 'at'>
  readonly phrase: Phrase
  readonly mirrored: boolean
}

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
  const span = spanOf(song, routine)
  const { to } = span
  const [first] = routine.pieces
  // The pickup of what comes first is danced in the counts before it.
  const lead = first?.at === span.from ? pickupOf(first, find) : undefined
  const from = Math.max(0, span.from - (lead?.pass.counts ?? 0))
  let turns: readonly Turn[] = []
  let at = from
  for (const piece of routine.pieces) {
    if (endOfPiece(piece) > to) break
    const before = [...turns, ...stillFor(song, at, piece.at - at)]
    turns = [...ledInto(before, pickupOf(piece, find)), ...turnsOf(song, piece, find)]
    at = endOfPiece(piece)
  }
  turns = [...turns, ...stillFor(song, at, to - at)]
  let begins = from
  const passes = turns.map(({ pass }): LaidPass => {
    const own = { ...pass, at: begins }
    begins += pass.counts
    return own
  })
  const danced = passes.find(({ combination }) => combination)
  const all = passes.flatMap(({ combination }) => combination ?? [])
  const side = danced?.piece?.what.kind === 'dance' ? danced.piece.what.side : 'R'
  return {
    from,
    passes,
    combination: {
      ...emptyCombination(routine.id, ''),
      title: routine.title,
      families: [...new Set(passes.flatMap(({ combination }) => combination?.families ?? []))],
      ...(danced?.combination && { tempo: danced.combination.tempo }),
      // Where only some keep their turns, each is mirrored whole: one dance has one rule.
      ...(all.length > 0 &&
        all.every(({ keepTurns }) => keepTurns) && { keepTurns: true as const }),
      lead: side,
      start: startOf(danced?.combination, side),
      phrases: [...new Map(turns.map(({ phrase }) => [phrase.id, phrase])).values()],
      order: turns.map(({ phrase, mirrored }) => ({ phrase: phrase.id, mirrored })),
    },
  }
}

/** Counts from one on in which nothing is danced, in the phrases of the song, so that they are counted as it is. */
function stillFor(song: Song, from: number, counts: number, piece?: Piece): readonly Turn[] {
  const words = piece?.what.kind === 'rest' ? restWords(piece.what) : ''
  const turns: Turn[] = []
  for (let at = from; at < from + counts; ) {
    const own = Math.min(from + counts - at, leftInPhrase(song, at))
    at += own
    turns.push({
      pass: { piece, combination: undefined, pass: 0, counts: own, whole: own },
      phrase: stillPhrase(own, piece?.id ?? '', words),
      mirrored: false,
    })
  }
  return turns
}

const isStill = ({ pass }: Turn): boolean => !pass.combination && !pass.isPickup

/** The pickup of a piece that begins with its combination, as a phrase of its own. */
function pickupOf(piece: Piece, find: (id: string) => Combination | undefined): Turn | undefined {
  const { what } = piece
  const combination = what.kind === 'dance' && what.from === 0 ? find(what.combination) : undefined
  const [entry] = combination?.order ?? []
  const written = combination?.phrases.find(({ id }) => id === entry?.phrase)
  if (what.kind === 'rest' || !combination?.pickup || !entry || !written) return undefined
  const { counts } = combination.pickup
  return {
    pass: {
      piece: undefined,
      combination: undefined,
      pass: 0,
      counts,
      whole: counts,
      isPickup: true,
    },
    phrase: pickupPhrase(written, counts, combination.id),
    mirrored: entry.mirrored !== (what.side !== combination.lead),
  }
}

/** Turns whose last counts, where nothing is danced, are the pickup of what follows; as they are where there are too few. */
function ledInto(turns: readonly Turn[], lead: Turn | undefined): readonly Turn[] {
  if (!lead) return turns
  const all = [...turns]
  let needed = lead.pass.counts
  let last: Turn | undefined
  for (; needed > 0; needed -= last.pass.counts) {
    last = all.pop()
    if (!last || !isStill(last)) return turns
  }
  if (!last) return turns
  const left = -needed
  const pass = { ...last.pass, counts: left, whole: left }
  const rest = {
    ...last,
    pass,
    phrase: { ...last.phrase, id: `${last.phrase.id} ${left}`, counts: left },
  }
  return [
    ...all,
    ...(left > 0 ? [rest] : []),
    { ...lead, pass: { ...lead.pass, piece: last.pass.piece } },
  ]
}

/** The phrases of a piece; one that is longer than its combination begins it again. */
function turnsOf(
  song: Song,
  piece: Piece,
  find: (id: string) => Combination | undefined,
): readonly Turn[] {
  const { what } = piece
  const combination = what.kind === 'dance' ? find(what.combination) : undefined
  if (what.kind === 'rest' || !combination) return stillFor(song, piece.at, piece.counts, piece)
  const { order, phrases } = combination
  const isOther = what.side !== combination.lead
  const turns: Turn[] = []
  for (let index = what.from, left = piece.counts; left > 0; index++) {
    const pass = index % order.length
    const entry = order[pass]
    const written = phrases.find(({ id }) => id === entry?.phrase)
    if (!entry || !written) break
    // What can't be danced at that pace any more is danced at its own.
    const paced = (what.pace && pacedPhrase(written, what.pace, combination)) || written
    const counts = Math.min(paced.counts, left)
    left -= counts
    turns.push({
      pass: { piece, combination, pass, counts, whole: paced.counts },
      phrase: cutPhrase(written, paced, { counts, combination, isFirst: turns.length === 0 }),
      mirrored: entry.mirrored !== isOther,
    })
  }
  return turns
}

/** How the first piece begins, from its side. */
function startOf(combination: Combination | undefined, side: Side): Start {
  if (!combination) return defaultStart(side)
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

/** What is written before count 1, on counts of its own. */
function pickupPhrase(written: Phrase, counts: number, combination: string): Phrase {
  const by = counts * TICKS_PER_COUNT
  const early = <T extends Event | Remark>(all: readonly T[]): readonly T[] =>
    all
      .filter(({ at }) => at < 0)
      .map((one) => ({
        ...one,
        id: `pickup ${combination} ${one.id}`,
        at: tick(one.at + by),
        ...(one.length !== undefined && { length: tick(Math.min(one.length, -one.at)) }),
      }))
  const { facings: _, comments: __, unread: ___, ...phrase } = written
  return {
    ...phrase,
    id: `pickup ${combination} ${written.id}`,
    name: 'Pickup',
    title: written.title,
    counts,
    events: early(written.events),
    ...(written.remarks && { remarks: early(written.remarks) }),
  }
}

interface Cut {
  readonly counts: number
  /** Whether its piece begins with it: then it also has the name of its combination. */
  readonly isFirst: boolean
  readonly combination: Combination
}

const cuts = new WeakMap<Phrase, Map<string, Phrase>>()

/**
 * A phrase of a combination as it stands in a routine: with names of its own, and so many of its
 * counts. The very same phrase each time, so that what is known of it holds.
 */
function cutPhrase(
  written: Phrase,
  paced: Phrase,
  { counts, isFirst, combination: { id, title } }: Cut,
): Phrase {
  const known = cuts.get(written) ?? new Map<string, Phrase>()
  cuts.set(written, known)
  const named = isFirst ? title : ''
  const pace = written.counts / paced.counts
  const key = `${counts} ${id} ${named} ${pace}`
  const made = known.get(key) ?? cutOff(paced, counts, key, named)
  known.set(key, made)
  return made
}

function cutOff(written: Phrase, counts: number, name: string, title: string): Phrase {
  const end = counts * TICKS_PER_COUNT
  const within = <T extends Event | Remark>(all: readonly T[]): readonly T[] =>
    all
      .filter(({ at }) => at >= 0 && at < end)
      .map((one) => ({
        ...one,
        id: `${name} ${one.id}`,
        ...(one.length !== undefined && { length: tick(Math.min(one.length, end - one.at)) }),
      }))
  const { facings: _, comments: __, unread: ___, ...phrase } = written
  return {
    ...phrase,
    id: `${name} ${written.id}`,
    title: [title, written.title].filter(Boolean).join(', '),
    counts,
    events: within(written.events),
    ...(written.remarks && { remarks: within(written.remarks) }),
  }
}
