import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { combination, feet } from '../../tests/write'
import { USUAL_RULES } from '../core/house/house'
import type { Request } from './jobs'
import { createJudge } from './judge'

/** A worker that answers when it is told to. */
class HandWorker {
  static all: HandWorker[] = []
  readonly asked: Request[] = []
  isStopped = false
  onmessage: ((event: { data: unknown }) => void) | null = null
  onerror: ((event: { message: string }) => void) | null = null
  constructor() {
    HandWorker.all.push(this)
  }
  postMessage(request: Request) {
    this.asked.push(structuredClone(request))
  }
  terminate() {
    this.isStopped = true
  }
  answer(output: unknown) {
    this.onmessage?.({ data: { id: this.asked.at(-1)?.id, ok: true, output } })
  }
}

beforeEach(() => {
  HandWorker.all = []
  vi.stubGlobal('Worker', HandWorker)
})
afterEach(() => vi.unstubAllGlobals())

const written = combination([feet('1 step R side')])
const judge = () => createJudge(() => ({ own: [], names: {}, house: USUAL_RULES }))
const level = (of: ReturnType<typeof judge>, signal: AbortSignal) =>
  of.ask('level', { combination: written, level: 'new' }, signal)
const worker = (i = 0) => {
  const one = HandWorker.all[i]
  if (!one) throw new Error('no worker was started')
  return one
}
const settledAs = async (promise: Promise<unknown>) =>
  promise.then(
    (value) => value,
    (error: unknown) => (error as Error).name,
  )

describe('asking beside the page', () => {
  it('starts nothing until it is asked, and then sends what it goes by along', () => {
    const asks = judge()
    expect(HandWorker.all).toEqual([])
    void level(asks, new AbortController().signal)
    expect(worker().asked).toEqual([
      expect.objectContaining({
        job: 'level',
        setting: { own: [], names: {}, house: USUAL_RULES },
      }),
    ])
  })

  it('answers one after another, each its own', async () => {
    const asks = judge()
    const { signal } = new AbortController()
    const [first, second] = [level(asks, signal), level(asks, signal)]
    expect(worker().asked).toHaveLength(1)
    worker().answer('one')
    expect(await first).toBe('one')
    expect(worker().asked).toHaveLength(2)
    worker().answer('two')
    expect(await second).toBe('two')
  })

  it('drops what is taken back: the work stops at once, and the next question gets a new worker', async () => {
    const asks = judge()
    const stop = new AbortController()
    const [first, second] = [level(asks, stop.signal), level(asks, new AbortController().signal)]
    stop.abort()
    expect(await settledAs(first)).toBe('AbortError')
    expect(worker().isStopped).toBe(true)
    worker(1).answer('second')
    expect(await second).toBe('second')
    expect(await settledAs(level(asks, stop.signal))).toBe('AbortError')
  })

  it('takes back a question that waits without disturbing the one that runs', async () => {
    const asks = judge()
    const stop = new AbortController()
    const [first, second] = [level(asks, new AbortController().signal), level(asks, stop.signal)]
    stop.abort()
    expect(await settledAs(second)).toBe('AbortError')
    expect(worker().isStopped).toBe(false)
    worker().answer('first')
    expect(await first).toBe('first')
    expect(worker().asked).toHaveLength(1)
  })

  it('fails all that wait when the worker breaks, and starts another for the next', async () => {
    const asks = judge()
    const { signal } = new AbortController()
    const both = [level(asks, signal), level(asks, signal)].map(settledAs)
    worker().onerror?.({ message: 'out of memory' })
    expect(await Promise.all(both)).toEqual(['Error', 'Error'])
    const again = level(asks, signal)
    worker(1).answer('again')
    expect(await again).toBe('again')
  })

  it('says in a sentence what went wrong inside a job', async () => {
    const asks = judge()
    const asked = level(asks, new AbortController().signal)
    worker().onmessage?.({ data: { id: worker().asked[0]?.id, ok: false, text: 'no phrase A' } })
    await expect(asked).rejects.toThrow('no phrase A')
  })
})
