import fc from 'fast-check'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { holds } from '../../../tests/holds'
import { follow } from './follow'

beforeEach(() => void vi.useFakeTimers())
afterEach(() => void vi.useRealTimers())

/** A film that plays as a browser does: jumps land a little late, the clock goes on by itself. */
function filmOf(start: number, landsLate: number) {
  let at = start
  let jumps: number[] = []
  const film = {
    paused: true,
    playbackRate: 1,
    dataset: {} as Record<string, string>,
    play() {
      film.paused = false
      return Promise.resolve()
    },
    pause() {
      film.paused = true
    },
    get currentTime() {
      return at
    },
    set currentTime(second: number) {
      jumps.push(performance.now())
      at = second - landsLate
    },
  }
  return {
    film: film as unknown as HTMLVideoElement,
    go(seconds: number) {
      if (!film.paused) at += seconds * film.playbackRate
    },
    jumps: () => jumps,
    forget: () => {
      jumps = []
    },
  }
}

describe('a film beside what is heard', () => {
  it('is within a picture of it after three seconds at any speed, and leaps no more than every two', () => {
    holds(
      fc.property(
        fc.integer({ min: 8, max: 24 }),
        fc.double({ min: 0, max: 200, noNaN: true }),
        fc.double({ min: 0, max: 200, noNaN: true }),
        fc.double({ min: -0.05, max: 0.15, noNaN: true }),
        (twentieths, second, start, landsLate) => {
          const rate = twentieths / 20
          const { film, go, jumps } = filmOf(start, landsLate)
          let heard = second
          let isHeard = true
          const stop = follow(film, () => (isHeard ? { second: heard, rate } : undefined))
          const step = (seconds: number) => {
            for (let i = 0; i < seconds * 50; i++) {
              go(0.02)
              heard += 0.02 * rate
              vi.advanceTimersByTime(20)
            }
          }
          step(3)
          for (let i = 0; i < 20; i++) {
            step(0.2)
            expect(Math.abs(film.currentTime - heard)).toBeLessThan(0.04)
          }
          const gaps = jumps()
            .slice(1)
            .map((at, i) => at - (jumps()[i] as number))
          expect(Math.min(2000, ...gaps)).toBeGreaterThanOrEqual(2000)
          // Nothing of it sounds: it waits, and goes on with it.
          isHeard = false
          step(1)
          expect(film.paused).toBe(true)
          isHeard = true
          step(4)
          expect(Math.abs(film.currentTime - heard)).toBeLessThan(0.04)
          stop()
          expect([film.paused, film.playbackRate]).toEqual([true, 1])
        },
      ),
      { numRuns: 80, seed: 151 },
    )
  })
})
