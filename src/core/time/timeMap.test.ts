import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { holds } from '../../../tests/holds'
import { clockAt, inTurn, secondsBetween, steady, tickDue, ticksFrom } from './timeMap'

const anyTempo = fc.integer({ min: 40, max: 220 })
const anyStretches = fc.array(
  fc.record({ length: fc.integer({ min: 1, max: 400 }), tempo: anyTempo }),
  { minLength: 1, maxLength: 6 },
)
const mapOf = (stretches: readonly { length: number; tempo: number }[]) =>
  inTurn(stretches.map(({ length, tempo }) => ({ length, time: steady(tempo) })))

describe('a time map', () => {
  it('goes from ticks to seconds and back, over any changes of tempo, and never backwards', () => {
    holds(
      fc.property(anyStretches, fc.integer({ min: -50, max: 3000 }), (stretches, at) => {
        const time = mapOf(stretches)
        expect(time.tickAt(time.secondsAt(at))).toBeCloseTo(at, 6)
        expect(secondsBetween(time, at, at + 1)).toBeGreaterThan(0)
        expect(ticksFrom(time, at, secondsBetween(time, at, at + 30))).toBeCloseTo(30, 6)
      }),
      { numRuns: 400, seed: 21 },
    )
  })

  it('of stretches in turn is each one’s own, from where those before it end', () => {
    holds(
      fc.property(
        anyStretches,
        fc.double({ min: 0, max: 0.999, noNaN: true }),
        (stretches, share) => {
          const time = mapOf(stretches)
          let [ticks, seconds] = [0, 0]
          for (const { length, tempo } of stretches) {
            const own = steady(tempo)
            expect(time.secondsAt(ticks + share * length)).toBeCloseTo(
              seconds + own.secondsAt(share * length),
              6,
            )
            expect(time.tempoAt(ticks + share * length)).toBe(tempo)
            ticks += length
            seconds += own.secondsAt(length)
          }
        },
      ),
      { numRuns: 200, seed: 22 },
    )
  })

  it('is followed from any moment that is known on a clock', () => {
    holds(
      fc.property(
        anyStretches,
        fc.double({ min: 0, max: 1e4, noNaN: true }),
        fc.integer({ min: 0, max: 1500 }),
        fc.integer({ min: 0, max: 3000 }),
        (stretches, seconds, tick, at) => {
          const anchor = { seconds, tick, time: mapOf(stretches) }
          expect(tickDue(anchor, clockAt(anchor, at))).toBeCloseTo(at, 5)
        },
      ),
      { numRuns: 200, seed: 23 },
    )
    expect(clockAt({ seconds: 1, tick: 0, time: steady(120) }, 24)).toBe(2)
  })
})
