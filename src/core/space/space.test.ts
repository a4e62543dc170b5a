import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { anyCombination } from '../../../tests/arbitraries'
import { holds } from '../../../tests/holds'
import { combination, feet, on } from '../../../tests/write'
import { loopTick } from '../combination/loop'
import { mirror } from '../combination/mirror'
import { roundPickup } from '../combination/passes'
import { houseOf, USUAL_HOUSE, USUAL_RULES } from '../house/house'
import { vocabulary } from '../moves/vocabulary'
import { comeBack } from '../repair/comeBack'
import { simulate } from '../simulate/simulate'
import {
  areaOf,
  areaOfOne,
  armReach,
  classFit,
  classPlaces,
  endsAway,
  roundsOf,
  sizeOf,
  stepSizeThatFits,
} from './space'

const danced = (pattern: string) => simulate(combination([feet(pattern)]), vocabulary)

describe('the way over the floor', () => {
  it('of the mirrored side is the mirrored way, and each round begins where the one before ended', () => {
    holds(
      fc.property(anyCombination({ kept: false }), fc.boolean(), (any, switching) => {
        const [lead, other] = [simulate(any, vocabulary), simulate(mirror(any), vocabulary)]
        const real = roundsOf(lead, other, 4, switching)
        const image = roundsOf(lead, undefined, 4, switching)
        for (const [i, round] of real.entries()) {
          for (const [j, point] of round.points.entries()) {
            const twin = image[i]?.points[j]
            expect(twin?.right).toBeCloseTo(point.right, 6)
            expect(twin?.forward).toBeCloseTo(point.forward, 6)
            expect(twin?.facing).toBeCloseTo(point.facing, 6)
            for (const side of ['R', 'L'] as const)
              expect(twin?.feet[side].right).toBeCloseTo(point.feet[side].right, 6)
          }
          const before = real[i - 1]?.points.at(-1)
          if (before)
            expect(round.points[0]).toMatchObject({
              right: before.right,
              forward: before.forward,
              facing: before.facing,
            })
        }
        const once = areaOf(roundsOf(lead, undefined, 1, false))
        const direct = areaOfOne(lead)
        if (any.start.facing === 0)
          for (const edge of ['left', 'right', 'back', 'front'] as const)
            expect(direct[edge]).toBeCloseTo(once[edge], 9)
        // From where it is danced again: what is danced once, a pickup too, travels no more.
        const loop = loopTick(any)
        const begin =
          roundPickup(any, 'feet') > 0
            ? image[0]?.points[0]
            : image[0]?.points.findLast(({ at }, i) => i === 0 || at < loop)
        const end = image[switching ? 1 : 0]?.points.at(-1)
        const away = endsAway(lead, switching)
        if (any.start.facing === 0 && begin && end)
          expect(Math.hypot(away.right, away.forward)).toBeCloseTo(
            Math.hypot(end.right - begin.right, end.forward - begin.forward),
            6,
          )
      }),
      { numRuns: 200, seed: 431 },
    )
  })

  it('is as long as its steps', () => {
    const { width, depth } = sizeOf(
      areaOfOne(danced('1 step R side; 2 close L; 3 step R side; 4 touch L together')),
    )
    // Twice 0.45 m to the side, less the stance of 0.22 it begins in and the 0.12 of the close.
    expect(width).toBeCloseTo(0.45 + 0.45 - 0.22 - 0.12, 9)
    expect(depth).toBe(0)
  })
})

describe('a class in a room', () => {
  it('has as many dancers as rows and columns with their way in them fit, by counting them out', () => {
    holds(
      fc.property(
        fc.record({
          width: fc.integer({ min: 2, max: 20 }),
          depth: fc.integer({ min: 2, max: 20 }),
        }),
        fc.record({
          across: fc.integer({ min: 0, max: 60 }),
          deep: fc.integer({ min: 0, max: 60 }),
        }),
        fc.boolean(),
        (room, way, staggered) => {
          const house = houseOf({ ...USUAL_RULES, room, staggered })
          const area = { left: 0, right: way.across / 10, back: 0, front: way.deep / 10 }
          let counted = 0
          for (let row = 0; row * 1.8 + area.front <= room.depth + 1e-9; row++)
            for (let column = 0; ; column++) {
              const from = column * 1.6 + (staggered && row % 2 === 1 ? 0.8 : 0)
              if (from + area.right > room.width + 1e-9) break
              counted++
            }
          expect(classFit(area, house).fit).toBe(counted)
          const steps = stepSizeThatFits(area, { ...house, dancers: 4 })
          if (steps !== undefined && steps < 1) {
            const at = (by: number) =>
              classFit({ left: 0, right: area.right * by, back: 0, front: area.front * by }, house)
                .fit
            expect(at(steps)).toBeGreaterThanOrEqual(4)
            expect(at(steps + 0.05)).toBeLessThan(4)
          }
        },
      ),
      { numRuns: 300, seed: 432 },
    )
  })

  it('stands apart as the house says, every dancer once', () => {
    const places = classPlaces(houseOf({ ...USUAL_RULES, dancers: 11, staggered: true }))
    expect(places.length).toBe(11)
    for (const [i, a] of places.entries())
      for (const b of places.slice(i + 1)) {
        const isApart =
          Math.abs(a.right - b.right) > 1.6 - 1e-9 || Math.abs(a.forward - b.forward) > 1.8 - 1e-9
        expect(isApart).toBe(true)
      }
  })

  it('knows how far arms reach, taller dancers farther, and turned arms the other way', () => {
    const arms = (facing: number) =>
      simulate(
        {
          ...combination([[on('arms', '1', { kind: 'arms', R: 'second', L: 'second' })]]),
          start: { ...combination([[]]).start, facing },
        },
        vocabulary,
      )
    expect(armReach(arms(0)).sideways).toBeCloseTo(0.8)
    expect(armReach(arms(90)).deep).toBeCloseTo(0.8)
    const tall = simulate(
      arms(0).combination,
      vocabulary,
      houseOf({ ...USUAL_RULES, heights: { shortest: 1.6, tallest: 1.98 } }),
    )
    expect(armReach(tall).sideways).toBeCloseTo(0.7 * 1.2 + 0.1)
  })
})

it('walks back: every offer ends nearer to where it began', () => {
  const away = combination([
    feet(
      '1 step R forward; 2 step L forward; 3 step R forward; 4 step L forward; 5 step R forward; 6 touch L together',
    ),
  ])
  const offers = comeBack(away, vocabulary, USUAL_HOUSE)
  const far = ({ right, forward }: { right: number; forward: number }) => Math.hypot(right, forward)
  const before = far(endsAway(simulate(away, vocabulary), true))
  expect(offers.length).toBeGreaterThan(0)
  for (const { changed, away: said } of offers) {
    const now = far(endsAway(simulate(changed, vocabulary), true))
    expect(now).toBeCloseTo(said, 9)
    expect(now).toBeLessThan(before)
  }
})
