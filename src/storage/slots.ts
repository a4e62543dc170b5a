import { z } from 'zod'
import { UserError } from '../core/errors'

/** A page's local storage, or the like: small, and written at once. */
export type Slots = Pick<Storage, 'getItem' | 'setItem' | 'removeItem' | 'key' | 'length'>

/** Whether something stored can't be read by this version; a failing disk is another matter. */
const isUnreadable = (error: unknown): boolean =>
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
