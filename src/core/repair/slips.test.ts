import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { anyCombination } from '../../../tests/arbitraries'
import { holds } from '../../../tests/holds'
import { checkCombination } from '../findings/check'
import { USUAL_HOUSE } from '../house/house'
import { vocabulary } from '../moves/vocabulary'
import { readSheet } from '../sheet/readSheet'
import { slipIn, slipsTogether } from './slips'

const together = (lines: string) => {
  const { combination } = readSheet(`sway 1\nphrase A 8\n${lines}`, vocabulary)
  return slipsTogether(combination, vocabulary, USUAL_HOUSE).map(({ slip, brings }) =>
    [slip, ...brings].map((one) => one.split('|')[3]),
  )
}

describe('slips of the weight', () => {
  it('that are gone when an earlier one is mended stand under it', () => {
    expect(together('feet 1 step R side; 2 step R side; 3 touch R together')).toEqual([
      ['12', '24'],
    ])
  })

  it('that need an edit each stand for themselves', () => {
    expect(
      together('feet 1 step R side; 2 step R side; 4 step L side; 5 step L side; 6 close R'),
    ).toEqual([])
  })

  it('stand under one other at the most, and each is one that is found', () => {
    holds(
      fc.property(anyCombination({ kept: false }), (any) => {
        const found = new Set(checkCombination(any, vocabulary).findings.map(slipIn))
        const list = slipsTogether(any, vocabulary, USUAL_HOUSE)
        const under = list.flatMap(({ brings }) => brings)
        expect(new Set(under).size).toBe(under.length)
        for (const one of [...under, ...list.map(({ slip }) => slip)]) expect(found).toContain(one)
        for (const { slip } of list) expect(under).not.toContain(slip)
      }),
      { numRuns: 60, seed: 621 },
    )
  })
})
