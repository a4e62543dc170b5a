import Papa from 'papaparse'
import type { Layer } from '../body/layers'
import { remembered } from '../record/remembered'
import { Move, moveOfOwn, type OwnMove } from './move'
import table from './moves.csv?raw'

/** Every move the app knows, by id. */
export interface Vocabulary {
  readonly moves: readonly Move[]
  readonly find: (id: string) => Move | undefined
  /** Reads a move somebody made herself; absent where all that are danced were read already. */
  readonly readOwn?: ((own: OwnMove) => Move) | undefined
}

/** A vocabulary of moves that were read. @param readOwn what reads the own moves of a combination */
export const vocabularyOf = (
  moves: readonly Move[],
  readOwn?: Vocabulary['readOwn'],
): Vocabulary => {
  const byId = new Map(moves.map((move) => [move.id, move]))
  return { moves, find: (id) => byId.get(id), readOwn }
}

/** What a class calls moves, by their ids. */
export type OwnNames = Readonly<Record<string, string>>

/**
 * A vocabulary with own moves beside the others (one of the same id takes its place) and
 * with the names the class uses; the name from the table stays among the other names.
 */
export function withOwn(
  base: Vocabulary,
  own: readonly OwnMove[],
  names: OwnNames = {},
): Vocabulary {
  if (own.length === 0 && Object.keys(names).length === 0) return base
  return withMoves(base, own.map(moveOfOwn), names)
}

/** The same with moves that were read already. */
function withMoves(base: Vocabulary, own: readonly Move[], names: OwnNames = {}): Vocabulary {
  const made = new Map(own.map((move) => [move.id, move]))
  const all = [...base.moves.filter(({ id }) => !made.has(id)), ...made.values()]
  return vocabularyOf(
    all.map((move) => {
      const name = Object.hasOwn(names, move.id) ? names[move.id] : undefined
      return name === undefined || name === move.name
        ? move
        : { ...move, name, aka: [move.name, ...move.aka] }
    }),
    base.readOwn,
  )
}

/** A vocabulary with the own moves a combination brings along; one that is known already stays as it is known. */
export const vocabularyFor = (
  { moves }: { readonly moves?: readonly OwnMove[] | undefined },
  base: Vocabulary,
): Vocabulary => (moves ? completedBy(moves, base) : base)

const completedBy = remembered((moves: readonly OwnMove[], base: Vocabulary) => {
  const { readOwn } = base
  const unknown = moves.filter(({ id }) => !base.find(id))
  return unknown.length === 0 || !readOwn ? base : withMoves(base, unknown.map(readOwn))
})

/**
 * Reads a table of moves (CSV with a header row).
 * @throws Error that names the row and what is wrong with it.
 */
export function readVocabulary(csv: string): Vocabulary {
  const { data, errors } = Papa.parse<Record<string, string>>(csv, {
    header: true,
    skipEmptyLines: true,
  })
  if (errors[0]) throw new Error(`moves table, row ${errors[0].row}: ${errors[0].message}`)
  const moves = data.map((row) => {
    const read = Move.safeParse(row)
    if (!read.success) throw new Error(`moves table, ${row.id}: ${read.error.message}`)
    return read.data
  })
  if (new Set(moves.map(({ id }) => id)).size !== moves.length)
    throw new Error('moves table: an id stands twice')
  return vocabularyOf(moves, moveOfOwn)
}

/** The vocabulary that ships with the app. */
export const vocabulary = readVocabulary(table)

/** The shipped one, with the own moves a combination brings along. */
export const shippedFor = (combination: Parameters<typeof vocabularyFor>[0]): Vocabulary =>
  vocabularyFor(combination, vocabulary)

export const layerWord: Readonly<Record<Layer, string>> = {
  feet: 'Feet',
  legs: 'Legs',
  hips: 'Hips',
  torso: 'Torso',
  arms: 'Arms',
  head: 'Head',
}
