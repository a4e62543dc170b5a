import { type DressWish, dress } from '../core/skin/dress'

self.onmessage = ({ data }: MessageEvent<DressWish>) => self.postMessage(dress(data))
