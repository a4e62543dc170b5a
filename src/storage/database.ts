import Dexie, { type Table } from 'dexie'
import { z } from 'zod'

/** One stored combination. The record has its own schema version; this row only carries it. */
export const Row = z.object({
  id: z.string(),
  /** Goes up with every save, so that two windows notice each other. */
  revision: z.int().positive(),
  /** Milliseconds since 1970. */
  changedAt: z.number(),
  removedAt: z.number().optional(),
  record: z.record(z.string(), z.unknown()),
})
export type Row = z.infer<typeof Row>

/** What was done once and for all, such as loading the demo. */
interface Flag {
  readonly name: string
  readonly at: number
}

export class Database extends Dexie {
  readonly combinations!: Table<Row, string>
  readonly flags!: Table<Flag, string>

  constructor(name = 'molten-sway') {
    super(name)
    this.version(1).stores({ combinations: 'id, changedAt', flags: 'name' })
  }
}
