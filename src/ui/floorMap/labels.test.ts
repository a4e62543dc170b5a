import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { LABEL_HIGH, placeLabels } from './labels'

const size = { width: 400, height: 300 }
const anyWanted = fc.array(
  fc.record({
    x: fc.double({ min: 20, max: 380, noNaN: true }),
    y: fc.double({ min: 20, max: 280, noNaN: true }),
    towards: fc.double({ min: 0, max: 6.3, noNaN: true }),
    width: fc.integer({ min: 8, max: 40 }),
  }),
  { maxLength: 32 },
)

describe('words on the floor map', () => {
  it('lie on no other word, and inside; few places all get theirs', () => {
    fc.assert(
      fc.property(anyWanted, (wanted) => {
        const laid = placeLabels(wanted, size)
        for (const [i, a] of laid.entries()) {
          if (!a) continue
          const wide = wanted[i]?.width ?? 0
          expect(a.x - wide / 2).toBeGreaterThan(0)
          expect(a.x + wide / 2).toBeLessThan(size.width)
          for (const [j, b] of laid.entries())
            if (b && j > i)
              expect(
                Math.abs(a.x - b.x) >= (wide + (wanted[j]?.width ?? 0)) / 2 - 1e-9 ||
                  Math.abs(a.y - b.y) >= LABEL_HIGH - 1e-9,
              ).toBe(true)
        }
        if (wanted.length <= 3) expect(laid.every(Boolean)).toBe(true)
      }),
      { numRuns: 200, seed: 77 },
    )
  })
})
