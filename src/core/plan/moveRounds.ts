import {
  type Combination,
  defaultStart,
  type Event,
  SCHEMA_VERSION,
} from '../combination/combination'
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

/** Moves one after the other, each eight counts to one side and eight to the other. */
export function movesCombination(ids: readonly string[], vocabulary: Vocabulary): Combination {
  const moves = ids.flatMap((id) => vocabulary.find(id) ?? []).slice(0, MOST_MOVES)
  const phrases = moves.map((move, i) => ({
    id: `move-${i}`,
    name: String(i + 1),
    title: move.name,
    counts: COUNTS,
    events: eventsOf(move, `move-${i}`),
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
