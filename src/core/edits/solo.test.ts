import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { anyPiece } from '../../../tests/anyPiece'
import { holds } from '../../../tests/holds'
import { Combination } from '../combination/combination'
import { partIds, partOf } from '../combination/partOf'
import { checkCombination } from '../findings/check'
import { severityOf } from '../findings/finding'
import { USUAL_HOUSE } from '../house/house'
import { vocabulary } from '../moves/vocabulary'
import { readSheet } from '../sheet/readSheet'
import { writeSheet } from '../sheet/writeSheet'
import { soloOf } from './solo'

const solo = (one: Combination, id: string) => soloOf(one, id, vocabulary, USUAL_HOUSE)

const DUET = `sway 2
title Two Lamps
tempo 92
part @1 "Amber" at L 0.5
part @2 "Blue" at R 0.5
phrase A "Change of place" 8
  feet 1 step R side; 2 touch L together; 3 step L side; 4 touch R together
  feet @1 5 step R diag-forward; 6 step L cross-front; 7 step R side; 8 step L back
  feet @2 5 step R cross-behind; 6 step L side; 7 step R cross-behind; 8 step L side
  between 1-4 hold @1.R @2.L fingers low; 5-8 place @1 right @2 0.9
  arms @solo 1-4 both demi-second; 5-8 both low
phrase B "Lean away" 8
  feet @1 1 step R in-place; 2 touch L together; 7 step L in-place; 8 close R
  feet @2 1 step R side; 2 centre; 2 bend; 7 sway L; 8 close R
  torso @1 3-6 lean R supported
  arms @1 3-6 R high-v; 7-8 R low via side
  arms @2 3-6 L hips; 7-8 L low
  between 1-6 hold @1.L @2.R wrist waist; 2-6 support @2 of @1 25%; 7-8 look @1 @2
  torso @solo 3-6 lean R size 60%
  arms @solo 1-2 both low; 3-6 R high-v, L hips; 7-8 both low via side
order A B`

describe('what one dances without her partners', () => {
  it('is a combination for one, with everything she did with them replaced or left out by name', () => {
    const duet = readSheet(DUET, vocabulary).combination
    const amber = solo(duet, '1')
    expect(amber.combination.parts).toBeUndefined()
    const text = writeSheet(amber.combination, vocabulary)
    expect(text).not.toMatch(/@|between|supported/)
    expect(text).toMatch(/torso +3-6 lean R size 60%/)
    expect(text).toMatch(/arms +1-2 both low; 3-6 R high-v, L hips; 7-8 both low via side/)
    const met = amber.replaced.map(
      ({ phrase, what, instead }) => `${phrase}: ${what} -> ${instead}`,
    )
    expect(met).toEqual(
      expect.arrayContaining([
        expect.stringMatching(
          /^A: Amber’s right holds Blue’s left, .* -> what is written for dancing alone$/,
        ),
        expect.stringMatching(/^A: Amber comes on the right of Blue -> her own way$/),
        expect.stringMatching(/^B: Blue carries 25 % of Amber’s weight -> nothing$/),
        expect.stringMatching(/^B: Amber and Blue look at each other -> a look over-L$/),
      ]),
    )
    const { findings } = checkCombination(amber.combination, vocabulary)
    expect(
      findings.filter((one) => severityOf(one) === 'fault' || one.code.startsWith('pair.')),
    ).toEqual([])
  })

  it('takes the arm to where the hand was held, and a lean without its weight, where nothing else is written', () => {
    const bare = readSheet(DUET.replace(/^.*@solo.*\n/gm, ''), vocabulary).combination
    const { combination, replaced } = solo(bare, '1')
    const text = writeSheet(combination, vocabulary)
    expect(text).toMatch(/arms +1-4 R demi-second; 5-5 R low/)
    expect(text).toMatch(/torso +3-6 lean R size 60%/)
    expect(replaced.map(({ instead }) => instead)).toContain('smaller, in her own balance')
  })

  it('holds for any piece: valid, alone, no fault that her part had not, and itself when it is asked again', () => {
    holds(
      fc.property(anyPiece(), (piece) => {
        for (const id of partIds(piece)) {
          const { combination } = solo(piece, id)
          expect(Combination.safeParse(combination).error).toBeUndefined()
          expect(solo(combination, id)).toEqual({ combination, replaced: [] })
          expect(JSON.stringify(combination)).not.toMatch(/"who":|"supported":/)
          const isSaid = piece.phrases.some(({ events, props = [] }) =>
            [...events, ...props].some(({ who }) => who?.includes('solo')),
          )
          const passes = piece.phrases.some(({ between = [] }) =>
            between.some(({ what }) => what.kind === 'pass'),
          )
          const waits = piece.phrases.some(({ between = [] }) =>
            between.some(({ what }) => what.kind === 'wait' && what.of.includes(id)),
          )
          const orbits = piece.phrases.some(({ between = [] }) =>
            between.some(({ what }) => what.kind === 'orbit' && what.of === id),
          )
          if (isSaid || passes || waits || orbits) continue
          const faults = (one: Combination) =>
            checkCombination(one, vocabulary).findings.filter(
              (found) => severityOf(found) === 'fault' && found.code !== 'layer.clash',
            ).length
          expect(faults(combination)).toBeLessThanOrEqual(faults(partOf(piece, id)))
        }
      }),
      { numRuns: 200, seed: 730 },
    )
  })
})
