import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { holds } from '../../../tests/holds'
import { ArmPlace, compassOffset, palmAt } from '../body/places'
import { HOUSE_VERSION, HouseRules, houseOf, USUAL_HOUSE, USUAL_RULES, withLimit } from './house'
import { lengthIn, metresOf, rangeIn } from './lengths'
import { LIMIT_GROUPS, LIMITS, LimitId } from './limits'

const anyFigure = fc.constantFrom(...LimitId.options)

describe('a house figure', () => {
  it.each(LimitId.options)('%s has words, a group, and is usually inside its own range', (id) => {
    const { words, usual, least, most } = LIMITS[id]
    expect(words.length).toBeGreaterThan(3)
    expect(LIMIT_GROUPS[id.split('.')[0] ?? '']?.length).toBeGreaterThan(3)
    expect(usual).toBeGreaterThanOrEqual(least)
    expect(usual).toBeLessThanOrEqual(most)
    expect(USUAL_HOUSE.limits[id]).toBe(usual)
  })

  it('has its own words inside its group, so that no two can be taken for each other', () => {
    const said = LimitId.options.map((id) => `${id.split('.')[0]} ${LIMITS[id].words}`)
    expect(new Set(said).size).toBe(said.length)
  })

  it('is changed, kept inside its range, stored, and put back', () => {
    holds(
      fc.property(
        anyFigure,
        anyFigure,
        fc.double({ min: -1e4, max: 1e4, noNaN: true }),
        (id, other, value) => {
          const { usual, least, most } = LIMITS[id]
          const changed = withLimit(USUAL_RULES, id, value)
          expect(HouseRules.parse(JSON.parse(JSON.stringify(changed)))).toEqual(
            JSON.parse(JSON.stringify(changed)),
          )
          const { limits } = houseOf(changed)
          expect(limits[id]).toBe(Math.min(most, Math.max(least, value)) || 0)
          if (other !== id) expect(limits[other]).toBe(LIMITS[other].usual)
          expect(withLimit(changed, id, undefined)).toEqual(USUAL_RULES)
          expect(withLimit(changed, id, usual)).toEqual(USUAL_RULES)
        },
      ),
      { numRuns: 300, seed: 451 },
    )
  })

  it('moves the arm or the hip it is about, and the other side with it', () => {
    for (const place of ArmPlace.options) {
      const house = houseOf(withLimit(USUAL_RULES, `palm.${place}.right`, 33))
      expect(palmAt('R', place, house.palms).right).toBeCloseTo(0.33)
      expect(palmAt('L', place, house.palms).right).toBeCloseTo(-0.33)
      expect(palmAt('R', place, USUAL_HOUSE.palms)).toEqual(palmAt('R', place))
    }
    const wide = houseOf(withLimit(USUAL_RULES, 'compass.hips.side', 20))
    expect(compassOffset('hips', 'R', wide.compass).right).toBeCloseTo(0.2)
    expect(compassOffset('hips', 'L', wide.compass).right).toBeCloseTo(-0.2)
    expect(compassOffset('ribs', 'R', wide.compass)).toEqual(compassOffset('ribs', 'R'))
  })

  it('of a room or a class that can not be is refused', () => {
    for (const bad of [
      { ...USUAL_RULES, room: { width: 0, depth: 6 } },
      { ...USUAL_RULES, dancers: 1.5 },
      { ...USUAL_RULES, heights: { shortest: 1.6, tallest: 4 } },
      { ...USUAL_RULES, limits: { 'no.limit': 1 } },
      { ...USUAL_RULES, schemaVersion: HOUSE_VERSION + 1 },
    ])
      expect(HouseRules.safeParse(bad).success).toBe(false)
  })
})

describe('a length in feet', () => {
  it('is shown again as it was typed, and never out of the range in metres', () => {
    const { min, max } = rangeIn(0.9, 2.3, 'feet')
    for (let typed = min; typed <= max; typed = Math.round((typed + 0.01) * 100) / 100) {
      const metres = metresOf(typed, 'feet')
      expect(lengthIn(metres, 'feet')).toBe(typed)
      expect(metres).toBeGreaterThanOrEqual(0.9)
      expect(metres).toBeLessThanOrEqual(2.3)
    }
    expect([lengthIn(1.77, 'metres'), metresOf(1.77, 'metres')]).toEqual([1.77, 1.77])
  })
})
