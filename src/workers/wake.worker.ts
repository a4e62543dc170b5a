/** Wakes the page from a worker: hidden tabs slow a page's own timers. */
let timer: ReturnType<typeof setInterval> | undefined

self.onmessage = ({ data }: MessageEvent<{ readonly ms: number }>) => {
  clearInterval(timer)
  timer = setInterval(() => self.postMessage(null), data.ms)
}
