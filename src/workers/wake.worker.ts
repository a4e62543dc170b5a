/** What the page asks: a timer begun, or one stopped. */
export type WakeOrder =
  | { readonly kind: 'start'; readonly id: number; readonly ms: number }
  | { readonly kind: 'stop'; readonly id: number }

const timers = new Map<number, ReturnType<typeof setInterval>>()

self.onmessage = ({ data }: MessageEvent<WakeOrder>) => {
  clearInterval(timers.get(data.id))
  timers.delete(data.id)
  if (data.kind === 'start')
    timers.set(
      data.id,
      setInterval(() => self.postMessage(data.id), data.ms),
    )
}
