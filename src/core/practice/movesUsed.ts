import type { Combination, Event } from '../combination/combination'
import type { Move } from '../moves/move'
import { type Vocabulary, vocabularyFor, vocabularyOf } from '../moves/vocabulary'

/** What a move is danced and called by; the rest of its row is for who teaches. */
export type DancedMove = Omit<
  Move,
  'aka' | 'families' | 'feel' | 'needs' | 'risk' | 'watch' | 'care' | 'easier' | 'harder'
>

/** The rows of the moves a combination dances, its own among them, without what only a teacher reads. */
export function movesUsedBy(combination: Combination, base: Vocabulary): readonly DancedMove[] {
  const vocabulary = vocabularyFor(combination, base)
  const named = new Set(
    combination.phrases.flatMap(({ events, options = [] }) =>
      [...events, ...options.flatMap((one) => one.events)].flatMap(idsIn),
    ),
  )
  return vocabulary.moves
    .filter(({ id }) => named.has(id))
    .map(
      ({
        aka: _,
        families: __,
        feel: ___,
        needs: ____,
        risk: _____,
        watch,
        care,
        easier,
        harder,
        ...move
      }) => move,
    )
}

/** What it is, and the forms a level may dance instead. */
const idsIn = ({ what, easier = [], harder = [] }: Event): readonly string[] =>
  [{ what }, ...easier, ...harder].flatMap((form) =>
    'move' in form
      ? [form.move]
      : 'what' in form && form.what.kind === 'move'
        ? [form.what.move]
        : [],
  )

/** A vocabulary of such rows: all there is to dance, and nothing to read. */
export const vocabularyOfUsed = (moves: readonly DancedMove[]): Vocabulary =>
  vocabularyOf(
    moves.map((move) => ({
      ...move,
      aka: [],
      families: [],
      feel: '',
      needs: [],
      risk: [],
      watch: '',
      care: '',
      easier: '',
      harder: '',
    })),
  )
