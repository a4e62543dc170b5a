import fc from 'fast-check'
import { expect, it } from 'vitest'
import { anyCombination } from '../../../tests/arbitraries'
import { holds } from '../../../tests/holds'
import { LAYERS } from '../body/layers'
import { dancedIn } from '../combination/lengths'
import { vocabulary } from '../moves/vocabulary'
import { TICKS_PER_COUNT, tick } from '../time/time'
import { gapIn } from './suggest'

it('a gap is empty, begins where it was asked for, and could not be longer than it says', () => {
  holds(
    fc.property(
      anyCombination(),
      fc.constantFrom(...LAYERS),
      fc.integer({ min: -12, max: 119 }),
      fc.constantFrom(3, 6, 12, 40, Number.POSITIVE_INFINITY),
      (combination, layer, at, length) => {
        const phrase = combination.phrases[0]
        if (!phrase || at >= phrase.counts * TICKS_PER_COUNT) return
        const own = dancedIn(phrase, vocabulary).filter((event) => event.layer === layer)
        const isTaken = own.some((one) => one.at <= at && at < one.at + one.length)
        const gap = gapIn(phrase, { at: tick(at), length, layer }, vocabulary)
        if (at < 0 || isTaken) {
          expect(gap).toBeUndefined()
          return
        }
        if (!gap) throw new Error('a free place has a gap')
        expect(gap.at).toBe(at)
        const end = gap.at + gap.length
        expect(gap.length).toBeGreaterThan(0)
        expect(end).toBeLessThanOrEqual(phrase.counts * TICKS_PER_COUNT)
        // Nothing of the layer begins in it; right behind it something does, or it was long enough.
        expect(own.filter((one) => one.at > at && one.at < end)).toEqual([])
        const meets =
          gap.length === length ||
          end === phrase.counts * TICKS_PER_COUNT ||
          own.some((one) => one.at === end)
        expect(meets).toBe(true)
      },
    ),
    { numRuns: 400, seed: 571 },
  )
})
