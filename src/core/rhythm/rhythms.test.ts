import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { holds } from '../../../tests/holds'
import { TICKS_PER_COUNT } from '../time/time'
import { RHYTHMS, rhythmOf, strokesIn, usualRhythm } from './rhythms'

describe('the rhythms', () => {
  it('are at least eight, in the metres of the families, each within its cycle and starting low or on one', () => {
    expect(RHYTHMS.length).toBeGreaterThanOrEqual(8)
    expect(new Set(RHYTHMS.map(({ id }) => id)).size).toBe(RHYTHMS.length)
    expect(new Set(RHYTHMS.map(({ counts }) => counts))).toEqual(new Set([2, 4, 8, 9]))
    for (const { strokes, counts, name } of RHYTHMS) {
      expect(strokes.length, name).toBeGreaterThan(3)
      expect(
        strokes.every(({ at, loud }) => at < counts * TICKS_PER_COUNT && loud > 0 && loud <= 1),
      ).toBe(true)
    }
    for (const family of ['belly', 'bollywood', 'polynesian', 'latin', 'general'] as const)
      expect(usualRhythm([family], 8)?.families).toContain(family)
    expect(usualRhythm(['belly'], 9)?.counts).toBe(9)
    expect(usualRhythm(['latin'], 7)?.counts).toBeUndefined()
  })

  it.each([
    // Counts of the strokes everybody knows a rhythm by; what fills it in is softer.
    ['maqsum', 'D1 T1.5 T2.5 D3 T4'],
    ['malfuf', 'D1 T1.75 T2.5'],
    ['saidi', 'D1 T1.5 D2.5 D3 T4'],
    ['ayoub', 'D1 D2 T2.5'],
    ['nine', 'D1 T3 D5 T7 T8'],
    ['salsa', 'W2 W3 W5 W6.5 W8'],
    ['dhol-swing', 'D1 S2 S4'],
  ])('%s is known by %s', (id, known) => {
    const letters = { dum: 'D', tek: 'T', wood: 'W', slap: 'S' } as Record<string, string>
    const loud = rhythmOf(id)?.strokes.filter(
      ({ kind, loud }) =>
        letters[kind] && (loud > 0.6 || kind === 'wood') && (id !== 'salsa' || kind === 'wood'),
    )
    const said = loud?.map(({ at, kind }) => `${letters[kind]}${1 + at / TICKS_PER_COUNT}`)
    expect(said?.join(' ')).toBe(known)
  })

  it('go on through any stretch as they would from the start', () => {
    holds(
      fc.property(
        fc.constantFrom(...RHYTHMS),
        fc.integer({ min: 0, max: 60 }),
        fc.integer({ min: 1, max: 60 }),
        (rhythm, from, counts) => {
          const all = strokesIn(rhythm, 0, (from + counts) * TICKS_PER_COUNT)
          const late = strokesIn(rhythm, from * TICKS_PER_COUNT, counts * TICKS_PER_COUNT)
          expect(late).toEqual(
            all
              .filter(({ at }) => at >= from * TICKS_PER_COUNT)
              .map((stroke) => ({ ...stroke, at: stroke.at - from * TICKS_PER_COUNT })),
          )
        },
      ),
      { numRuns: 120 },
    )
  })
})
