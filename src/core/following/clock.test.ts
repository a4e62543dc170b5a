import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { holds } from '../../../tests/holds'
import { pingAfter, serverClock } from './clock'

/** A net: how long each way takes, in milliseconds. */
const anyPings = (most: number) =>
  fc.array(
    fc.tuple(
      fc.double({ min: 0, max: most, noNaN: true }),
      fc.double({ min: 0, max: most, noNaN: true }),
    ),
    {
      minLength: 8,
      maxLength: 60,
    },
  )

describe('the clock of a server', () => {
  it('lies within its bounds, whatever the net does and however the clocks drift', () => {
    holds(
      fc.property(
        fc.double({ min: -7.2e7, max: 7.2e7, noNaN: true }),
        fc.double({ min: -40e-6, max: 40e-6, noNaN: true }),
        anyPings(200),
        (offset, drift, pings) => {
          const clock = serverClock()
          const server = (own: number) => own + offset + own * drift
          let own = 0
          for (const [there, back] of pings) {
            const asked = own
            const said = server(own + there)
            own += there + back
            clock.heard(asked, said, own)
            const { low, high } = clock.bounds(own)
            const truth = server(own) - own
            expect(low - 1e-6).toBeLessThanOrEqual(truth)
            expect(high + 1e-6).toBeGreaterThanOrEqual(truth)
            own += 250
          }
          // Never worse than half of the best ping, and what drift has widened it by since.
          const best = Math.min(...pings.map(([there, back]) => there + back))
          const now = clock.at(own, false) ?? Number.NaN
          expect(Math.abs(now - server(own))).toBeLessThanOrEqual(best / 2 + 2 * own * 50e-6 + 0.1)
        },
      ),
      { numRuns: 300, seed: 611 },
    )
  })

  it('is off by a millisecond or so in a usual net', () => {
    // 8 ms, and up to 40 more each way, by a generator of its own.
    let seed = 7
    const next = () => {
      seed = (seed * 16807) % 2147483647
      return seed / 2147483647
    }
    const clock = serverClock()
    let own = 0
    for (let i = 0; i < 40; i++) {
      const [there, back] = [8 + 40 * next(), 8 + 40 * next()]
      clock.heard(own, own + there + 1234, own + there + back)
      own += there + back + pingAfter(i)
    }
    expect(Math.abs((clock.at(own, false) ?? 0) - own - 1234)).toBeLessThan(3)
  })

  it('glides to a far correction while somebody dances, and jumps while nobody does', () => {
    const made = () => {
      const clock = serverClock()
      clock.heard(0, 500, 200)
      expect(clock.at(200, true)).toBe(600)
      clock.heard(300, 650, 300)
      return clock
    }
    const dancing = made()
    // 400 before, 350 now.
    expect(dancing.at(300, true)).toBeCloseTo(700, 6)
    expect(dancing.at(800, true)).toBeCloseTo(800 + 375, 0)
    expect(dancing.at(1300, true)).toBeCloseTo(1300 + 350, 6)
    expect(made().at(300, false)).toBe(650)
    expect(serverClock().at(0, true)).toBeUndefined()
  })

  it('forgets what a clock said before it was set anew', () => {
    const clock = serverClock()
    clock.heard(0, 1000, 10)
    clock.heard(100, 9100, 110)
    expect(clock.at(110, false)).toBeCloseTo(110 + 8995, 0)
  })

  it('asks eight times at once, forty within seven seconds, then four each ten', () => {
    const waits = Array.from({ length: 48 }, (_, i) => pingAfter(i))
    expect(waits.slice(0, 8)).toEqual(Array(8).fill(0))
    expect(waits.slice(8, 40).reduce((sum, ms) => sum + ms, 0)).toBe(7000)
    expect(waits.slice(40).reduce((sum, ms) => sum + ms, 0)).toBe(20_000)
  })
})
