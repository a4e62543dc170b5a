import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { holds } from '../../../tests/holds'
import { Channel } from '../moves/motion'
import { countUpTo } from '../time/countUpTo'
import { acrossOf } from './channels'
import { trackThrough, valueAt } from './curve'
import { heldAt, heldThrough, straightTo, through } from './held'
import { bend, orient } from './solve'

const unit = fc.double({ min: -1, max: 1, noNaN: true })
const angle = fc.double({ min: -1.3, max: 1.3, noNaN: true })

describe('a track', () => {
  const points = fc
    .uniqueArray(fc.tuple(fc.integer({ min: 0, max: 200 }), unit), {
      minLength: 2,
      maxLength: 9,
      selector: ([time]) => time,
    })
    .map((list) => list.sort(([a], [b]) => a - b))

  it('goes through its points, and never past them in between', () => {
    holds(
      fc.property(points, fc.double({ min: 0, max: 1, noNaN: true }), (list, share) => {
        const track = trackThrough(list)
        for (const [time, value] of list) expect(valueAt(track, time)).toBeCloseTo(value, 9)
        for (let i = 0; i + 1 < list.length; i++) {
          const [[t0, a], [t1, b]] = [list[i] ?? [0, 0], list[i + 1] ?? [0, 0]]
          const value = valueAt(track, t0 + (t1 - t0) * share)
          expect(value).toBeGreaterThanOrEqual(Math.min(a, b) - 1e-9)
          expect(value).toBeLessThanOrEqual(Math.max(a, b) + 1e-9)
        }
        expect(valueAt(track, -5)).toBe(list[0]?.[1])
        expect(valueAt(track, 500)).toBe(list.at(-1)?.[1])
      }),
      { numRuns: 300, seed: 591 },
    )
  })

  it('is found by halves as by counting', () => {
    holds(
      fc.property(points, fc.integer({ min: -5, max: 205 }), (list, t) => {
        const times = Float64Array.from(list, ([time]) => time)
        expect(countUpTo(times, t)).toBe(list.filter(([time]) => time <= t).length)
      }),
      { numRuns: 300, seed: 592 },
    )
  })
})

describe('what is held', () => {
  it('begins every way where it is, however ways overlap, and ends where it is sent', () => {
    const sending = fc.record({
      start: fc.integer({ min: 0, max: 90 }),
      length: fc.integer({ min: 1, max: 40 }),
      places: fc.array(fc.tuple(unit, unit), { minLength: 1, maxLength: 4 }),
    })
    holds(
      fc.property(fc.array(sending, { minLength: 1, maxLength: 6 }), (list) => {
        const held = heldThrough(
          [0, 0],
          list.map(({ start, length, places }) => {
            const [only] = places
            const way = places.length === 1 && only ? straightTo(only) : through(places)
            return { start, end: start + length, way }
          }),
        )
        const [before, after] = [new Float64Array(2), new Float64Array(2)]
        for (const { start } of list) {
          heldAt(held, start - 1e-7, before)
          heldAt(held, start, after)
          for (const i of [0, 1]) expect(after[i]).toBeCloseTo(before[i] ?? 9, 5)
        }
        const latest = [...list].sort((a, b) => a.start - b.start).at(-1)
        heldAt(held, 500, after)
        for (const i of [0, 1]) expect(after[i]).toBeCloseTo(latest?.places.at(-1)?.[i] ?? 9, 9)
      }),
      { numRuns: 300, seed: 593 },
    )
  })
})

describe('the solver', () => {
  it('turns a part without bending it: three directions at right angles, of length one', () => {
    holds(
      fc.property(angle, angle, angle, (yaw, pitch, roll) => {
        const m = new Float64Array(9)
        orient(m, yaw, pitch, roll)
        const dot = (a: number, b: number) =>
          [0, 1, 2].reduce((sum, i) => sum + (m[a + i] ?? 0) * (m[b + i] ?? 0), 0)
        for (const a of [0, 3, 6])
          for (const b of [0, 3, 6]) expect(dot(a, b)).toBeCloseTo(a === b ? 1 : 0, 12)
        // Its front goes up with the pitch, its right with the roll, as the channels mean it.
        expect(m[7]).toBeCloseTo(Math.sin(pitch), 12)
        expect(Math.sign(m[1] ?? 0)).toBe(Math.sign(Math.sin(roll)))
      }),
      { numRuns: 300, seed: 594 },
    )
  })

  it('bends a limb towards where it is told, with both bones as long as they are', () => {
    holds(
      fc.property(
        unit,
        unit,
        unit,
        fc.double({ min: 0.1, max: 0.75, noNaN: true }),
        (x, y, z, far) => {
          const long = Math.hypot(x, y, z)
          fc.pre(long > 0.1 && Math.hypot(x, y) / long > 0.1)
          const joints = Float64Array.from(
            [0, 0, 0, x, y, z].map((v) => (v * far) / long).concat(0, 0, 0),
          )
          bend(joints, 0, 3, 6, 0.41, 0.4, Float64Array.from([0, 0, 1]))
          const knee = [...joints.slice(6)]
          const away = (o: number) => Math.hypot(...knee.map((v, i) => v - (joints[o + i] ?? 0)))
          expect(away(0)).toBeCloseTo(0.41, 9)
          expect(away(3)).toBeCloseTo(0.4, 9)
        },
      ),
      { numRuns: 300, seed: 595 },
    )
  })
})

it('a channel across and back again is itself, with its own sign', () => {
  for (const channel of Channel.options) {
    const there = acrossOf(channel)
    const back = acrossOf(there.channel)
    expect([back.channel, there.sign * back.sign]).toEqual([channel, 1])
  }
})
