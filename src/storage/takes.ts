import { readTake, type Take } from '../core/take/take'
import type { Database } from './database'
import { createRecords, type Keeping, type Records } from './records'

/** Films of the room, each written piece by piece as it comes. */
export interface Takes {
  readonly takes: Records<Take>
  /** Keeps the next piece of a film. @returns whether there was room for it */
  readonly add: (take: string, piece: Blob) => Promise<boolean>
  /** What there is of a film; undefined where nothing is. */
  readonly film: (take: Pick<Take, 'id' | 'type'>) => Promise<Blob | undefined>
  /** Throws takes and their films away at once, for good. @returns the bytes that are free again */
  readonly erase: (ids: readonly string[]) => Promise<number>
}

export function createTakes(database: Database, keeping: Keeping): Takes {
  const { takes: rows, takePieces } = database
  const takes = createRecords(database, rows, readTake, keeping)
  return {
    takes,
    async add(take, piece) {
      try {
        await takePieces.add({ take, piece, bytes: piece.size })
        return true
      } catch {
        // The disk is full: what was filmed so far stays.
        return false
      }
    },
    async film({ id, type }) {
      const all = await takePieces.where('take').equals(id).sortBy('id')
      return all.length > 0
        ? new Blob(
            all.map(({ piece }) => piece),
            { type },
          )
        : undefined
    },
    async erase(ids) {
      let freed = 0
      await database.transaction('rw', [rows, takePieces], async () => {
        const own = takePieces.where('take').anyOf(ids)
        await own.each(({ bytes }) => {
          freed += bytes
        })
        await own.delete()
        await rows.bulkDelete([...ids])
      })
      return freed
    },
  }
}
