import type { Keeping } from '../src/storage/records'
import { type Slots, slotsInMemory } from '../src/storage/slots'
import { type UnsavedOf, unsavedIn } from '../src/storage/unsaved'

/** Local storage as a plain map; `full` has no room any more. */
export function slots(full = false): Slots {
  const store = slotsInMemory()
  if (!full) return store
  return {
    ...store,
    setItem: () => {
      throw new Error('quota')
    },
  }
}

interface OneWindow {
  readonly window?: string
  /** Whether all other windows are gone. */
  readonly areGone?: boolean
}

/** The notes of a window, beside others or after them. */
export const notesOf = (
  store: Slots,
  { window = 'this', areGone = false }: OneWindow = {},
): UnsavedOf =>
  unsavedIn(store, window, async (_, work) => {
    if (areGone) await work()
  })

/** What keeps records in a test: notes in a store, and a clock. */
export const keepingIn = (
  store: Slots,
  now: () => number,
  { onKept = () => {}, ...window }: OneWindow & Partial<Pick<Keeping, 'onKept'>> = {},
): Keeping => ({ unsavedOf: notesOf(store, window), now, onKept })
