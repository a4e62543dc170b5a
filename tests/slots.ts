import type { Slots } from '../src/storage/slots'
import { type UnsavedOf, unsavedIn } from '../src/storage/unsaved'

/** Local storage as a plain map; `full` has no room any more. */
export function slots(full = false): Slots {
  const map = new Map<string, string>()
  return {
    get length() {
      return map.size
    },
    key: (i) => [...map.keys()][i] ?? null,
    getItem: (key) => map.get(key) ?? null,
    setItem: (key, value) => {
      if (full) throw new Error('quota')
      map.set(key, value)
    },
    removeItem: (key) => map.delete(key),
  }
}

/** The notes of a window beside which there is no other, or all others are gone. */
export const notesOf = (store: Slots, window = 'this', areGone = false): UnsavedOf =>
  unsavedIn(store, window, async (_, work) => {
    if (areGone) await work()
  })
