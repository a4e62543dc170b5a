import fc from 'fast-check'
import { expect, it } from 'vitest'
import { anyCombination } from '../../tests/arbitraries'
import { sameRecords } from './sameRecords'

it('gives what came first for as long as a record says the same', () => {
  fc.assert(
    fc.property(anyCombination(), fc.string({ minLength: 1 }), (combination, title) => {
      const same = sameRecords()
      expect(same(combination)).toBe(combination)
      expect(same(structuredClone(combination))).toBe(combination)
      const other = { ...combination, title: `${combination.title}${title}` }
      expect(same(other)).toBe(other)
      // What it was before is not held any more.
      expect(same(structuredClone(combination))).not.toBe(combination)
    }),
    { numRuns: 30 },
  )
})
