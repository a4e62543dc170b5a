import type { WakeOrder } from './wake.worker'

let worker: Worker | undefined
let last = 0
const calls = new Map<number, () => void>()

/** One for all timers: it is up and running when the first click is due. */
function theWorker(): Worker {
  if (worker) return worker
  worker = new Worker(new URL('./wake.worker.ts', import.meta.url), { type: 'module' })
  worker.onmessage = ({ data }: MessageEvent<number>) => calls.get(data)?.()
  return worker
}

/** Calls again and again, also while the tab is hidden or busy, until the returned stop is called. */
export function wakeEvery(ms: number, call: () => void): () => void {
  const id = ++last
  calls.set(id, call)
  const order = (what: WakeOrder) => theWorker().postMessage(what)
  order({ kind: 'start', id, ms })
  return () => {
    calls.delete(id)
    order({ kind: 'stop', id })
  }
}
