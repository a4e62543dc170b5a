import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { anyCombination } from '../../../tests/arbitraries'
import { holds } from '../../../tests/holds'
import { aloneFrom } from '../combination/dancing'
import { USUAL_HOUSE } from '../house/house'
import { vocabulary } from '../moves/vocabulary'
import { readSheet } from '../sheet/readSheet'
import { danced } from '../simulate/danced'
import { printsOf } from './prints'
import { roundsOf } from './space'

const roundOf = (one: Parameters<typeof danced>[0]) => {
  const { from } = danced(one, vocabulary, USUAL_HOUSE)
  const lead = from(aloneFrom(one.lead))
  const [round] = roundsOf(lead, lead, 1, false)
  if (!round) throw new Error('no round')
  return round
}

describe('prints on the floor', () => {
  it('are one for each place a foot came down on, with all its counts, turned as it faced', () => {
    const { combination } = readSheet(
      'sway 1\nphrase A 8\n feet 1 step R side; 2 close L; 3 step R side; 4 touch L together; 5 step L side; 6 close R; 7 step L in-place turn 90; 8 touch R together',
      vocabulary,
    )
    const prints = printsOf(roundOf(combination))
    const counts = prints.map(({ side, at, carries }) => [
      side,
      ...at.map((tick) => tick / 12 + 1),
      carries,
    ])
    expect(counts).toContainEqual(['R', false])
    expect(counts).toContainEqual(['R', 1, 6, true])
    expect(counts).toContainEqual(['L', 7, true])
    // What is only touched has no weight.
    expect(counts).toContainEqual(['R', 8, false])
    expect(prints.some(({ facing }) => facing === 90)).toBe(true)
    expect(prints.find(({ at }) => at.includes(36))?.carries).toBe(false)
  })

  it('of any dance are where its feet are, and no two of a foot in one place', () => {
    holds(
      fc.property(anyCombination({ kept: false }), (one) => {
        const round = roundOf(one)
        const prints = printsOf(round)
        for (const { right, forward, side } of prints)
          expect(
            round.points.some(
              ({ feet }) =>
                Math.hypot(feet[side].right - right, feet[side].forward - forward) < 0.04,
            ),
          ).toBe(true)
        for (const [i, a] of prints.entries())
          for (const b of prints.slice(i + 1))
            expect(
              a.side !== b.side ||
                Math.hypot(a.right - b.right, a.forward - b.forward) >= 0.03 ||
                Math.abs(a.facing - b.facing) >= 15,
            ).toBe(true)
      }),
      { numRuns: 60, seed: 821 },
    )
  })
})
