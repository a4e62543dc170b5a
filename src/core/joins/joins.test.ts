import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { anyCombination } from '../../../tests/arbitraries'
import { holds } from '../../../tests/holds'
import { combination, feet, move, on } from '../../../tests/write'
import type { Combination } from '../combination/combination'
import { loopIndex, loopTick } from '../combination/loop'
import { mirror } from '../combination/mirror'
import { checkCombination } from '../findings/check'
import { joinStrip } from '../findings/strip'
import { USUAL_HOUSE } from '../house/house'
import { vocabulary } from '../moves/vocabulary'
import { dancedPiece } from '../piece/piece'
import { readSheet } from '../sheet/readSheet'
import { placesBefore } from '../simulate/course'
import { roundEnds, simulate, stateBefore } from '../simulate/simulate'
import { footFits, footJoins } from './joins'
import { gapsInto, mirrorPlaces, placesAtEnds } from './meets'

const danced = (one: Combination) => simulate(one, vocabulary)

/** The same again behind it, or its other side, as one long dance. */
const twice = (one: Combination, other: boolean): Combination => ({
  ...one,
  order: [
    ...one.order,
    // What stands before the loop is danced once.
    ...one.order
      .slice(loopIndex(one))
      .map((entry) => ({ ...entry, mirrored: entry.mirrored !== other })),
  ],
})

/** Whether the first that the feet do in the second half of a dance can be danced. */
function secondBegins(one: Combination, other: boolean): boolean | undefined {
  const { danced: steps } = danced(twice(one, other))
  const first = steps.find(({ pass }) => pass.index >= one.order.length)
  if (!first) return undefined
  return steps.every(({ at, fault }) => at !== first.at || fault === undefined)
}

const withoutPickup = anyCombination().map(
  ({ pickup: _, ...one }): Combination => ({
    ...one,
    phrases: one.phrases.map((phrase) => ({
      ...phrase,
      events: phrase.events.filter(({ at }) => at >= 0),
    })),
  }),
)

describe('the foot at the end', () => {
  it('is right for the same side, and for the other, exactly when they can be danced on', () => {
    holds(
      fc.property(withoutPickup, (one) => {
        const { repeats, switches } = footJoins(danced(one), vocabulary)
        const again = secondBegins(one, false)
        const over = secondBegins(one, true)
        if (again !== undefined) expect(repeats).toBe(again)
        if (over !== undefined) expect(switches).toBe(over)
      }),
      { numRuns: 400, seed: 61 },
    )
  })

  it('is the same question asked from the other side, where nothing is kept', () => {
    holds(
      fc.property(anyCombination({ kept: false }), (one) => {
        expect(footJoins(danced(mirror(one)), vocabulary)).toEqual(
          footJoins(danced(one), vocabulary),
        )
      }),
      { numRuns: 200, seed: 62 },
    )
  })

  it('of a dance without steps is right when both stand alike, or one on both feet', () => {
    const still = (weight: 'R' | 'L' | 'both') => {
      const one = combination([[move('hip-drop', '3', 'L')]])
      return footJoins(danced({ ...one, start: { ...one.start, weight } }), vocabulary)
    }
    expect(still('L')).toEqual({ repeats: true, switches: false })
    expect(still('R')).toEqual({ repeats: true, switches: false })
    expect(still('both')).toEqual({ repeats: true, switches: true })
  })
})

describe('a pickup that is danced once', () => {
  const read = (lines: string) => readSheet(`sway 1\n${lines}`, vocabulary).combination
  const codes = (one: Combination) =>
    checkCombination(one, vocabulary).findings.map(({ code }) => code)

  it('is no part of the round: joins compare its end with the body on count 1', () => {
    const back = read(
      'pickup 1\nphrase A 8\n feet <8 step R forward; 1 step L forward; 2 step R forward; 3 step L back; 4 step R back; 8 touch L\n arms <8 both second; 4 both low; 7 both second',
    )
    expect(codes(back)).not.toContain('join.place')
    expect(codes(back)).not.toContain('join.arms')
    expect(codes(back)).not.toContain('join.facing')
    const turned = read(
      'pickup 1\nphrase A 8\n feet <8 step R forward turn 90; 1 step L side; 2 close R; 3 step L side turn -90; 4 close R',
    )
    // From the stance it would be front again; from count 1 each round ends a wall further.
    expect(codes(turned)).toContain('join.facing')
    expect(joinStrip(checkCombination(turned, vocabulary), 'repeat')[1]).toMatchObject({
      part: 'facing',
      how: 'differs',
    })
  })

  it('leaves the joins as they are without it, for whatever it does', () => {
    holds(
      fc.property(anyCombination({ kept: false }), (any) => {
        const one = { ...any, ...(any.pickup && { pickup: { ...any.pickup, each: false } }) }
        const simulation = danced(one)
        const { from, to } = roundEnds(simulation)
        const loop = loopTick(one)
        expect(from).toEqual(stateBefore(simulation, loop))
        expect(to).toEqual(simulation.end)
        const { begins } = placesAtEnds(simulation)
        expect(begins).toEqual(placesBefore(simulation, loop))
        // DancedStep on, the second round begins where the strip says the first one ends.
        const again = danced(twice(one, false))
        const half = simulation.length
        expect(stateBefore(again, half)).toEqual(to)
        expect(placesBefore(again, half)).toEqual(placesAtEnds(simulation).ends)
      }),
      { numRuns: 200, seed: 65 },
    )
  })
})

