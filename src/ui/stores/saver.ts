import type { Combination } from '../../core/combination/combination'
import { UserError } from '../../core/errors'
import type { Services } from '../app/services'
import { createStore, type Readable } from './store'

/** How the last save went; `elsewhere` carries the copy that was made. */
type SaveState =
  | { readonly kind: 'saved' }
  | { readonly kind: 'saving' }
  | { readonly kind: 'failed'; readonly error: UserError }
  | { readonly kind: 'elsewhere'; readonly copy: Combination }

export interface Saver extends Readable<SaveState> {
  readonly save: (combination: Combination) => void
  /** The revision last read or written. */
  readonly revision: () => number
  /** Another window's save was taken on. */
  readonly takeOn: (revision: number) => void
}

/** Saves every state at once, one save after the other; states overtaken by a newer one are skipped. */
export function createSaver(
  { combinations, journal }: Pick<Services, 'combinations' | 'journal'>,
  first: number,
): Saver {
  const state = createStore<SaveState>({ kind: 'saved' })
  let revision = first
  let waiting: Combination | undefined
  let running = false

  async function run() {
    running = true
    while (waiting) {
      const next = waiting
      waiting = undefined
      try {
        const saved = await combinations.save(next, revision)
        if (saved.kind === 'elsewhere') {
          revision = 1
          journal.clear(next.id)
          state.set(() => saved)
        } else {
          revision = saved.revision
          if (waiting) journal.write(waiting, revision)
          else journal.clear(next.id)
          state.set(() => ({ kind: 'saved' }))
        }
      } catch (cause) {
        const error = new UserError(
          'This could not be saved in the browser.',
          'Save it as a file now, then make room on the disk and open it again.',
          { cause },
        )
        state.set(() => ({ kind: 'failed', error }))
      }
    }
    running = false
  }

  return {
    get: state.get,
    subscribe: state.subscribe,
    revision: () => revision,
    takeOn(taken) {
      revision = taken
    },
    save(combination) {
      waiting = combination
      journal.write(combination, revision)
      state.set(() => ({ kind: 'saving' }))
      if (!running) void run()
    },
  }
}
