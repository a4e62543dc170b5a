import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { anyPiece } from '../../../tests/anyPiece'
import { holds } from '../../../tests/holds'
import { partIds } from '../combination/partOf'
import { USUAL_HOUSE } from '../house/house'
import { vocabulary } from '../moves/vocabulary'
import { readSheet } from '../sheet/readSheet'
import { emptyPlan, planAgain } from './edits'
import { layersIn, materialsOf, meanLoad, roundOf } from './material'
import { MOST_MINUTES, wishesFor } from './plan'
import { planClass } from './planner'
import { addStrain, mostOf, NO_STRAIN, strainOf } from './strain'
import { firstPasses } from './teaching'
import { materialsOfPart } from './teachTogether'
import { taughtText } from './tell'
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

describe('a class of a piece', () => {
  it('strains each by what she dances, and is kept under the limits of whoever is strained most', () => {
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

  it('strains each by both their parts, where the other side swaps them', () => {
    const { plan, materials } = planned(SHEET.replace('phrase A', 'swap roles\nphrase A'))
    const both = plan.drills.find(({ kind, sides }) => kind === 'sides' && sides.length === 2)
    if (!both) throw new Error('no drill of both sides')
    const [one, two] = strainOf({ ...both, repeats: 3, marked: 0 }, materials)
    expect([one?.impact, two?.impact]).toEqual([12, 12])
    const [own, hers] = strainOf({ ...both, sides: ['R'], repeats: 3, marked: 0 }, materials)
    expect([own?.impact, hers?.impact]).toEqual([0, 12])
  })

  it('dances what any of its dancers has, once it was danced whole', () => {
    let others = 0
    holds(
      fc.property(anyPiece(), (one) => {
        const materials = materialsOf([one], vocabulary, USUAL_HOUSE)
        const { drills } = planClass(
          { ...wishesFor(one, materials.house.level), minutes: MOST_MINUTES },
          materials,
        )
        const dances = partIds(one).map((part) =>
          firstPasses(materialsOfPart(materials, one, part).find(one.id)?.lead.passes ?? []),
        )
        for (const { kind, phrases, layers } of drills) {
          if (kind !== 'all') continue
          const hers = dances.map((passes) =>
            layersIn(
              passes.filter(({ phrase: { id } }) => phrases.length === 0 || phrases.includes(id)),
            ),
          )
          for (const own of hers) expect(layers).toEqual(expect.arrayContaining([...own]))
          if (hers.some((own) => own.some((layer) => !hers[0]?.includes(layer)))) others++
        }
      }),
    )
    // Pieces in which another one has a layer the first has not are among them.
    expect(others).toBeGreaterThan(0)
  })

  it('weighs each layer as it is for whoever has the most to learn of it, whichever part that is', () => {
    const of = (much: string, little: string) => {
      const { plan, materials } = planned(
        `${SHEET.slice(0, SHEET.indexOf('  feet'))}
  feet 1 step R side; 2 step L in-place; 3 step R side; 4 step L in-place
  hips ${much} 1 maya R; 5 maya R
  torso ${much} 1 rib eight R; 5 rib eight R
  hips ${little} 1 hip bump R
`,
      )
      const strip = plan.drills.map((drill) => {
        const round = roundOf(drill, materials)
        return round ? meanLoad(drill, round) : 0
      })
      const told = plan.drills.map(({ kind, layers, repeats, talk }) => ({
        kind,
        layers,
        repeats,
        talk,
      }))
      return { told, strip }
    }
    const one = of('@2', '@1')
    expect(one).toEqual(of('@1', '@2'))
    expect(one.told.filter(({ kind }) => kind === 'alone').map(({ layers }) => layers)).toEqual([
      ['hips'],
      ['torso'],
    ])
  })

  it('is told with whose each step is', () => {
    const { materials } = planned(SHEET)
    const material = materials.find('sheet')
    const text = material && taughtText(material, materials)
    expect(text).toMatch(/^Amber · [\s\S]*Blue · [\s\S]*Blue in turn · [\s\S]*Together · /)
    expect(text).toContain('Amber dances, Blue counts aloud; then change.')
  })
})
