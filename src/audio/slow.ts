import type { SlowMade, SlowWish } from './slow.worker'

/** Where nothing has come after so long, nothing will. */
const PATIENCE_MS = 10_000

/** Makes parts of songs slower or faster beside the page, one after another. */
export interface Slower {
  /** @throws Error where this browser can't */
  readonly make: (wish: Omit<SlowWish, 'id'>) => Promise<SlowMade['rows']>
}

interface Waiting {
  readonly done: (rows: SlowMade['rows']) => void
  readonly failed: (error: Error) => void
}

export function createSlower(): Slower {
  let worker: Worker | undefined
  let next = 1
  const waiting = new Map<number, Waiting>()
  const fail = (message: string) => {
    worker?.terminate()
    worker = undefined
    for (const { failed } of waiting.values()) failed(new Error(message))
    waiting.clear()
  }
  const started = () => {
    if (worker) return worker
    worker = new Worker(new URL('./slow.worker.ts', import.meta.url), { type: 'module' })
    worker.onmessage = ({ data }: MessageEvent<SlowMade>) => {
      waiting.get(data.id)?.done(data.rows)
      waiting.delete(data.id)
    }
    worker.onerror = ({ message }) => fail(message)
    return worker
  }
  return {
    make(wish) {
      const id = next++
      return new Promise((done, failed) => {
        // A browser that refuses the stretcher says nothing at all.
        const timer = setTimeout(() => fail('it does not answer'), PATIENCE_MS)
        const over = () => clearTimeout(timer)
        waiting.set(id, {
          done: (rows) => {
            over()
            done(rows)
          },
          failed: (error) => {
            over()
            failed(error)
          },
        })
        started().postMessage(
          { ...wish, id },
          wish.rows.map(({ buffer }) => buffer),
        )
      })
    },
  }
}
