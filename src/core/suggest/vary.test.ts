import fc from 'fast-check'
import { expect, it } from 'vitest'
import { anyCombination } from '../../../tests/arbitraries'
import { demo } from '../../../tests/demo'
import { holds } from '../../../tests/holds'
import { checkCombination } from '../findings/check'
import { severityOf } from '../findings/finding'
import { USUAL_HOUSE } from '../house/house'
import { vocabulary } from '../moves/vocabulary'
import { readCombination } from '../sheet/swayJson'
import { newFindings } from './suggest'
import { variationsOf } from './vary'

it('variations of any phrase are whole, clean, other than it is, each other than the others, and can be kept', () => {
  holds(
    fc.property(anyCombination(), fc.nat(), (any, nth) => {
      const pass = nth % any.order.length
      const checked = checkCombination(any, vocabulary)
      const ways = variationsOf(any, { pass, seed: 3 }, vocabulary, USUAL_HOUSE)
      for (const { combination } of ways) {
        const fresh = newFindings(checked, checkCombination(combination, vocabulary))
        expect(fresh.filter((one) => severityOf(one) !== 'note')).toEqual([])
        expect(combination).not.toEqual(any)
        expect(readCombination(JSON.parse(JSON.stringify(combination)))).toEqual(combination)
        const ids = combination.phrases.flatMap(({ events }) => events.map(({ id }) => id))
        expect(new Set(ids).size).toBe(ids.length)
      }
      expect(new Set(ways.map(({ words }) => words)).size).toBe(ways.length)
    }),
    { numRuns: 40, seed: 917 },
  )
})

it('every phrase of the demo has some', () => {
  const said = demo
    .filter(({ parts }) => !parts)
    .flatMap((combination) =>
      combination.order.map((_, pass) =>
        variationsOf(combination, { pass, seed: 1 }, vocabulary, USUAL_HOUSE).map(
          ({ words }) => words,
        ),
      ),
    )
  expect(said.filter((words) => words.length > 0).length).toBeGreaterThan(said.length * 0.8)
  console.log(
    `Variations of ${said.length} demo phrases: ${said.map((words) => words.length).join(' ')}`,
  )
})
