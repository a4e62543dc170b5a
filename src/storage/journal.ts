import { z } from 'zod'
import type { Combination } from '../core/combination/combination'
import { UserError } from '../core/errors'
import { readCombination } from '../core/sheet/swayJson'
import type { Combinations } from './combinations'

/**
 * What a window has changed but not yet stored. It is written at once, since a closed tab
 * does not wait for a database; what a window left behind is saved by the next one.
 */
export interface Journal {
  readonly write: (combination: Combination, revision: number) => void
  readonly clear: (id: string) => void
  /** Saves what windows that are gone have left; returns how many there were. */
  readonly recover: (combinations: Combinations) => Promise<number>
}

/** A page's local storage, or the like. */
export type Slots = Pick<Storage, 'getItem' | 'setItem' | 'removeItem' | 'key' | 'length'>

/** Whether a window is gone: its lock is free. While the work runs, nobody else does it too. */
export type WhenGone = (window: string, work: () => Promise<void>) => Promise<void>

const Entry = z.object({ revision: z.int(), record: z.record(z.string(), z.unknown()) })
const PREFIX = 'molten-sway unsaved'

export function createJournal(slots: Slots, window: string, whenGone: WhenGone): Journal {
  const slotOf = (id: string) => `${PREFIX} ${window} ${id}`

  async function recoverSlot(slot: string, combinations: Combinations) {
    try {
      const { revision, record } = Entry.parse(JSON.parse(slots.getItem(slot) ?? ''))
      await combinations.save(readCombination(record), revision)
    } catch (error) {
      // What can't be read can't be saved; a failing disk is another matter, so it stays.
      const unreadable =
        error instanceof UserError || error instanceof z.ZodError || error instanceof SyntaxError
      if (!unreadable) throw error
    }
    slots.removeItem(slot)
  }

  return {
    write(combination, revision) {
      try {
        slots.setItem(slotOf(combination.id), JSON.stringify({ revision, record: combination }))
      } catch {
        // Full or forbidden: the database still gets it a moment later.
      }
    },
    clear: (id) => slots.removeItem(slotOf(id)),
    async recover(combinations) {
      const left = Array.from({ length: slots.length }, (_, i) => slots.key(i) ?? '').filter(
        (key) => key.startsWith(PREFIX),
      )
      let recovered = 0
      for (const slot of left) {
        const owner = slot.slice(PREFIX.length + 1).split(' ')[0] ?? ''
        if (owner === window) continue
        await whenGone(owner, async () => {
          await recoverSlot(slot, combinations)
          recovered++
        })
      }
      return recovered
    },
  }
}

/** A window shows that it is there by a lock, which the browser frees when it is gone, however it went. */
export function windowLocks(locks: LockManager, window: string): WhenGone {
  const nameOf = (id: string) => `molten-sway window ${id}`
  void locks.request(nameOf(window), () => new Promise<never>(() => {}))
  return async (other, work) => {
    await locks.request(nameOf(other), { ifAvailable: true }, async (lock) => {
      if (lock) await work()
    })
  }
}
