import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { holds } from '../../../tests/holds'
import { risen, USUAL_CHOICE } from './songChoice'

describe('what is repeated and goes up', () => {
  it('is five hundredths quicker after every second round, and never quicker than it is', () => {
    holds(
      fc.property(
        fc.integer({ min: 8, max: 24 }),
        fc.integer({ min: 0, max: 60 }),
        fc.boolean(),
        fc.constantFrom('once', 'phrase'),
        (twentieths, rounds, isRising, stretch) => {
          const speed = 5 * twentieths
          let choice = { ...USUAL_CHOICE, speed, isRising, stretch: stretch as 'once' }
          for (let round = 1; round <= rounds; round++)
            choice = { ...choice, speed: risen(choice, round).speed }
          const most = isRising && stretch === 'phrase' ? Math.max(100, speed) : speed
          expect(choice.speed).toBe(Math.min(most, speed + 5 * Math.floor(rounds / 2)))
        },
      ),
      { numRuns: 200, seed: 131 },
    )
  })
})
