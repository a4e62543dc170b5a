import fc from 'fast-check'
import type { ClassEntry, DancedDrill, Group } from '../src/core/diary/diary'
import { houseOf, USUAL_HOUSE, USUAL_RULES } from '../src/core/house/house'
import { vocabulary } from '../src/core/moves/vocabulary'
import { emptyPlan, planAgain } from '../src/core/plan/edits'
import { type Materials, materialsOf } from '../src/core/plan/material'
import { NOTHING_KNOWN, type Plan, type PlanWishes } from '../src/core/plan/plan'
import { demo } from './demo'

/** The demo as a planner looks at it. */
export const materials = materialsOf(demo, vocabulary, USUAL_HOUSE)

/** The id of a combination of the demo. */
export function demoId(title: string): string {
  const found = demo.find((one) => one.title === title)
  if (!found) throw new Error(`the demo has no ${title}`)
  return found.id
}

/** A house that talks and calls in its own way. */
export const anyTeachingHouse = fc
  .record({
    'plan.talkThing': fc.integer({ min: 0, max: 30 }),
    'plan.talkJoin': fc.integer({ min: 0, max: 14 }),
    'call.lead': fc.constantFrom(0, 0.5, 1, 2, 3),
    'call.leadBig': fc.constantFrom(0.5, 1, 2, 4),
  })
  .map((limits) => houseOf({ ...USUAL_RULES, limits }))

/** A class of three quarters of an hour from one combination of the demo. */
export const wishesOf = (title: string, more: Partial<PlanWishes> = {}): PlanWishes => ({
  combinations: [demoId(title)],
  minutes: 45,
  level: 'intermediate',
  tempoNow: 72,
  tempoTarget: 96,
  way: 'propose',
  seen: 'none',
  known: NOTHING_KNOWN,
  type: 'drop-in',
  sides: 'propose',
  ...more,
})

export const tuesday: Group = {
  kind: 'group',
  schemaVersion: 1,
  id: 'tuesday',
  name: 'Tuesday improvers',
  level: 'improver',
  minutes: 60,
  room: 'Long room',
}

export const classOn = (
  date: string,
  danced: readonly DancedDrill[],
  more: Partial<ClassEntry> = {},
): ClassEntry => ({
  kind: 'class',
  schemaVersion: 5,
  id: `class ${date}`,
  date,
  start: '18:30',
  group: tuesday.id,
  title: 'Tuesday',
  minutes: 60,
  room: 'Long room',
  danced,
  notes: '',
  next: '',
  ...more,
})

/** A plan of some wishes, as it is proposed. */
export const newPlan = (
  id: string,
  title: string,
  wishes: PlanWishes,
  materials: Materials,
  group?: string,
): Plan => planAgain(emptyPlan(id, title, wishes, group), materials).plan
