import type { Dressed, DressWish } from '../core/skin/dress'

const known = new Map<string, Promise<Dressed>>()

/** A dancer at rest, made beside the page and kept: whoever asks again has her at once. */
export function dressed(wish: DressWish): Promise<Dressed> {
  const key = JSON.stringify(wish)
  const found = known.get(key) ?? made(wish)
  known.set(key, found)
  // Another try may be luckier.
  found.catch(() => known.delete(key))
  return found
}

function made(wish: DressWish): Promise<Dressed> {
  const worker = new Worker(new URL('./dress.worker.ts', import.meta.url), { type: 'module' })
  return new Promise<Dressed>((done, failed) => {
    worker.onmessage = ({ data }: MessageEvent<Dressed>) => done(data)
    worker.onerror = ({ message }) => failed(new Error(message))
    worker.postMessage(wish)
  }).finally(() => worker.terminate())
}
