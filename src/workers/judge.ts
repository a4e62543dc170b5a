import { UserError } from '../core/errors'
import type { JobName, Jobs, Reply, Request, Setting } from './jobs'

/** Asks the worker, and can take a question back: what was being thought about then is dropped. */
export interface Judge {
  readonly ask: <J extends JobName>(
    job: J,
    input: Jobs[J]['in'],
    signal?: AbortSignal,
  ) => Promise<Jobs[J]['out']>
  readonly stop: () => void
}

interface Waiting {
  readonly request: Request
  readonly done: (output: Jobs[JobName]['out']) => void
  readonly failed: (error: unknown) => void
}

const cancelled = () => new DOMException('not asked any more', 'AbortError')

/** One worker, started when it is first asked; questions are answered one after another. */
export function createJudge(setting: () => Setting): Judge {
  let worker: Worker | undefined
  let waiting: readonly Waiting[] = []
  let next = 1

  const post = () => {
    const [first] = waiting
    if (first) started().postMessage(first.request)
  }
  const finish = (id: number, how: (one: Waiting) => void) => {
    const one = waiting.find(({ request }) => request.id === id)
    if (!one) return
    waiting = waiting.filter((other) => other !== one)
    how(one)
    post()
  }
  const started = (): Worker => {
    if (worker) return worker
    const made = new Worker(new URL('./judge.worker.ts', import.meta.url), { type: 'module' })
    made.onmessage = ({ data }: MessageEvent<Reply>) =>
      finish(data.id, (one) =>
        data.ok
          ? one.done(data.output)
          : one.failed(new UserError(data.text, data.toDo ?? 'Nothing was changed. Try it again.')),
      )
    // A worker that breaks answers nobody: all that wait are told, and the next question starts another.
    made.onerror = (event) => {
      const all = waiting
      waiting = []
      drop()
      for (const one of all) one.failed(new Error(event.message))
    }
    worker = made
    return made
  }
  const drop = () => {
    worker?.terminate()
    worker = undefined
  }
  const takeBack = (id: number) => {
    const isRunning = waiting[0]?.request.id === id
    if (isRunning) drop()
    const one = waiting.find(({ request }) => request.id === id)
    waiting = waiting.filter(({ request }) => request.id !== id)
    one?.failed(cancelled())
    if (isRunning) post()
  }
  return {
    ask(job, input, signal) {
      return new Promise((resolve, reject) => {
        if (signal?.aborted) {
          reject(cancelled())
          return
        }
        const id = next++
        const request: Request = { id, job, input, setting: setting() }
        signal?.addEventListener('abort', () => takeBack(id), { once: true })
        waiting = [
          ...waiting,
          { request, done: (output) => resolve(output as Jobs[typeof job]['out']), failed: reject },
        ]
        if (waiting.length === 1) post()
      })
    },
    stop: drop,
  }
}
