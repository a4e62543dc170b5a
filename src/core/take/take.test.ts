import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { anyCombination } from '../../../tests/arbitraries'
import { holds } from '../../../tests/holds'
import { aloneFrom, bothOf } from '../combination/dancing'
import { USUAL_HOUSE } from '../house/house'
import { vocabulary } from '../moves/vocabulary'
import { performanceOf } from '../performance/performance'
import { SILENT, stretchOf } from '../performance/stretches'
import { danced } from '../simulate/danced'
import { TICKS_PER_COUNT } from '../time/time'
import { steady } from '../time/timeMap'
import { besideDance, dancedIn, goneOn, newTake, nudgedTake, readTake, secondIn } from './take'

const begun = newTake({
  id: 't',
  at: '2026-11-29T10:00:00.000Z',
  title: 'First',
  of: { kind: 'combination', id: 'c' },
  camera: 'Front camera',
  nudge: 0,
  type: 'video/webm',
})

describe('a take', () => {
  it('finds every moment of the dance in its film, counted in and danced, on either side', () => {
    holds(
      fc.property(
        anyCombination(),
        fc.integer({ min: 40, max: 220 }),
        fc.integer({ min: -500, max: 4000 }),
        fc.integer({ min: -40, max: 40 }),
        (combination, tempo, begins, steps) => {
          const dance = danced(combination, vocabulary, USUAL_HOUSE)
          const performance = performanceOf(
            bothOf(combination).map((dancing) => stretchOf(dance, dancing)),
            { time: steady(tempo), speech: SILENT },
          )
          const take = nudgedTake({ ...begun, danced: dancedIn(performance, begins) }, 20 * steps)
          expect(readTake(JSON.parse(JSON.stringify(take)))).toEqual(take)
          let seconds = 0
          for (const { dancing, from, length, time } of performance.segments) {
            for (const share of [0, 0.31, 0.77, 0.99]) {
              const at = share * length
              const due = seconds + time.secondsAt(at) + (begins + take.nudge) / 1000
              const found = secondIn(take, dancing.side, from + at)
              // A side that is danced again is found where it was danced first.
              expect(found).toBeDefined()
              if (share > 0 && from + at >= 0) expect(found).toBeCloseTo(due, 2)
            }
            seconds += time.secondsAt(length)
          }
          expect(secondIn(take, combination.lead, 1e6)).toBeUndefined()
          // Danced at another tempo, each of its moments goes by as much faster or slower.
          const slower = performanceOf([stretchOf(dance, aloneFrom(combination.lead))], {
            time: steady(tempo / 2),
            speech: SILENT,
          })
          const [lead, round] = slower.segments
          const middle = (lead?.length ?? 0) + (round?.length ?? 0) / 2
          const beside = besideDance(take, slower.momentAt(middle))
          const isInside = (round?.length ?? 0) > 4 * TICKS_PER_COUNT
          if (isInside) expect(beside?.rate).toBeCloseTo(0.5, 1)
          expect(beside?.second).toBe(
            secondIn(take, combination.lead, slower.momentAt(middle).tick),
          )
        },
      ),
      { numRuns: 60, seed: 121 },
    )
    expect(() => readTake({ ...begun, schemaVersion: 3 })).toThrow(/newer version/)
    const { of: _, ...first } = begun
    expect(readTake({ ...first, schemaVersion: 1, combination: 'c' })).toEqual(begun)
  })

  it('that goes on at another tempo finds what came before where it was, and what follows by the new one', () => {
    holds(
      fc.property(
        anyCombination(),
        fc.integer({ min: 60, max: 200 }),
        fc.double({ min: 0.6, max: 1.6, noNaN: true }),
        fc.double({ min: 0, max: 1, noNaN: true }),
        (combination, tempo, times, share) => {
          const dance = danced(combination, vocabulary, USUAL_HOUSE)
          const at = (counts: number) =>
            performanceOf([stretchOf(dance, aloneFrom(combination.lead))], {
              time: steady(counts),
              speech: SILENT,
            })
          const [first, then] = [at(tempo), at(tempo * times)]
          const tick = Math.floor(share * first.length)
          const from = Math.round(1000 * first.time.secondsAt(tick))
          // From there on it is as if it had always been danced like that.
          const begins = from - 1000 * then.time.secondsAt(tick)
          const counts = goneOn(dancedIn(first, 0), { from, danced: dancedIn(then, begins) })
          const take = readTake({ ...begun, danced: counts })
          expect(take.danced.map((one) => one.tick)).toEqual(
            dancedIn(first, 0).map((one) => one.tick),
          )
          for (const [i, { ms }] of counts.entries()) {
            const due = dancedIn(ms <= from ? first : then, ms <= from ? 0 : begins)[i]?.ms ?? 0
            expect(Math.abs(ms - due)).toBeLessThanOrEqual(1)
          }
        },
      ),
      { numRuns: 60, seed: 122 },
    )
  })
})
