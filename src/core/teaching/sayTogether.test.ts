import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { anyPiece } from '../../../tests/anyPiece'
import { holds } from '../../../tests/holds'
import { LAYERS } from '../body/layers'
import { partsIn } from '../combination/between'
import type { Combination } from '../combination/combination'
import { bothOf } from '../combination/dancing'
import { partOf } from '../combination/partOf'
import { USUAL_HOUSE } from '../house/house'
import { vocabulary } from '../moves/vocabulary'
import { danceOf } from '../piece/dance'
import { readSheet } from '../sheet/readSheet'
import { handout, handoutOf } from './handout'
import { sayPass } from './say'
import { metOnCounts, type Say, sayTogether } from './sayTogether'

const say: Say = (simulation, pass) =>
  sayPass(simulation, pass, new Set(LAYERS), simulation.vocabulary)

const sidesOf = (combination: Combination) => {
  const { company } = danceOf(combination, vocabulary, USUAL_HOUSE)
  if (!company) throw new Error('it is for several')
  return bothOf(combination).map(company)
}

const DUET = `sway 2
tempo 92
part @1 "Amber" at L 0.5
part @2 "Blue" at R 0.5
phrase A 4
  feet 1 step R side
  feet @1 2 step L forward
  feet @2 2 step L back
  hips @1 3 hip-drop L
  say @2 4 "turn to her"
  between 1-2 hold @1.R @2.L fingers low; 4 look @1 @2
order A`

describe('what several dancers are told', () => {
  it('tells each of them all she dances alone, word for word, and nothing of another one’s', () => {
    let shared = 0
    let own = 0
    holds(
      fc.property(anyPiece(), (combination) => {
        for (const said of sidesOf(combination)) {
          for (const { part, simulation } of said.dancers) {
            for (const pass of simulation.passes) {
              const alone = say(simulation, pass)
              const told = sayTogether(said, pass.index, say)
              expect(told.map(({ count }) => count)).toEqual(alone.map(({ count }) => count))
              for (const [i, { each }] of told.entries()) {
                const hers = each.filter(({ parts }) => parts.includes(part))
                for (const key of ['feet', 'layers', 'cues', 'asides'] as const) {
                  const words = hers.flatMap((one) => one[key] as readonly unknown[])
                  const sorted = (list: readonly unknown[]) =>
                    list.map((one) => JSON.stringify(one)).sort()
                  expect(sorted(words)).toEqual(sorted(alone[i]?.[key] ?? []))
                }
                if (each.some(({ whose }) => whose === '')) shared++
                if (each.some(({ whose }) => whose !== '')) own++
              }
            }
          }
        }
      }),
    )
    expect(shared).toBeGreaterThan(0)
    expect(own).toBeGreaterThan(0)
  })

  it('says every meeting once where it begins, and to whom it matters', () => {
    holds(
      fc.property(anyPiece(), (combination) => {
        for (const said of sidesOf(combination)) {
          const passes = said.dancers[0]?.simulation.passes ?? []
          const lines = passes.flatMap(({ index }) => [...metOnCounts(said, index).values()].flat())
          expect(lines).toHaveLength(said.meetings.length)
          for (const { id } of combination.parts ?? []) {
            const hers = passes.flatMap(({ index }) =>
              [...metOnCounts(said, index, id).values()].flat(),
            )
            expect(hers).toHaveLength(
              said.meetings.filter(({ meeting }) => partsIn(meeting.what).includes(id)).length,
            )
          }
        }
      }),
    )
  })

  it('prints a page of all, with what they share once, and one of each', () => {
    const { combination } = readSheet(DUET, vocabulary)
    const [right = '', left = ''] = handout(combination, vocabulary).split('LEFT SIDE')
    expect(right).toContain(
      [
        '   1  Right foot steps to the right.',
        '      together: Amber’s right holds Blue’s left, by the fingers, low, until 2',
        '   2  Amber: Left foot steps forward.',
        '      Blue: Left foot steps back.',
        '   3  Amber: Hip drop left.',
        '   4  Blue: “turn to her”',
        '      together: Amber and Blue look at each other',
      ].join('\n'),
    )
    expect(left).toContain('together: Amber’s left holds Blue’s right')
    const blue = handoutOf(combination, '2', vocabulary)
    expect(blue).toContain('Combination: Blue ')
    expect(blue).toContain('   2  Left foot steps back.')
    expect(blue).toContain('      with you: Amber’s right holds Blue’s left')
    expect(blue).not.toContain('Hip drop')
    // With swapped roles the dancers keep their half of the floor, and dance each other's part.
    const swapped = handout({ ...combination, swapRoles: true }, vocabulary)
    expect(swapped.split('LEFT SIDE')[0]).toContain('Amber: Left foot steps forward.')
    expect(swapped.split('LEFT SIDE')[1]).toContain('Blue: Right foot steps forward.')
  })

  it('prints for one dancer what is printed without parts', () => {
    holds(
      fc.property(anyPiece(), (combination) => {
        const [first] = combination.parts ?? []
        const alone = partOf(combination, first?.id ?? '')
        // A title may have lines of its own.
        const page = (text: string) => text.slice(text.indexOf(' SIDE\n'))
        const said = page(handoutOf(combination, first?.id ?? '', vocabulary))
        const bare = said.split('\n').filter((line) => !line.startsWith('      with you: '))
        expect(bare.join('\n')).toBe(page(handout(alone, vocabulary)))
      }),
    )
  })
})
