import { createStore } from 'zustand/vanilla'
import type { Combination } from '../../core/combination/combination'
import { UserError } from '../../core/errors'
import type { Stored } from '../../storage/combinations'
import type { Readable } from './readable'
import type { Services } from './services'

/** How the last save went; `elsewhere` carries what was saved as a copy, and the copy. */
type SaveState =
  | { readonly kind: 'saved' }
  | { readonly kind: 'saving' }
  | { readonly kind: 'failed'; readonly error: UserError }
  | { readonly kind: 'elsewhere'; readonly written: Combination; readonly copy: Combination }

export interface Saver extends Readable<SaveState> {
  readonly save: (combination: Combination) => void
  /** The id of the document this window writes, whatever id an older state of it has. */
  readonly id: () => string
  /** The revision last read or written. */
  readonly revision: () => number
  /** Another window's save was taken on. */
  readonly takeOn: (revision: number) => void
}

/** Runs something later; returns what takes that back. */
export type Later = (work: () => void, ms: number) => () => void

export const later: Later = (work, ms) => {
  const timer = setTimeout(work, ms)
  return () => clearTimeout(timer)
}

/** So long after a save that failed it is tried again, each time later, up to the last. */
const RETRY_MS = [1000, 3000, 10_000, 30_000] as const

/**
 * Saves every state at once, one save after the other; states overtaken by a newer one are
 * skipped. It says “saved” only when nothing waits. A save that fails is tried again until
 * there is room. Where another window has saved first, this one goes on in one copy.
 */
export function createSaver(
  { combinations, journal, onSaved }: Pick<Services, 'combinations' | 'journal' | 'onSaved'>,
  { combination: first, revision: read }: Pick<Stored, 'combination' | 'revision'>,
  wait: Later = later,
): Saver {
  const state = createStore<SaveState>(() => ({ kind: 'saved' }))
  let { id } = first
  let revision = read
  let waiting: Combination | undefined
  let running = false
  let failed = 0
  const own = (combination: Combination): Combination =>
    combination.id === id ? combination : { ...combination, id }

  /** Saves one state. Whether it could. */
  async function saveOne(next: Combination): Promise<boolean> {
    try {
      const saved = await combinations.save(next, revision)
      failed = 0
      onSaved()
      if (saved.kind === 'elsewhere') {
        journal.clear(id)
        id = saved.copy.id
        revision = 1
        state.setState({ kind: 'elsewhere', written: next, copy: saved.copy }, true)
      } else revision = saved.revision
      return true
    } catch (cause) {
      const error = new UserError(
        'This could not be saved in the browser.',
        'Make room on the disk: it is tried again by itself. To be sure, save it as a file now.',
        { cause },
      )
      state.setState({ kind: 'failed', error }, true)
      return false
    }
  }

  async function run() {
    running = true
    while (waiting) {
      const next = own(waiting)
      waiting = undefined
      if (!(await saveOne(next))) {
        waiting ??= next
        wait(
          () => {
            if (!running && waiting) void run()
          },
          RETRY_MS[Math.min(failed++, RETRY_MS.length - 1)] ?? 0,
        )
        break
      }
      if (waiting) journal.write(own(waiting), revision)
      else {
        journal.clear(id)
        if (state.getState().kind !== 'elsewhere') state.setState({ kind: 'saved' }, true)
      }
    }
    running = false
  }

  return {
    ...state,
    id: () => id,
    revision: () => revision,
    takeOn(taken) {
      revision = taken
    },
    save(combination) {
      waiting = combination
      journal.write(own(combination), revision)
      if (state.getState().kind !== 'failed') state.setState({ kind: 'saving' }, true)
      if (!running) void run()
    },
  }
}
