import type { Slots } from '../src/storage/journal'

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
