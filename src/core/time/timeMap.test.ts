import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { holds } from '../../../tests/holds'
import {
  beaten,
  clockAt,
  inTurn,
  secondsBetween,
  slowed,
  startingAt,
  steady,
  tempoOver,
  tickDue,
  ticksFrom,
} from './timeMap'

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

const anyKnots = fc
  .array(fc.integer({ min: 200, max: 4000 }), { minLength: 1, maxLength: 60 })
  .map((gaps) => {
    let ms = 300
    return [
      { tick: -24, seconds: ms / 1000 },
      ...gaps.map((gap, i) => {
        ms += gap
        return { tick: 12 * (i - 1), seconds: ms / 1000 }
      }),
    ]
  })

describe('a time that drifts', () => {
  it('has its inverse everywhere, before its first knot and behind its last too', () => {
    holds(
      fc.property(
        anyKnots,
        fc.array(fc.double({ min: -400, max: 900, noNaN: true }), { minLength: 1, maxLength: 8 }),
        fc.double({ min: 0.4, max: 1.2, noNaN: true }),
        (knots, asked, rate) => {
          const song = beaten(knots)
          const part = startingAt(slowed(song, rate), 12)
          for (const { tick, seconds } of knots)
            expect(song.secondsAt(tick)).toBeCloseTo(seconds, 9)
          // In any order: what was asked before changes no answer.
          for (const at of asked)
            for (const time of [song, part]) {
              expect(time.tickAt(time.secondsAt(at))).toBeCloseTo(at, 6)
              expect(time.secondsAt(at + 1)).toBeGreaterThan(time.secondsAt(at))
            }
          expect(part.secondsAt(0)).toBe(0)
          for (const at of asked) {
            expect(part.secondsAt(at)).toBeCloseTo(
              (song.secondsAt(at + 12) - song.secondsAt(12)) / rate,
              9,
            )
            expect(part.tempoAt(at)).toBeCloseTo(song.tempoAt(at + 12) * rate, 9)
          }
        },
      ),
      { numRuns: 300, seed: 22 },
    )
  })

  it('is in the mean of some counts what they take, and of one count its own tempo', () => {
    holds(
      fc.property(anyKnots, fc.nat(40), (knots, from) => {
        const song = beaten(knots)
        const last = knots.at(-1)?.tick ?? 0
        expect(tempoOver(song, last + 12, last + 24)).toBeCloseTo(song.tempoAt(last + 12), 6)
        const whole = tempoOver(song, from, from + 96)
        expect((96 * 60) / (whole * 12)).toBeCloseTo(secondsBetween(song, from, from + 96), 6)
        expect(tempoOver(song, from, from)).toBe(song.tempoAt(from))
      }),
      { numRuns: 200, seed: 23 },
    )
  })

  it('that keeps one tempo is that tempo', () => {
    const song = beaten([0, 12, 24, 120].map((tick) => ({ tick, seconds: tick * (5 / 96) })))
    for (const at of [-30, 0, 5, 18, 77, 400]) {
      expect(song.secondsAt(at)).toBeCloseTo(steady(96).secondsAt(at), 9)
      expect(song.tempoAt(at)).toBeCloseTo(96, 9)
    }
    expect(() => beaten([{ tick: 0, seconds: 1 }])).toThrow(/no pace/)
  })
})
