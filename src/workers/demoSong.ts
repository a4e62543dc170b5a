import type { DemoSong } from '../core/demoSongs/demoSongs'
import type { DemoId } from '../core/demoSongs/titles'

export type PlayedDemo = Pick<DemoSong, 'title' | 'samples' | 'rate'>

/** Plays an invented song beside the page. */
export function playDemoSong(id: DemoId): Promise<PlayedDemo> {
  const worker = new Worker(new URL('./demoSong.worker.ts', import.meta.url), { type: 'module' })
  return new Promise<PlayedDemo>((done, failed) => {
    worker.onmessage = ({ data }: MessageEvent<PlayedDemo>) => done(data)
    worker.onerror = ({ message }) => failed(new Error(message))
    worker.postMessage(id)
  }).finally(() => worker.terminate())
}
