import { z } from 'zod'
import type { Combination } from '../core/combination/combination'
import { readCombination } from '../core/sheet/swayJson'
import type { Combinations } from './combinations'
import type { UnsavedOf } from './unsaved'

/** Combinations a window has changed but not yet stored. */
export interface Journal {
  readonly write: (combination: Combination, revision: number) => void
  readonly clear: (id: string) => void
  /** Saves what windows that are gone have left; returns how many there were. */
  readonly recover: (combinations: Combinations) => Promise<number>
}

const Entry = z.object({ revision: z.int(), record: z.record(z.string(), z.unknown()) })

export function createJournal(unsavedOf: UnsavedOf): Journal {
  const unsaved = unsavedOf('', (raw) => {
    const { revision, record } = Entry.parse(raw)
    return { revision, record: readCombination(record) }
  })
  return {
    write: (record, revision) => unsaved.write(record.id, { revision, record }),
    clear: unsaved.clear,
    recover: (combinations) =>
      unsaved.recover(({ record, revision }) => combinations.save(record, revision)),
  }
}
