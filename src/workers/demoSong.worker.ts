import { demoSong } from '../core/demoSongs/demoSongs'
import type { DemoId } from '../core/demoSongs/titles'

self.onmessage = ({ data }: MessageEvent<DemoId>) => {
  const { title, samples, rate } = demoSong(data)
  self.postMessage({ title, samples, rate }, { transfer: [samples.buffer] })
}
