import fc from 'fast-check'
import { expect, it } from 'vitest'
import { anyCombination } from '../../../tests/arbitraries'
import { holds } from '../../../tests/holds'
import { checkCombination } from '../findings/check'
import { vocabulary } from '../moves/vocabulary'
import { heatAt, heatOf } from './heat'

it('every count of every pass has its heat, said for the tick the cursor stands on', () => {
  holds(
    fc.property(anyCombination(), (combination) => {
      const checked = checkCombination(combination, vocabulary)
      const limit = checked.house.limits[`load.limit.${checked.level}`]
      for (const pass of checked.lead.passes) {
        const heat = heatOf(checked, pass.index)
        expect(heat.map(({ count }) => count)).toEqual(
          Array.from({ length: pass.phrase.counts }, (_, i) => i + 1),
        )
        for (const { count, share, words } of heat) {
          const load = checked.loads.find((one) => one.pass === pass.index && one.count === count)
          expect(share * limit).toBeCloseTo(load?.total ?? -1, 9)
          expect(words).toContain(`of ${limit}`)
          // Anywhere within the count it is this one that is meant.
          for (const part of [0, 5, 11])
            expect(heatAt(checked, pass.index, (count - 1) * 12 + part)?.count).toBe(count)
        }
        expect(heatAt(checked, pass.index, -1)).toBeUndefined()
      }
    }),
    { numRuns: 80, seed: 541 },
  )
})
