import Papa from 'papaparse'
import type { Layer } from './move'
import { Move } from './move'
import table from './moves.csv?raw'

/** Every move the app knows, by id. */
export interface Vocabulary {
  readonly moves: readonly Move[]
  readonly find: (id: string) => Move | undefined
}

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
  const byId = new Map(moves.map((move) => [move.id, move]))
  if (byId.size !== moves.length) throw new Error('moves table: an id stands twice')
  return { moves, find: (id) => byId.get(id) }
}

/** The vocabulary that ships with the app. */
export const vocabulary = readVocabulary(table)

export const layerWord: Readonly<Record<Layer, string>> = {
  feet: 'Feet',
  hips: 'Hips',
  torso: 'Torso',
  arms: 'Arms',
  head: 'Head',
}