describe('what does not meet', () => {
  it('is only what ends elsewhere than it begins, and all of it where something needs its place', () => {
    holds(
      fc.property(anyCombination({ kept: false }), fc.boolean(), (one, other) => {
        const simulation = danced(one)
        const { begins, ends } = placesAtEnds(simulation)
        const starts = other ? mirrorPlaces(begins) : begins
        const gaps = gapsInto(simulation, other ? 'switch' : 'repeat')
        for (const { part, reach } of gaps) {
          if (part === 'arms') expect(ends.arms).not.toEqual(starts.arms)
          else expect(ends[part]).not.toBe(starts[part])
          if (reach) expect(reach.needs).toBeGreaterThan(0)
        }
        expect(new Set(gaps.map(({ part }) => part)).size).toBe(gaps.length)
        // Seen from the other side it is the same parts that do not meet.
        const there = gapsInto(danced(mirror(one)), other ? 'switch' : 'repeat')
        expect(there.map(({ part, reach }) => [part, reach])).toEqual(
          gaps.map(({ part, reach }) => [part, reach]),
        )
      }),
      { numRuns: 300, seed: 63 },
    )
  })

  it('is forgiven where there is a rest between rounds, and gone when the last move brings the part home', () => {
    const ending = (place: 'L' | 'R', rest?: number) => {
      const one = combination(
        [[move('hip-bump', '2', 'R'), on('hips', '7', { kind: 'at', place })]],
        {
          ...(rest && { rest }),
        },
      )
      return gapsInto(danced({ ...one, start: { ...one.start, hips: 'R' } }), 'repeat')
    }
    expect(ending('L')).toMatchObject([{ part: 'hips', ends: 'left', starts: 'right' }])
    expect(ending('L', 4)).toEqual([])
    expect(ending('R')).toEqual([])
  })
})

describe('the strip at the end of the braid', () => {
  it('says of every part once how it meets, and agrees with the foot and with the findings', () => {
    holds(
      fc.property(anyCombination(), fc.constantFrom('repeat', 'switch'), (one, into) => {
        const checked = checkCombination(one, vocabulary)
        const strip = joinStrip(checked, into)
        // What is danced once joins nothing.
        if (one.once) {
          expect(strip).toEqual([])
          expect(checked.findings.some(({ code }) => code.startsWith('join.'))).toBe(false)
          return
        }
        expect(
          strip.map(({ part }) => part).filter((part) => part !== 'trunk' && part !== 'legs'),
        ).toEqual(['foot', 'facing', 'place', 'height', 'hips', 'ribs', 'arms', 'gaze'])
        const { repeats, switches } = checked.joins
        const isRight = into === 'repeat' ? repeats : switches
        expect(strip[0]?.how).toBe(isRight ? 'meets' : 'misses')
        // A part said to meet has no gap, and no other part can miss for want of a foot.
        const gaps = new Set<string>(gapsInto(checked.lead, into).map(({ part }) => part))
        for (const { part, how, words } of strip.slice(4)) {
          expect(how === 'meets').toBe(!gaps.has(part))
          expect(words.length).toBeGreaterThan(0)
        }
      }),
      { numRuns: 200, seed: 64 },
    )
  })

  it('says a whole turn meets and a quarter does not', () => {
    const turning = (degrees: number) =>
      joinStrip(
        checkCombination(
          combination([feet(`1 step R side; 3 step L in-place turn ${degrees}`)]),
          vocabulary,
        ),
        'repeat',
      ).find(({ part }) => part === 'facing')
    expect(turning(360)?.how).toBe('meets')
    expect(turning(-360)?.how).toBe('meets')
    expect(turning(90)).toMatchObject({ how: 'differs', words: expect.stringContaining('right') })
  })
})

describe('where two swap their roles', () => {
  it('the end of one meets the beginning of the other one’s part from the other side', () => {
    const read = (last: string) =>
      readSheet(
        `sway 2\nswap roles\npart @1 "Amber" at L 0.5\npart @2 "Blue" at R 0.5\nphrase A 8\n  feet 1 step R side; 2 touch L together; 3 step L side; 4 ${last}`,
        vocabulary,
      ).combination
    const from = (one: Combination) => {
      const { of } = dancedPiece(one, vocabulary, USUAL_HOUSE)
      return [of('1').lead, of('2').other] as const
    }
    const alike = from(read('close R'))
    expect(footFits(...alike)).toBe(true)
    expect(gapsInto(alike[0], 'switch', alike[1])).toEqual([])
    // The other side begins with the left foot, and that is the one she stands on.
    const other = from(read('touch R together'))
    expect(footFits(...other)).toBe(false)
  })
})
