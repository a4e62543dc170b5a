import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { describe, expect, it } from 'vitest'
import { demo } from '../../../tests/demo'
import type { Combination } from '../combination/combination'
import { USUAL_HOUSE } from '../house/house'
import { vocabulary } from '../moves/vocabulary'
import { readSheet } from '../sheet/readSheet'
import { emptyPlan, planAgain } from './edits'
import { materialsOf } from './material'
import { type PlanWishes, wishesFor } from './plan'
import { planText, toldPlan } from './tell'

const GOLDEN = join(import.meta.dirname, '..', '..', '..', 'tests', 'golden')

const told = (one: Combination, more: Partial<PlanWishes>) => {
  const materials = materialsOf([one], vocabulary, USUAL_HOUSE)
  const wishes = { ...wishesFor(one, 'improver'), ...more }
  const { plan, proposal } = planAgain(emptyPlan('p', one.title, wishes), materials)
  return toldPlan(plan, proposal, materials)
}

const demoOne = (title: string): Combination => {
  const found = demo.find((one) => one.title === title)
  if (!found) throw new Error(`no ${title}`)
  return found
}

/** Classes that were read as a teacher would who gives them; what changes in them is read again. */
describe('a class, told step by step,', () => {
  const rope = readFileSync(join(GOLDEN, 'rope-and-lantern.sway'), 'utf8')
  it.each([
    [
      'rope-and-lantern-60',
      readSheet(rope, vocabulary).combination,
      { level: 'improver', minutes: 60 },
    ],
    ['copper-lantern-60', demoOne('Copper Lantern'), { level: 'improver', minutes: 60 }],
    ['saffron-steps-45', demoOne('Saffron Steps'), { level: 'new', minutes: 45 }],
    [
      'quick-ember-90',
      demoOne('Quick Ember'),
      { level: 'intermediate', minutes: 90, type: 'choreography' },
    ],
  ] as const)('is as it was read: %s', async (name, one, wishes) => {
    const class_ = told(one, wishes)
    expect(class_.seconds).toBe(wishes.minutes * 60)
    expect(class_.steps.reduce((sum, { seconds }) => sum + seconds, 0)).toBe(class_.seconds)
    for (const [i, { at }] of class_.steps.entries())
      expect(at).toBe(class_.steps.slice(0, i).reduce((sum, { seconds }) => sum + seconds, 0))
    await expect(planText(class_)).toMatchFileSnapshot(join(GOLDEN, `${name}.txt`))
  })
})
