import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { holds } from '../../../tests/holds'
import { ArmPlace, PALM_CM } from '../body/places'
import { SIDES } from '../body/side'
import { USUAL_HOUSE } from '../house/house'
import { ARM, armAtPlace, detourBetween } from './armPlaces'
import { addSwings, inBuckets, type Swing } from './swings'

const CHANNELS = 3

/** What some swings add at a tick, by the buckets and one by one. */
const added = (swings: readonly Swing[], tick: number): Float64Array => {
  const channels = new Float64Array(CHANNELS)
  addSwings(inBuckets(swings), tick, channels)
  return channels
}

const anySwing: fc.Arbitrary<Swing> = fc
  .record({
    channel: fc.nat(CHANNELS - 1),
    amount: fc.double({ min: -10, max: 10, noNaN: true }),
    start: fc.integer({ min: -40, max: 300 }),
    length: fc.integer({ min: 2, max: 60 }),
    share: fc.double({ min: 0.1, max: 0.9, noNaN: true }),
    kind: fc.constantFrom('peak', 'oscillation', 'pulse'),
  })
  .map(({ channel, amount, start, length, share, kind }): Swing => {
    const base = { channel, amount, start, end: start + length }
    if (kind === 'peak') return { ...base, shape: { kind, peak: start + length * share } }
    if (kind === 'pulse') return { ...base, shape: { kind } }
    return { ...base, shape: { kind, perTick: share / 4, ahead: 0, ramp: length / 4 } }
  })

describe('swings', () => {
  it('add up as they would one by one, wherever they lie and however many there are', () => {
    holds(
      fc.property(
        fc.array(anySwing, { maxLength: 25 }),
        fc.double({ min: -60, max: 400, noNaN: true }),
        (swings, tick) => {
          const all = added(swings, tick)
          const single = swings.map((swing) => added([swing], tick))
          for (let i = 0; i < CHANNELS; i++)
            expect(all[i]).toBeCloseTo(
              single.reduce((sum, one) => sum + (one[i] ?? 0), 0),
              9,
            )
        },
      ),
      { numRuns: 400, seed: 111 },
    )
  })

  it('begin and end at nothing, without a jump, and stay within their size', () => {
    holds(
      fc.property(anySwing, fc.double({ min: 0, max: 1, noNaN: true }), (swing, share) => {
        const { start, end, channel, amount } = swing
        expect(added([swing], start - 0.01)[channel]).toBe(0)
        expect(added([swing], end + 0.01)[channel]).toBe(0)
        // A millionth of a tick inside it is hardly there yet.
        for (const tick of [start + 1e-6, end - 1e-6])
          expect(Math.abs(added([swing], tick)[channel] ?? 9)).toBeLessThan(1e-3)
        const inside = Math.abs(added([swing], start + share * (end - start))[channel] ?? 0)
        expect(inside).toBeLessThanOrEqual(Math.abs(amount) * 1.3 + 1e-9)
      }),
      { numRuns: 300, seed: 112 },
    )
  })

  it('have an accent at its full size exactly on its tick', () => {
    holds(
      fc.property(
        fc.double({ min: -10, max: 10, noNaN: true }),
        fc.integer({ min: 0, max: 100 }),
        fc.integer({ min: 1, max: 20 }),
        fc.integer({ min: 1, max: 20 }),
        (amount, start, before, after) => {
          const peak = start + before
          const swing: Swing = {
            channel: 0,
            amount,
            start,
            end: peak + after,
            shape: { kind: 'peak', peak },
          }
          expect(added([swing], peak)[0]).toBeCloseTo(amount, 9)
        },
      ),
      { numRuns: 200, seed: 113 },
    )
  })
})

/** Distance of a point from the trunk, below 0 inside; its very ends left out, which a way may round. */
function clearance([x, y, z]: readonly number[]): number {
  const [right = 0, up = 0, front = 0] = [x, y, z]
  const trunk = up > -0.43 && up < 0.14 ? (Math.hypot(right / 0.185, front / 0.135) - 1) * 0.135 : 1
  return trunk
}

describe('arms at their places', () => {
  it('have the palm where the house says, and the left is the right one in a mirror', () => {
    for (const place of ArmPlace.options) {
      const [right, left] = SIDES.map((side) => armAtPlace(side, place, USUAL_HOUSE.palms))
      const wanted = PALM_CM[place].map((cm) => cm / 100)
      for (const [i, value] of wanted.entries()) expect(right?.[ARM.palm + i]).toBeCloseTo(value, 9)
      for (const first of [ARM.palm, ARM.fingers, ARM.fingers + 3, ARM.fingers + 6]) {
        expect(left?.[first]).toBeCloseTo(-(right?.[first] ?? 0), 9)
        expect(left?.slice(first + 1, first + 3)).toEqual(right?.slice(first + 1, first + 3))
      }
      for (const first of [ARM.fingers, ARM.fingers + 3, ARM.fingers + 6]) {
        const [x = 0, y = 0, z = 0] = right?.slice(first, first + 3) ?? []
        expect(Math.hypot(x, y, z)).toBeCloseTo(1, 9)
      }
    }
  })

  it('find a way between any two of them round the trunk', () => {
    const palms = ArmPlace.options.map(
      (place) => PALM_CM[place].map((cm) => cm / 100) as [number, number, number],
    )
    let grazing = 0
    for (const from of palms)
      for (const to of palms) {
        const out = detourBetween(from, to)
        // From across the chest to behind the back no way is quite clear: the widest one is taken.
        if (out[0] > 0.53) {
          grazing++
          continue
        }
        const worstEnd = Math.min(0.015, clearance(from), clearance(to))
        const way = Array.from({ length: 31 }, (_, i) => {
          const s = i / 30
          return [0, 1, 2].map(
            (k) =>
              (from[k] ?? 0) +
              ((to[k] ?? 0) - (from[k] ?? 0)) * s +
              (out[k] ?? 0) * 4 * s * (1 - s),
          )
        })
        // A finger's breadth less than at the sixteenths it was looked at.
        for (const point of way)
          expect(clearance(point), `${from} to ${to} by ${out} at ${point}`).toBeGreaterThan(
            worstEnd - 0.02,
          )
        // What is clear goes straight.
        if (from === to) expect(out).toEqual([0, 0, 0])
      }
    expect(grazing).toBeLessThan(palms.length ** 2 / 20)
  })
})
