import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { anyCombination } from '../../../tests/arbitraries'
import { holds } from '../../../tests/holds'
import type { Layer } from '../body/layers'
import type { Combination } from '../combination/combination'
import { dancedIn } from '../combination/lengths'
import { checkCombination } from '../findings/check'
import { severityOf } from '../findings/finding'
import { USUAL_HOUSE } from '../house/house'
import { vocabulary } from '../moves/vocabulary'
import { readSheet } from '../sheet/readSheet'
import { COUNT } from '../time/time'
import { fillPhrase, firstGap } from './fill'
import { inTheWayOf } from './inTheWay'
import { returns, shapesOf, withoutSides } from './shapes'
import { newFindings } from './suggest'

const cleared = (combination: Combination, pass: number, layer: Layer): Combination => {
  const id = combination.order[pass]?.phrase
  return {
    ...combination,
    phrases: combination.phrases.map((phrase) =>
      phrase.id === id
        ? { ...phrase, events: phrase.events.filter((event) => event.layer !== layer) }
        : phrase,
    ),
  }
}

/** What is danced on each count of a layer, by name. */
const countByCount = (combination: Combination, pass: number, layer: Layer): readonly string[] => {
  const phrase = combination.phrases.find(({ id }) => id === combination.order[pass]?.phrase)
  if (!phrase) return []
  const events = dancedIn(phrase, vocabulary).filter((event) => event.layer === layer)
  return Array.from({ length: phrase.counts }, (_, i) => {
    const at = i * COUNT
    const event = events.find((one) => one.at <= at && at < one.at + one.length)
    return event ? `${JSON.stringify(event.what)} ${at - event.at}` : ''
  })
}

describe('a phrase filled on one layer', () => {
  const seen = { ways: 0, returning: 0, ofFigures: 0, onFeet: 0, slowest: 0 }

  it('is whole, clean, as asked for, composed, and differs from the others', () => {
    holds(
      fc.property(
        anyCombination(),
        fc.constantFrom<Layer>('feet', 'hips', 'torso', 'arms', 'head'),
        fc.nat(),
        fc.integer({ min: 1, max: 9999 }),
        (any, layer, nth, seed) => {
          const pass = nth % any.order.length
          const before = cleared(any, pass, layer)
          const wish = { pass, layer, seed }
          const since = performance.now()
          const ways = fillPhrase(before, wish, vocabulary, USUAL_HOUSE)
          seen.slowest = Math.max(seen.slowest, performance.now() - since)
          if (seed % 8 === 0)
            expect(fillPhrase(before, wish, vocabulary, USUAL_HOUSE)).toEqual(ways)
          const checked = checkCombination(before, vocabulary)
          for (const { combination, names, reason, returns: comesBack } of ways) {
            expect(firstGap(combination, pass, layer, vocabulary)).toBeUndefined()
            const fresh = newFindings(checked, checkCombination(combination, vocabulary))
            expect(fresh.filter((one) => severityOf(one) !== 'note')).toEqual([])
            expect(reason).toContain(names.at(-1))
            const phrase = combination.phrases.find(
              ({ id }) => id === combination.order[pass]?.phrase,
            )
            // In less than four counts hardly anything can come back.
            if ((phrase?.counts ?? 0) >= 4) {
              seen.ways++
              if (comesBack) seen.returning++
            }
            if (layer !== 'feet' || (phrase?.counts ?? 0) < 4) continue
            seen.onFeet++
            const single = (phrase?.events ?? []).filter(
              (event) => event.layer === 'feet' && event.what.kind === 'foot',
            )
            if (single.length * 2 <= names.length) seen.ofFigures++
          }
          for (const [i, one] of ways.entries())
            for (const other of ways.slice(i + 1)) {
              const [a, b] = [one, other].map((way) => countByCount(way.combination, pass, layer))
              const same = (a ?? []).filter((what, k) => what === b?.[k]).length
              expect(same * 2).toBeLessThanOrEqual((a ?? []).length)
            }
        },
      ),
      { numRuns: 60, seed: 911 },
    )
  })

  it('mostly has a motif that comes back, and feet made of figures', () => {
    expect(seen.ways).toBeGreaterThan(8)
    expect(seen.returning / seen.ways).toBeGreaterThanOrEqual(0.8)
    if (seen.onFeet > 10) expect(seen.ofFigures / seen.onFeet).toBeGreaterThanOrEqual(0.9)
    console.log(
      `${seen.ways} ways to fill: ${seen.returning} with a motif that comes back, ${seen.ofFigures} of ${seen.onFeet} on the feet of figures; the slowest five in ${seen.slowest.toFixed(0)} ms`,
    )
  })
})

describe('where nothing clean is found', () => {
  const filled = (sheet: string) => readSheet(`sway 1\ntempo 96\n${sheet}`, vocabulary).combination

  it.each([
    [
      'phrase A 4\n feet 1 step; 2 step; 3 step; 4 step\n hips 1-4 small hip circle',
      'hips',
      /No count of it is free/,
    ],
    ['phrase A 8\n feet 1-8 free', 'feet', /No count of it is free/],
  ] as const)('says why: %s', (sheet, layer, said) => {
    const combination = filled(sheet)
    expect(fillPhrase(combination, { pass: 0, layer, seed: 1 }, vocabulary, USUAL_HOUSE)).toEqual(
      [],
    )
    expect(inTheWayOf(combination, { pass: 0, layer }, vocabulary, USUAL_HOUSE)).toMatch(said)
  })

  it('names what most moves run into', () => {
    // The wave takes the hips along, all the way through.
    const waves = filled(
      'phrase A 8\n feet 1 step; 5 step\n torso 1-4 body-wave-down; 5-8 body-wave-down',
    )
    const wish = { pass: 0, layer: 'hips', seed: 1 } as const
    expect(fillPhrase(waves, wish, vocabulary, USUAL_HOUSE)).toEqual([])
    expect(inTheWayOf(waves, wish, vocabulary, USUAL_HOUSE)).toMatch(
      /^Most moves there run into this: .*body wave down.*hips/,
    )
  })
})

describe('the shapes of a stretch', () => {
  it('are as long as it is, whatever it is, and say so without sides too', () => {
    for (let counts = 1; counts <= 16; counts++) {
      const shapes = shapesOf(counts)
      expect(shapes.length).toBeGreaterThan(0)
      for (const shape of shapes) {
        expect(shape.slots.reduce((sum, one) => sum + one.counts, 0)).toBe(counts)
        const isTurned = shape.slots.some(({ other }) => other)
        if (isTurned && returns(shape))
          expect(withoutSides(shape.words)).not.toMatch(/other side|side to side|both sides/)
      }
      expect(shapes.some(returns) || counts === 1).toBe(true)
    }
  })
})
