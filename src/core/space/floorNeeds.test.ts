import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { anyCombination } from '../../../tests/arbitraries'
import { holds } from '../../../tests/holds'
import { checkCombination } from '../findings/check'
import { houseOf, USUAL_RULES } from '../house/house'
import { vocabulary } from '../moves/vocabulary'
import { floorNeeds } from './floorNeeds'

const inRoom = (width: number, depth: number, dancers: number) =>
  houseOf({ ...USUAL_RULES, room: { width, depth }, dancers })

describe('what a combination needs of the floor', () => {
  it('never shrinks with more rounds, and a wider room never fits fewer', () => {
    holds(
      fc.property(
        anyCombination(),
        fc.double({ min: 1, max: 12, noNaN: true }),
        fc.double({ min: 1, max: 12, noNaN: true }),
        (combination, width, depth) => {
          const checked = checkCombination(combination, vocabulary, inRoom(width, depth, 12))
          const wider = checkCombination(combination, vocabulary, inRoom(width + 1, depth + 1, 12))
          const [one, two, four] = [1, 2, 4].map((rounds) =>
            floorNeeds(checked, rounds, checked.joins.switches),
          )
          if (!one || !two || !four) throw new Error('no rounds')
          expect(one.shown.size.width).toBeCloseTo(one.round.width, 9)
          expect(one.shown.size.depth).toBeCloseTo(one.round.depth, 9)
          for (const side of ['width', 'depth'] as const) {
            expect(two.shown.size[side]).toBeGreaterThanOrEqual(one.shown.size[side] - 1e-9)
            expect(four.shown.size[side]).toBeGreaterThanOrEqual(two.shown.size[side] - 1e-9)
          }
          expect(floorNeeds(wider, 1, false).fit).toBeGreaterThanOrEqual(one.fit)
          expect(two.shown.rounds).toHaveLength(2)
        },
      ),
      { numRuns: 100, seed: 551 },
    )
  })

  it('says the step size at which all fit: one step smaller fits too, one larger does not', () => {
    holds(
      fc.property(
        anyCombination(),
        fc.double({ min: 1.2, max: 6, noNaN: true }),
        fc.integer({ min: 1, max: 20 }),
        (combination, width, dancers) => {
          const house = inRoom(width, width, dancers)
          const checked = checkCombination(combination, vocabulary, house)
          const { fit, steps } = floorNeeds(checked, 1, false)
          if (fit >= dancers) expect(steps).toBe(1)
          else if (steps !== undefined) {
            expect(steps).toBeLessThan(1)
            expect(steps).toBeGreaterThanOrEqual(0.3)
          }
        },
      ),
      { numRuns: 100, seed: 552 },
    )
  })
})
