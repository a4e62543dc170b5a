import type { Layer } from '../body/layers'
import type { Family, Move } from '../moves/move'
import type { Vocabulary } from '../moves/vocabulary'
import { folded } from '../record/folded'
import { fits } from './fit'
import type { Wanted } from './wanted'

/** What the vocabulary is looked through for. */
export interface MoveWish {
  readonly text: string
  readonly layer?: Layer | undefined
  readonly family?: Family | undefined
  /** The most demand it may have. */
  readonly demand?: number | undefined
  /** Only what suits a place: the foot is free, the body is where it starts, there is time. */
  readonly suits?: Wanted | undefined
  readonly only?: ((move: Move) => boolean) | undefined
}

const foldedNames = new WeakMap<Move, string>()
function namesOf(move: Move): string {
  const known = foldedNames.get(move) ?? folded([move.name, ...move.aka, move.id].join(' '))
  foldedNames.set(move, known)
  return known
}

/** The moves that are wanted, those whose name begins so first. */
export function browseMoves(wish: MoveWish, vocabulary: Vocabulary): readonly Move[] {
  const words = folded(wish.text).split(/\s+/).filter(Boolean)
  const found = vocabulary.moves.filter(
    (move) =>
      (!wish.layer || move.layer === wish.layer) &&
      (!wish.family || move.families.includes(wish.family)) &&
      (wish.demand === undefined || move.demand <= wish.demand) &&
      (!wish.only || wish.only(move)) &&
      words.every((word) => namesOf(move).includes(word)) &&
      (!wish.suits || fits(move, wish.suits, vocabulary)),
  )
  const [first = ''] = words
  const begins = (move: Move) => (first && namesOf(move).startsWith(first) ? 0 : 1)
  return [...found].sort((a, b) => begins(a) - begins(b))
}
