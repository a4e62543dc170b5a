import { describe, expect, it } from 'vitest'
import older from '../../tests/fixtures/planning-v1.json'
import second from '../../tests/fixtures/planning-v2.json'
import third from '../../tests/fixtures/planning-v3.json'
import fourth from '../../tests/fixtures/planning-v4.json'
import { materials } from '../../tests/teaching'
import { readSoundChoice } from '../core/class/soundChoice'
import { afterAction, readUnderWay } from '../core/class/underWay'
import { readClass } from '../core/diary/diary'
import { houseOf } from '../core/house/house'
import { changeDrill, planAgain } from '../core/plan/edits'
import { secondsOf } from '../core/plan/material'
import { readPlan } from '../core/plan/plan'
import { totalsOf } from '../core/plan/totals'
import { readHouse } from './house'

type Written = Record<string, unknown>
const { plans, classes, floors, houses } = older as unknown as Record<
  'plans' | 'classes' | 'floors' | 'houses',
  readonly Written[]
>

describe('what an older version has written', () => {
  it('opens unchanged: plans keep every drill, classes and the floor all they have', () => {
    expect(plans.length).toBeGreaterThan(4)
    for (const plan of plans) {
      const now = readPlan(plan)
      expect(now.drills).toEqual(plan.drills)
      expect(now.without).toEqual(plan.without)
      expect(now.wishes).toEqual({ ...(plan.wishes as object), type: 'drop-in', sides: 'both' })
      expect(readPlan(JSON.parse(JSON.stringify(now)))).toEqual(now)
      expect(() => totalsOf(now, materials)).not.toThrow()
    }
    for (const entry of classes) expect(readClass(entry)).toEqual({ ...entry, schemaVersion: 5 })
    for (const floor of floors) {
      const now = readUnderWay(floor)
      expect(now).toEqual({ ...floor, schemaVersion: 4, walked: 0 })
      expect(readUnderWay({ ...afterAction(now, { kind: 'next' }, materials) }).index).toBe(
        now.index + 1,
      )
    }
  })

  it('opens as it was, where only how a phrase was taught is new, songs, and series', () => {
    const newest = { plans: 5, classes: 5, floors: 4 }
    const read = { plans: readPlan, classes: readClass, floors: readUnderWay }
    for (const [version, file] of [
      [2, second],
      [3, third],
      [4, fourth],
    ] as const)
      for (const kind of ['plans', 'classes', 'floors'] as const) {
        const records: readonly Written[] = file[kind]
        expect(records.length).toBeGreaterThan(2)
        for (const record of records) {
          expect(record.schemaVersion).toBe(version)
          expect(read[kind](record)).toEqual({ ...record, schemaVersion: newest[kind] })
        }
      }
  })

  it('is planned round what was locked in it, to the second', () => {
    for (const plan of plans) {
      const now = readPlan(plan)
      const [first] = now.drills
      if (!first) throw new Error('no drill')
      const { plan: again, proposal } = planAgain(changeDrill(now, first.id, {}), materials)
      const seconds = again.drills.reduce((sum, drill) => sum + secondsOf(drill, materials), 0)
      expect(seconds - proposal.over).toBe(now.wishes.minutes * 60)
      expect(again.drills.filter(({ locked }) => locked)).toEqual(
        changeDrill(now, first.id, {}).drills.filter(({ locked }) => locked),
      )
    }
  })

  it('keeps who talked longer before a new layer talking longer for each new thing', () => {
    const [usual, longer, none] = houses.map((house) => houseOf(readHouse(house)).limits)
    expect(usual?.['plan.talkThing']).toBe(8)
    expect([longer?.['plan.talkThing'], longer?.['plan.talkJoin'], longer?.['call.lead']]).toEqual([
      12, 8, 2,
    ])
    expect(none?.['plan.talkJoin']).toBe(0)
  })

  it('says nothing more on the floor than it did', () => {
    const chosen = {
      schemaVersion: 1,
      rhythm: 'saidi',
      call: 'cues',
      countIn: 8,
      mix: { click: 0.5, half: 0, rhythm: 1, voice: 1, moves: 0.2 },
      browserVoice: true,
    }
    const now = readSoundChoice(chosen)
    expect(now).toMatchObject({ ...chosen, schemaVersion: 3 })
    expect(Object.values(now.extras)).toEqual([false, false, false])
    expect(readSoundChoice(third.sound)).toEqual({
      ...third.sound,
      schemaVersion: 3,
      mix: { ...third.sound.mix, music: now.mix.music },
    })
    expect(now.mix.music).toBeGreaterThan(0.5)
    expect(() => readSoundChoice({ ...chosen, schemaVersion: 4 })).toThrow(/newer version/)
  })

  it('is refused by name where it was written by a newer one', () => {
    for (const [read, record] of [
      [readPlan, plans[0]],
      [readClass, classes[0]],
      [readUnderWay, floors[0]],
      [readHouse, houses[0]],
    ] as const)
      expect(() => read({ ...record, schemaVersion: 9 })).toThrow(/newer version/)
  })
})
