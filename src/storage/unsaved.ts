import { readSlot, type Slots, slotsFrom, writeSlot } from './slots'

/**
 * What a window has changed but not yet stored. It is written at once, since a closed tab
 * does not wait for a database; what a window left behind is saved by the next one.
 */
interface Unsaved<T> {
  readonly write: (id: string, value: T) => void
  readonly clear: (id: string) => void
  /**
   * Hands on what windows that are gone have left, each once; returns how many there were.
   * What can't be read can't be saved, and goes.
   */
  readonly recover: (save: (value: T) => Promise<unknown>) => Promise<number>
}

/** Whether a window is gone: its lock is free. While the work runs, nobody else does it too. */
export type WhenGone = (window: string, work: () => Promise<void>) => Promise<void>

/** Makes the notes of a window, by what they are about and how they are read. */
export type UnsavedOf = <T>(
  kind: string,
  read: (record: Record<string, unknown>) => T,
) => Unsaved<T>

const PREFIX = 'molten-sway unsaved'

/** @param window the id of this window, without a space. */
export const unsavedIn =
  (slots: Slots, window: string, whenGone: WhenGone): UnsavedOf =>
  (kind, read) => {
    const prefix = `${PREFIX}${kind} `
    const slotOf = (id: string) => `${prefix}${window} ${id}`
    return {
      write: (id, value) => writeSlot(slots, slotOf(id), value),
      clear: (id) => slots.removeItem(slotOf(id)),
      async recover(save) {
        let recovered = 0
        for (const slot of slotsFrom(slots, prefix)) {
          const owner = slot.slice(prefix.length).split(' ')[0] ?? ''
          if (owner === window) continue
          await whenGone(owner, async () => {
            const left = readSlot(slots, slot, read)
            if (left !== undefined) await save(left)
            slots.removeItem(slot)
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

const CHANNEL = 'molten-sway windows'
/** A window that is there answers well within this time, in milliseconds. */
const ANSWER_MS = 400

interface Asked {
  readonly ask?: string
  readonly answer?: string
}

/** The same without locks, where a browser has none: a window that is there answers when it is asked. */
export function windowAsks(window: string): WhenGone {
  if (typeof BroadcastChannel === 'undefined') return async (_, work) => work()
  const channel = new BroadcastChannel(CHANNEL)
  channel.addEventListener('message', ({ data }: MessageEvent<Asked>) => {
    if (data.ask === window) channel.postMessage({ answer: window } satisfies Asked)
  })
  return async (other, work) => {
    const isThere = await new Promise<boolean>((resolve) => {
      const hear = ({ data }: MessageEvent<Asked>) => {
        if (data.answer === other) resolve(true)
      }
      channel.addEventListener('message', hear)
      setTimeout(() => {
        channel.removeEventListener('message', hear)
        resolve(false)
      }, ANSWER_MS)
      channel.postMessage({ ask: other } satisfies Asked)
    })
    if (!isThere) await work()
  }
}
