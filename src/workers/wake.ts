/** Calls again and again, also while the tab is hidden or busy, until the returned stop is called. */
export function wakeEvery(ms: number, call: () => void): () => void {
  const worker = new Worker(new URL('./wake.worker.ts', import.meta.url), { type: 'module' })
  worker.onmessage = call
  worker.postMessage({ ms })
  return () => worker.terminate()
}
