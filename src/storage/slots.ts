import { z } from 'zod'
import { UserError } from '../core/errors'

/** A page's local storage, or the like: small, and written at once. */
export type Slots = Pick<Storage, 'getItem' | 'setItem' | 'removeItem' | 'key' | 'length'>

/** Whether something stored can't be read by this version; a failing disk is another matter. */
export const isUnreadable = (error: unknown): boolean =>
  error instanceof UserError || error instanceof z.ZodError || error instanceof SyntaxError

/** What a slot holds; undefined where it holds nothing that can be read. */
export function readSlot<T>(
  slots: Slots,
  slot: string,
  read: (record: Record<string, unknown>) => T,
): T | undefined {
  try {
    const raw: unknown = JSON.parse(slots.getItem(slot) ?? 'null')
    return raw === null ? undefined : read(z.record(z.string(), z.unknown()).parse(raw))
  } catch (error) {
    if (!isUnreadable(error)) throw error
    return undefined
  }
}

/** Full or forbidden is no reason to stop: what is written here goes to the database too. */
export function writeSlot(slots: Slots, slot: string, value: unknown): void {
  try {
    slots.setItem(slot, JSON.stringify(value))
  } catch {
    // See above.
  }
}

/** The names of the slots that begin in one way. */
export const slotsFrom = (slots: Slots, prefix: string): readonly string[] =>
  Array.from({ length: slots.length }, (_, i) => slots.key(i) ?? '').filter((slot) =>
    slot.startsWith(prefix),
  )

/** The page's local storage; where that is denied, a place that lasts as long as the page. */
export function slotsOrNone(open: () => Storage): Slots {
  try {
    const slots = open()
    // Some browsers deny it only when it is asked for something.
    slots.getItem('')
    return slots
  } catch {
    return slotsInMemory()
  }
}

export function slotsInMemory(): Slots {
  const map = new Map<string, string>()
  return {
    get length() {
      return map.size
    },
    key: (i) => [...map.keys()][i] ?? null,
    getItem: (key) => map.get(key) ?? null,
    setItem: (key, value) => void map.set(key, value),
    removeItem: (key) => void map.delete(key),
  }
}
