import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { anyPiece } from '../../../tests/anyPiece'
import { demo } from '../../../tests/demo'
import { holds } from '../../../tests/holds'
import { walkCount } from '../class/walk'
import type { Combination } from '../combination/combination'
import { isOwnIn } from '../combination/partOf'
import { makeForSeveral } from '../edits/parts'
import { USUAL_HOUSE } from '../house/house'
import { vocabulary } from '../moves/vocabulary'
import { emptyPlan, planAgain } from './edits'
import { layersIn, materialsOf, roundOf } from './material'
import { wishesFor } from './plan'
import { teachSteps } from './teachSteps'
import { materialsOfPart, teachTogether, whoTitle, whoWords } from './teachTogether'
import { drillTitle } from './totals'
import { wordsOfPlan } from './words'

const materialsFor = (one: Combination) => materialsOf([one], vocabulary, USUAL_HOUSE)

describe('teaching a piece', () => {
  it('lets everybody learn her own before she meets another one, and leaves nothing to dance out', () => {
    let met = 0
    holds(
      fc.property(anyPiece(), (one) => {
        const materials = materialsFor(one)
        const steps = teachTogether(one, materials)
        const { parts = [] } = one
        expect(new Set(steps.map(({ drill }) => drill.id)).size).toBe(steps.length)
        const known = new Set<string>()
        for (const { drill, part, meets } of steps) {
          const own = part === undefined ? materials : materialsOfPart(materials, one, part)
          expect(roundOf(drill, own)).toBeDefined()
          // All that anybody dances is danced where all of it is.
          if (drill.kind === 'sides' && drill.layers.length > 1)
            for (const { id } of parts) {
              const hers = materialsOfPart(materials, one, id).find(one.id)
              expect(drill.layers).toEqual(
                expect.arrayContaining([...layersIn(hers?.lead.passes ?? [])]),
              )
            }
          expect(part === undefined || parts.some(({ id }) => id === part)).toBe(true)
          for (const id of drill.phrases) {
            if (part !== undefined && !meets) known.add(`${part} ${id}`)
            const phrase = one.phrases.find((each) => each.id === id)
            if (meets !== 'apart' && meets !== 'with') continue
            met++
            // Who has something of her own there has danced it by then.
            for (const { id: her } of parts)
              if (phrase && isOwnIn(phrase, her) && steps.some((each) => each.part === her))
                expect(known.has(`${her} ${id}`)).toBe(true)
          }
        }
        const firstWith = steps.findIndex(
          ({ meets, drill }) =>
            meets === 'with' &&
            one.phrases.some(
              ({ id, between = [] }) =>
                drill.phrases.includes(id) &&
                between.some(({ what }) => what.kind === 'support' || what.kind === 'led'),
            ),
        )
        // What somebody leans on or is led through comes when all know their own.
        if (firstWith >= 0)
          expect(steps.slice(firstWith).every(({ part }) => part === undefined)).toBe(true)
      }),
    )
    expect(met).toBeGreaterThan(0)
  })

  it('is what it is for one where all dance the same', () => {
    for (const one of demo.filter(({ parts }) => !parts)) {
      const piece = makeForSeveral(['Amber', 'Blue'])(one)
      const materials = materialsFor(one)
      const material = materials.find(one.id)
      if (!material) throw new Error('it is there')
      const alone = teachSteps(material, materials).drills
      const steps = teachTogether(piece, materialsFor(piece))
      expect(steps.every(({ part, meets }) => !part && !meets)).toBe(true)
      // In the order of the phrases first, then of the whole.
      const without = ({ id: _, ...drill }: (typeof alone)[number]) => JSON.stringify(drill)
      expect(steps.map(({ drill }) => without(drill)).sort()).toEqual(alone.map(without).sort())
    }
  })

  it('says whose each step is, and what two must agree on first', () => {
    const lamps = demo.find(({ parts }) => parts)
    if (!lamps) throw new Error('the demo has a duet')
    const materials = materialsFor(lamps)
    const told = teachTogether(lamps, materials).map((step) => {
      const own = step.part === undefined ? materials : materialsOfPart(materials, lamps, step.part)
      return `${whoTitle(lamps, step)}${drillTitle(step.drill, own)}`
    })
    expect(told.slice(0, 8)).toEqual([
      'Amber · Walk it · A',
      'Amber · Feet · A',
      'Blue · Walk it · A',
      'Blue · Feet · A',
      'Amber in turn · Feet · A',
      'Blue in turn · Feet · A',
      'Hands off · Feet · A',
      'Together · Feet · A',
    ])
    // The lean of B after all that each dances alone.
    expect(told.indexOf('Together · All layers · B')).toBe(
      told.indexOf('Hands off · All layers · B') + 1,
    )
    const words = teachTogether(lamps, materials)
      .filter(({ meets }) => meets === 'with')
      .map((step) => whoWords(lamps, step).join(' '))
    expect(words).toEqual([
      expect.stringMatching(/^Now with each other\. Ask before you touch.*wants to\.$/),
      expect.stringMatching(/Ask before you touch.*word to stop.*doctor or physiotherapist/),
    ])
    const [amber] = teachTogether({ ...lamps, swapRoles: true }, materials)
    expect(amber && whoWords({ ...lamps, swapRoles: true }, amber)).toEqual([
      'Amber’s part, for both: on the other side you swap.',
    ])
  })

  it('is a class in which each half of the room takes a part, told once, with the names on its counts', () => {
    const lamps = demo.find(({ parts }) => parts)
    if (!lamps) throw new Error('the demo has a duet')
    const materials = materialsFor(lamps)
    const wishes = wishesFor(lamps, 'improver')
    const { plan } = planAgain(emptyPlan('class', lamps.title, wishes), materials)
    const words = wordsOfPlan(plan, materials)
    const said = plan.drills.map(({ id }) => words.get(id)?.say.join(' ') ?? '')
    const saying = (text: string) => plan.drills.filter((_, i) => said[i]?.includes(text))
    expect(saying('Each takes a part: Amber, Blue. Swap after a while')).toHaveLength(1)
    const [asked] = saying('Ask before you touch')
    expect(asked?.kind).toBe('walk')
    expect(saying('Lean only warm')).toHaveLength(1)
    expect(said.join(' ')).toContain('1, 2, Amber: lean, 4')
    const walk = plan.drills.find(({ kind, phrases }) => kind === 'walk' && phrases[0] === 'B')
    const round = walk && roundOf(walk, materials)
    if (!walk || !round) throw new Error('B is walked')
    expect(walkCount(walk, round, 1).now?.feet).toEqual([
      'Amber: Left foot touches beside the other',
      'Blue: Weight onto both feet. Bend the knees',
    ])
  })
})
