import { type Combination, type Event, SCHEMA_VERSION } from '../combination/combination'
import { defaultStart } from '../combination/start'
import { whatOf } from '../combination/whatOf'
import type { Move } from '../moves/move'
import type { Vocabulary } from '../moves/vocabulary'
import { COUNT, tick } from '../time/time'
import type { What } from '../what/kinds'

/** Every move of a warm-up is danced for eight counts a side. */
const COUNTS = 8
/** Counts of a round of a warm-up, for one of its moves. */
export const COUNTS_A_MOVE = 2 * COUNTS
/** A round of moves stays well inside the counts a combination may have. */
export const MOST_MOVES = 12

/** What is danced together is written in one, with this between. */
const TOGETHER = '+'

/** One id for moves that are danced together: a footwork, and what goes on it. */
export const together = (...ids: readonly string[]): string => ids.join(TOGETHER)

/** The moves of such an id; those the vocabulary does not know are left out. */
export const movesOf = (id: string, vocabulary: Vocabulary): readonly Move[] =>
  id.split(TOGETHER).flatMap((one) => vocabulary.find(one) ?? [])

/** What it is called. */
export const nameOfMoves = (id: string, vocabulary: Vocabulary): string =>
  movesOf(id, vocabulary)
    .map(({ name }) => name.toLowerCase())
    .join(' with ')

/** Moves one after the other, each eight counts to one side and eight to the other. */
export function movesCombination(ids: readonly string[], vocabulary: Vocabulary): Combination {
  const phrases = ids
    .map((id) => movesOf(id, vocabulary))
    .filter((moves) => moves.length > 0)
    .slice(0, MOST_MOVES)
    .map((moves, i) => ({
      id: `move-${i}`,
      name: String(i + 1),
      title: moves.map(({ name }) => name).join(', '),
      counts: COUNTS,
      events: moves.flatMap((move, j) => eventsOf(move, `move-${i}${j > 0 ? ` ${j}` : ''}`)),
    }))
  const shown =
    phrases.length > 0
      ? phrases
      : [{ id: 'still', name: '1', title: '', counts: COUNTS, events: [] }]
  return {
    kind: 'combination',
    schemaVersion: SCHEMA_VERSION,
    id: `moves ${ids.join()}`,
    title: 'Moves',
    families: ['general'],
    tempo: 80,
    teachTempo: 80,
    lead: 'R',
    start: { ...defaultStart('R'), weight: 'both' },
    phrases: shown,
    order: shown.flatMap(({ id }) => [
      { phrase: id, mirrored: false },
      { phrase: id, mirrored: true },
    ]),
  }
}

/** The move for eight counts: paths and places are repeated in their usual time. */
function eventsOf(move: Move, id: string): readonly Event[] {
  const what: What = whatOf(move)
  const every = Math.min(move.length, COUNTS * COUNT)
  const fits = Math.max(1, Math.floor((COUNTS * COUNT) / every))
  const length = move.layer === 'feet' ? tick(fits * every) : tick(COUNTS * COUNT)
  return [
    {
      id,
      layer: move.layer,
      at: tick(0),
      length,
      // A warm-up is called by its moves, not by the number of a phrase.
      ...(move.cue && { cue: move.cue }),
      what:
        what.kind === 'move' && move.kind !== 'texture' ? { ...what, every: tick(every) } : what,
    },
  ]
}
