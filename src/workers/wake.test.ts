import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import type { WakeOrder } from './wake.worker'

/** A worker that is stepped by hand. */
class StandIn {
  static made: StandIn[] = []
  readonly orders: WakeOrder[] = []
  onmessage: ((event: { data: number }) => void) | undefined
  constructor() {
    StandIn.made.push(this)
  }
  postMessage(order: WakeOrder) {
    this.orders.push(order)
  }
}

beforeEach(() => {
  StandIn.made = []
  vi.resetModules()
  vi.stubGlobal('Worker', StandIn)
})
afterEach(() => vi.unstubAllGlobals())

describe('waking the page', () => {
  it('has one worker for every clock, calls each by its own time, and none that was stopped', async () => {
    const { wakeEvery } = await import('./wake')
    const called: string[] = []
    const stopFirst = wakeEvery(25, () => called.push('player'))
    wakeEvery(120, () => called.push('rounds'))
    expect(StandIn.made).toHaveLength(1)
    const [worker] = StandIn.made
    const [first, second] = worker?.orders ?? []
    expect([first, second]).toMatchObject([
      { kind: 'start', ms: 25 },
      { kind: 'start', ms: 120 },
    ])
    worker?.onmessage?.({ data: first?.id ?? 0 })
    worker?.onmessage?.({ data: second?.id ?? 0 })
    worker?.onmessage?.({ data: first?.id ?? 0 })
    expect(called).toEqual(['player', 'rounds', 'player'])
    stopFirst()
    // What was on its way when it was stopped calls nobody.
    worker?.onmessage?.({ data: first?.id ?? 0 })
    expect(called).toHaveLength(3)
    expect(worker?.orders.at(-1)).toEqual({ kind: 'stop', id: first?.id })
  })
})
