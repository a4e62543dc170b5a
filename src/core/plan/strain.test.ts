import { describe, expect, it } from 'vitest'
import { USUAL_HOUSE } from '../house/house'
import { vocabulary } from '../moves/vocabulary'
import { readSheet } from '../sheet/readSheet'
import { emptyPlan, planAgain } from './edits'
import { materialsOf } from './material'
import { wishesFor } from './plan'
import { addStrain, mostOf, NO_STRAIN, strainOf } from './strain'
import { totalsOf } from './totals'

/** Only the second one jumps, four times a round. */
const SHEET = `sway 2
title   One jumps
family  bollywood
tempo   100
part    @1 "Amber" at L 0.8
part    @2 "Blue" at R 0.8
phrase A 8
  feet @1 1 step R side; 2 step L in-place; 3 step R side; 4 step L in-place; 5 step R side; 6 step L in-place; 7 step R side; 8 step L in-place
  feet @2 1 jump both; 3 jump both; 5 jump both; 7 jump both
`

const planned = (sheet: string) => {
  const { combination: piece, messages } = readSheet(sheet, vocabulary)
  expect(messages).toEqual([])
  const materials = materialsOf([piece], vocabulary, USUAL_HOUSE)
  const { plan } = planAgain(emptyPlan('p', 'Class', wishesFor(piece, 'improver')), materials)
  return { plan, materials }
}

describe('what a class of a piece strains', () => {
  it('is read of each who dances it, and kept under the limits of whoever is strained most', () => {
    const { plan, materials } = planned(SHEET)
    const sum = plan.drills.reduce(
      (strain, drill) => addStrain(strain, strainOf(drill, materials)),
      NO_STRAIN,
    )
    expect(sum.map(({ impact }) => impact > 0)).toEqual([false, true])
    const { limits } = USUAL_HOUSE
    expect(mostOf(sum).impact).toBeLessThanOrEqual(limits['risk.class.impact'])
    expect(plan.drills.some(({ marked }) => marked)).toBe(true)
    const { risks } = totalsOf(plan, materials)
    expect(risks.find(({ risk }) => risk === 'impact')?.times).toBe(mostOf(sum).impact)
  })

  it('is both their parts for each, where the other side swaps them', () => {
    const { plan, materials } = planned(SHEET.replace('phrase A', 'swap roles\nphrase A'))
    const both = plan.drills.find(({ kind, sides }) => kind === 'sides' && sides.length === 2)
    if (!both) throw new Error('no drill of both sides')
    const [one, two] = strainOf({ ...both, repeats: 3, marked: 0 }, materials)
    expect([one?.impact, two?.impact]).toEqual([12, 12])
    const [own, hers] = strainOf({ ...both, sides: ['R'], repeats: 3, marked: 0 }, materials)
    expect([own?.impact, hers?.impact]).toEqual([0, 12])
  })
})
