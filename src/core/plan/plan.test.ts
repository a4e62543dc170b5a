import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { anyCombination } from '../../../tests/arbitraries'
import { holds } from '../../../tests/holds'
import { newPlan, tuesday } from '../../../tests/teaching'
import { DancerLevel } from '../combination/combination'
import { ClassEntry, newClass, readClass } from '../diary/diary'
import { USUAL_HOUSE } from '../house/house'
import { vocabulary } from '../moves/vocabulary'
import { materialsOf, secondsOf } from './material'
import { Plan, readPlan, wishesFor } from './plan'

describe('a plan of which nothing was said yet', () => {
  it('is of any combination an hour at its own tempos and level, and can be stored', () => {
    holds(
      fc.property(anyCombination(), fc.constantFrom(...DancerLevel.options), (one, level) => {
        const wishes = wishesFor(one, level)
        expect(wishes.level).toBe(one.level ?? level)
        expect(wishes.tempoNow).toBeLessThanOrEqual(wishes.tempoTarget)
        expect(wishes.tempoTarget).toBe(one.tempo)
        const materials = materialsOf([one], vocabulary, USUAL_HOUSE)
        const plan = newPlan('p', one.title, wishes, materials)
        expect(Plan.parse(plan)).toEqual(plan)
        expect(readPlan(JSON.parse(JSON.stringify(plan)))).toEqual(plan)
        const seconds = plan.drills.reduce((sum, drill) => sum + secondsOf(drill, materials), 0)
        expect(seconds).toBe(60 * 60)
      }),
      { numRuns: 80, seed: 102 },
    )
  })
})

describe('a class in which nothing was danced yet', () => {
  const given = { id: 'c', date: '2026-11-25', start: '18:30', title: 'Tuesday', minutes: 45 }

  it('is in the room of its group, of its plan, and empty', () => {
    const entry = newClass({ ...given, group: tuesday, plan: 'p' })
    expect(entry).toMatchObject({ ...given, room: tuesday.room, group: tuesday.id, plan: 'p' })
    expect([entry.danced, entry.notes, entry.next]).toEqual([[], '', ''])
    expect(readClass(JSON.parse(JSON.stringify(entry)))).toEqual(entry)
  })

  it('has no group and no plan where none were said', () => {
    const alone = newClass(given)
    expect(ClassEntry.parse(alone)).toEqual(alone)
    expect('group' in alone || 'plan' in alone).toBe(false)
    expect(alone.room).toBe('')
  })
})
