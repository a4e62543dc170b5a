import { UserError } from '../core/errors'
import type { ListenNews, ListenWish } from './listen.worker'

type Heard = Omit<Extract<ListenNews, { kind: 'heard' }>, 'kind'>

/**
 * Listens beside the page.
 * @param onShare is told the share that is done, 0 to 1
 * @throws UserError where taps keep no count; AbortError when stopped
 */
export function listenBeside(
  wish: ListenWish,
  {
    onShare,
    signal,
  }: { readonly onShare?: (share: number) => void; readonly signal?: AbortSignal },
): Promise<Heard> {
  const worker = new Worker(new URL('./listen.worker.ts', import.meta.url), { type: 'module' })
  return new Promise<Heard>((done, failed) => {
    const stop = () => failed(new DOMException('not wanted any more', 'AbortError'))
    if (signal?.aborted) stop()
    signal?.addEventListener('abort', stop, { once: true })
    worker.onmessage = ({ data }: MessageEvent<ListenNews>) => {
      if (data.kind === 'share') onShare?.(data.share)
      else if (data.kind === 'heard') done({ heard: data.heard, features: data.features })
      else failed(new UserError(data.text, data.toDo))
    }
    worker.onerror = ({ message }) => failed(new Error(message))
    worker.postMessage(wish, 'samples' in wish ? [wish.samples.buffer] : [])
  }).finally(() => worker.terminate())
}
