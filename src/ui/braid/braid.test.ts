import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { anyCombination } from '../../../tests/arbitraries'
import { holds } from '../../../tests/holds'
import { LAYERS, LAYERS_DOWN, type Layer } from '../../core/body/layers'
import { vocabulary } from '../../core/moves/vocabulary'
import { readSheet } from '../../core/sheet/readSheet'
import { simulate } from '../../core/simulate/simulate'
import { weightStretches } from '../../core/simulate/weightStretches'
import { overlap } from '../../core/time/time'
import {
  countsIn,
  fitted,
  laneUnder,
  longest,
  partsUsed,
  SIZE,
  shapeLine,
  tickUnder,
} from './geometry'
import { ribbonOf } from './ribbonShape'

const all: ReadonlySet<Layer> = new Set(LAYERS)

describe('a line of the braid', () => {
  it('gives each layer its lane from head to feet, and what overlaps rows of its own', () => {
    holds(
      fc.property(anyCombination(), fc.integer({ min: 560, max: 1600 }), (combination, width) => {
        const simulation = simulate(combination, vocabulary)
        const pickup = (combination.pickup?.counts ?? 0) * 12
        for (const pass of simulation.passes) {
          const shape = shapeLine(pass.events, pass.length, width, all, pickup)
          expect(shape.lanes.map(({ layer }) => layer)).toEqual(LAYERS_DOWN)
          for (const [i, lane] of shape.lanes.entries()) {
            const above = shape.lanes[i - 1]
            expect(lane.top).toBe(above ? above.top + above.height : SIZE.ruler)
            expect(laneUnder(shape, lane.top + lane.height / 2)).toBe(lane.layer)
          }
          for (const a of pass.events)
            for (const b of pass.events)
              if (a !== b && a.layer === b.layer && a.layer !== 'feet' && overlap(a, b))
                expect(shape.rows.get(a.id)).not.toBe(shape.rows.get(b.id))
        }
      }),
      { numRuns: 120, seed: 111 },
    )
  })

  it('finds the tick under a point again, on its grid, and never outside the phrase', () => {
    holds(
      fc.property(
        fc.record({
          counts: fc.integer({ min: 1, max: 16 }),
          pickup: fc.constantFrom(0, 12, 24),
          grid: fc.constantFrom(3, 6, 12),
          width: fc.integer({ min: 560, max: 1600 }),
        }),
        fc.double({ min: -200, max: 2000, noNaN: true }),
        ({ counts, pickup, grid, width }, px) => {
          const shape = shapeLine([], counts * 12, width, all, pickup)
          const at = tickUnder(shape, px, grid, 0 - pickup)
          expect(at % grid === 0 && at >= 0 - pickup && at <= counts * 12 - grid).toBe(true)
          expect(tickUnder(shape, shape.x(at) + 0.01, grid, 0 - pickup)).toBe(at)
          expect(tickUnder(shape, px, grid)).toBeGreaterThanOrEqual(0)
          expect(shape.x(counts * 12)).toBeCloseTo(width - SIZE.end, 6)
          expect(shape.x(0 - pickup)).toBeCloseTo(SIZE.gutter, 6)
        },
      ),
      { numRuns: 300, seed: 112 },
    )
  })

  it('names the parts of a count that are used, and the counts of a pickup', () => {
    expect(countsIn(-12, 24)).toEqual([-1, 0, 1])
    const labels = [...partsUsed([0, 3, 6, 9, 16, 20, -3])].map(([count, parts]) => [
      count,
      parts.map(({ label }) => label),
    ])
    expect(labels).toEqual([
      [0, ['e', 'a']],
      [1, ['·', '·']],
      [-1, ['a']],
    ])
  })

  it.each([
    ['touch together', 200, 'touch together'],
    ['touch together', 60, 'touch to…'],
    ['touch together', 8, ''],
  ])('cuts “%s” to %i pixels: “%s”', (text, px, shown) => expect(fitted(text, px)).toBe(shown))

  it('takes the longest wording that fits', () => {
    expect(longest(['cross behind', 'x behind', 'x'], 60)).toBe('x behind')
    expect(longest(['cross behind', 'x behind'], 30)).toBe('x b…')
  })
})

describe('the weight ribbon', () => {
  const place = { x: (at: number) => at * 4, y: { L: 10, R: 40, both: 25 }, swing: 8, gap: 2.5 }
  const ribbon = (lines: string) => {
    const { combination } = readSheet(`sway 1\nphrase A 8\n${lines}`, vocabulary)
    const simulation = simulate(combination, vocabulary)
    return ribbonOf(weightStretches(simulation, 0, simulation.length, 2), place)
  }

  it('is one strand while the weight goes from foot to foot, and says where it ends', () => {
    const { strands, gaps, end } = ribbon('feet 1 step R; 2 step L; 3 step R; 4 touch L')
    expect(strands).toHaveLength(1)
    expect(strands[0]?.split).toBe(false)
    expect([gaps, end]).toEqual([[], 'R'])
  })

  it('breaks in a gap where the logic breaks, on its count', () => {
    const { strands, gaps } = ribbon('feet 1 step R; 3 step R; 5 step L')
    expect(gaps).toEqual([96])
    expect(strands).toHaveLength(2)
  })

  it('splits in two thin strands on both feet', () => {
    const { strands, end } = ribbon('feet 1 step R; 2 centre')
    expect(strands.filter(({ split }) => split)).toHaveLength(2)
    expect(end).toBe('both')
  })

  it('draws a finite curve for whatever is danced', () => {
    holds(
      fc.property(anyCombination(), (combination) => {
        const simulation = simulate(combination, vocabulary)
        const { strands, gaps } = ribbonOf(
          weightStretches(simulation, 0, simulation.length, 2),
          place,
        )
        expect(strands.length).toBeGreaterThan(0)
        for (const { path } of strands) expect(path).toMatch(/^M[^N]*$/)
        const faults = simulation.danced.filter(({ at, fault }) => at >= 0 && fault)
        expect(gaps).toHaveLength(faults.length)
      }),
      { numRuns: 200, seed: 113 },
    )
  })
})
