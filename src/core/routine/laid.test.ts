import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { holds } from '../../../tests/holds'
import { anyLaying, made } from '../../../tests/routines'
import { aloneFrom } from '../combination/dancing'
import { USUAL_HOUSE } from '../house/house'
import { vocabulary } from '../moves/vocabulary'
import { dancersOf } from '../pose/dancers'
import { jointOf } from '../pose/joints'
import { firstOne, songTime } from '../song/song'
import { TICKS_PER_COUNT } from '../time/time'
import { dancedTo, routinePlayed } from './danced'
import { fitOf, gapsIn } from './fit'
import { endOfLaid, laidOut } from './laid'
import { readRoutine } from './routine'
import { sumsOf } from './sums'
import { songFactText } from './words'

describe('a routine, however it came to be', () => {
  it('loses no count: what is laid, at rest and left is the song, and is danced count for count', () => {
    holds(
      fc.property(anyLaying, ({ song, combinations, steps }) => {
        const { routine, all } = made(song, combinations, steps)
        expect(readRoutine(JSON.parse(JSON.stringify(routine)))).toEqual(routine)
        const sums = sumsOf(routine, song)
        expect(sums.danced + sums.rest + sums.left).toBe(sums.counts)
        expect(sums.sides.R + sums.sides.L).toBe(sums.danced)
        const gaps = gapsIn(routine, song)
        expect(gaps.reduce((sum, { counts }) => sum + counts, 0)).toBe(sums.left)
        const laid = laidOut(routine, song, (id) => all.find((one) => one.id === id))
        let at = laid.from
        for (const pass of laid.passes) {
          expect(pass.at).toBe(at)
          at += pass.counts
        }
        expect(at).toBe(endOfLaid(laid))
        // What sounds after its last count is waited for, and no longer.
        const heard = songTime(song).tickAt(song.media.seconds) / TICKS_PER_COUNT
        const held = at - song.counts.ms.length
        const after = heard + firstOne(song.counts) - song.counts.ms.length
        expect(held).toBe(Math.max(0, Math.min(16, Math.ceil(after))))
        expect(laid.combination.order).toHaveLength(laid.passes.length)
        for (const fact of fitOf(routine, song, laid)) {
          expect(fact.at).toBeGreaterThanOrEqual(laid.from)
          expect(songFactText(fact, song)).toMatch(/\.$/)
        }
      }),
      { numRuns: 120, seed: 71 },
    )
  })

  it('is danced by the song’s own time, without a leap from piece to piece', () => {
    holds(
      fc.property(anyLaying, fc.double({ min: 0, max: 0.99, noNaN: true }), (laying, share) => {
        const { song } = laying
        const { routine, all } = made(song, laying.combinations, laying.steps)
        const laid = laidOut(routine, song, (id) => all.find((one) => one.id === id))
        const dance = dancedTo(laid, song, vocabulary, USUAL_HOUSE)
        const to = song.counts.ms.length
        const from = Math.min(to - 2, laid.from + Math.floor(share * (to - laid.from)))
        const played = routinePlayed(dance, laid, song, { from, to, rate: 0.7, isLooped: false })
        expect(played.length).toBe(TICKS_PER_COUNT * (endOfLaid(laid) - from))
        const round = routinePlayed(dance, laid, song, { from, to, rate: 0.7, isLooped: true })
        expect(round.length).toBe(TICKS_PER_COUNT * (to - from))
        const [segment] = played.segments
        const first = (song.counts.ms[from] as number) / 1000
        expect(segment?.music?.from).toBeCloseTo(first, 6)
        for (const [i, ms] of song.counts.ms.slice(from).entries())
          expect(played.time.secondsAt(i * TICKS_PER_COUNT)).toBeCloseTo(
            (ms / 1000 - first) / 0.7,
            6,
          )
        const dancers = dancersOf(dance.from)
        const dancer = dancers(aloneFrom(laid.combination.lead))
        for (const pass of laid.passes.slice(1)) {
          const border = TICKS_PER_COUNT * (pass.at - laid.from)
          const [before, after] = [border - 1e-6, border].map((at) => dancer.poseAt(at))
          for (const joint of ['palmR', 'heelL', 'head'] as const)
            for (const [k, value] of jointOf(after as never, joint).entries())
              expect(value).toBeCloseTo(jointOf(before as never, joint)[k] ?? Number.NaN, 3)
        }
      }),
      { numRuns: 40, seed: 72 },
    )
  })
})
