import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { anyCombination } from '../../../tests/arbitraries'
import { holds } from '../../../tests/holds'
import { type Combination, emptyCombination } from '../combination/combination'
import { aloneFrom, bothOf, leadOf } from '../combination/dancing'
import { USUAL_HOUSE } from '../house/house'
import { vocabulary } from '../moves/vocabulary'
import { dancersOf } from '../pose/dancers'
import { jointOf } from '../pose/joints'
import { danced } from '../simulate/danced'
import { TICKS_PER_COUNT, tick } from '../time/time'
import { steady } from '../time/timeMap'
import { performanceOf } from './performance'
import { isClick } from './sounds'
import { SILENT, stretchOf } from './stretches'

const anyPlay = fc.record({
  combination: anyCombination(),
  tempo: fc.integer({ min: 40, max: 220 }),
  mode: fc.constantFrom('none', 'all', 'cues', 'switch'),
  isLooped: fc.boolean(),
})

const play = (
  combination: Combination,
  tempo: number,
  mode: 'none' | 'all' | 'cues' | 'switch',
) => {
  const dance = danced(combination, vocabulary, USUAL_HOUSE)
  const sides = bothOf(combination)
  return {
    dance,
    performed: performanceOf(
      sides.map((side) => stretchOf(dance, side, { mode })),
      {
        time: steady(tempo),
        speech: (text) => text.length * 0.05,
      },
    ),
  }
}

describe('a performance', () => {
  it.each([
    [4, [5, 6, 7, 8]],
    [6, [3, 4, 5, 6, 7, 8]],
    [8, [1, 2, 3, 4, 5, 6, 7, 8]],
    [10, [7, 8, 1, 2, 3, 4, 5, 6, 7, 8]],
  ])('is counted in with %i counts as %j', (countIn, numbers) => {
    const dance = danced(emptyCombination('one', 'phrase'), vocabulary, USUAL_HOUSE)
    const { segments } = performanceOf([stretchOf(dance, aloneFrom('R'), { countIn })], {
      time: steady(96),
      speech: SILENT,
    })
    expect(segments[0]?.countIn).toEqual(numbers)
  })

  it('clicks on every count and half of what is danced, first counts marked', () => {
    holds(
      fc.property(anyPlay, ({ combination, tempo, mode }) => {
        for (const { round, sounds, length } of play(combination, tempo, mode).performed.segments) {
          const clicks = sounds.filter(({ kind }) => isClick(kind)).map(({ at }) => Number(at))
          const step = round === 0 ? TICKS_PER_COUNT : TICKS_PER_COUNT / 2
          expect(clicks).toEqual(Array.from({ length: length / step }, (_, i) => i * step))
          expect(sounds.filter(({ kind }) => kind === 'phrase')).toHaveLength(
            round === 0 ? 0 : combination.order.length,
          )
        }
      }),
      { numRuns: 150, seed: 82 },
    )
  })

  it('has everything of its segments on the ticks of the whole, in its order and its time', () => {
    holds(
      fc.property(anyPlay, ({ combination, tempo, mode }) => {
        const { performed } = play(combination, tempo, mode)
        const { segments, sounds, calls, captions, length, time } = performed
        expect(length).toBe(segments.reduce((sum, segment) => sum + segment.length, 0))
        expect(time.secondsAt(length)).toBeCloseTo((length * 5) / tempo, 6)
        expect(sounds.length).toBe(
          segments.reduce((sum, segment) => sum + segment.sounds.length, 0),
        )
        for (const list of [sounds, captions])
          for (const [i, one] of list.entries()) {
            expect(one.at).toBeGreaterThanOrEqual(list[i - 1]?.at ?? 0)
            expect(one.at).toBeLessThan(length)
          }
        for (const { at, of } of calls) expect(of).toBeGreaterThanOrEqual(at)
        if (mode === 'none') expect(calls).toEqual([])
        // Every count has its number, and nothing else has one.
        const numbers = captions.filter(({ kind }) => kind === 'count' || kind === 'count-in')
        expect(numbers.map(({ at }) => Number(at))).toEqual(
          Array.from({ length: length / TICKS_PER_COUNT }, (_, i) => i * TICKS_PER_COUNT),
        )
        for (const { at, text } of numbers) expect(performed.momentAt(at + 1).count).toBe(text)
      }),
      { numRuns: 150, seed: 301 },
    )
  })

  it('knows at every tick which segment, side and count it is, and comes back to the tick', () => {
    holds(
      fc.property(
        anyPlay,
        fc.double({ min: 0, max: 0.9999, noNaN: true }),
        ({ combination, tempo, mode }, share) => {
          const { performed, dance } = play(combination, tempo, mode)
          const at = share * performed.length
          expect(performed.tickOf(performed.placeAt(at))).toBeCloseTo(at, 9)
          const moment = performed.momentAt(at)
          const half = performed.length / 2
          expect(moment.dancing).toEqual(bothOf(combination)[at < half ? 0 : 1])
          const countIn = performed.segments[0]?.length ?? 0
          expect(moment.tick).toBeCloseTo((at % half) - countIn, 6)
          expect(moment.isCountIn).toBe(moment.tick < 0)
          if (moment.tick >= 0) {
            const pass = dance.from(moment.dancing).passes.findLast((one) => one.at <= moment.tick)
            expect(moment.pass).toBe(pass)
          }
        },
      ),
      { numRuns: 300, seed: 302 },
    )
  })

  it('goes over into what follows without a jump, also where it is looped', () => {
    holds(
      fc.property(anyPlay, ({ combination, tempo, isLooped }) => {
        const dance = danced(combination, vocabulary, USUAL_HOUSE)
        const performed = performanceOf(
          [stretchOf(dance, leadOf(combination))],
          { time: steady(tempo), speech: SILENT },
          isLooped ? 1 : undefined,
        )
        const dancers = dancersOf(dance.from)
        const end = performed.poseAt(performed.length - 1e-6, dancers)
        const own = dancers(leadOf(combination))
        // A loop ends where it begins, anything else where the dance leaves her.
        const wanted = own.poseAt(isLooped ? 0 : dance.lead.length - 1e-6)
        for (const joint of ['palmR', 'heelL', 'head'] as const)
          for (const [i, value] of jointOf(end, joint).entries())
            expect(value).toBeCloseTo(jointOf(wanted, joint)[i] ?? Number.NaN, 3)
      }),
      { numRuns: 100, seed: 303 },
    )
  })

  it('of counts in the middle has nobody move until they begin', () => {
    holds(
      fc.property(anyPlay, fc.integer({ min: 1, max: 6 }), ({ combination, tempo }, count) => {
        const dance = danced(combination, vocabulary, USUAL_HOUSE)
        const from = tick(Math.min(count * TICKS_PER_COUNT, dance.lead.length - TICKS_PER_COUNT))
        fc.pre(from > 0)
        const performed = performanceOf(
          [stretchOf(dance, leadOf(combination), { range: { from, to: dance.lead.length } })],
          { time: steady(tempo), speech: SILENT },
        )
        for (const at of [0, 10, 30, 47.9]) {
          expect(performed.danceAt(at).tick).toBe(from)
          expect(performed.momentAt(at).pass).toBeUndefined()
        }
        expect(performed.momentAt(48).tick).toBe(from)
      }),
      { numRuns: 100, seed: 304 },
    )
  })
})
