import { describe, expect, it } from 'vitest'
import { notesOf, slots } from '../../tests/slots'
import { USUAL_LOOK } from '../core/house/dancerLook'
import { USUAL_RULES, withLimit } from '../core/house/house'
import { Database } from './database'
import { createHouse, readHouse } from './house'

let names = 0
const store = slots()
const place = () => {
  const database = new Database(`house-${names++}`)
  return { database, house: createHouse(database, () => {}, notesOf(store)) }
}
const small = withLimit({ ...USUAL_RULES, room: { width: 4, depth: 5 } }, 'landing.side', 0.5)

describe('the house rules', () => {
  it('are the usual ones until some are kept, and then those', async () => {
    const { house } = place()
    expect(await house.get()).toEqual({ rules: USUAL_RULES })
    await house.change(USUAL_RULES, small)
    expect(await house.get()).toEqual({ rules: small })
    expect(readHouse(JSON.parse(JSON.stringify(small)))).toEqual(small)
  })

  it.each([
    [1, {}],
    [2, { units: 'metres' }],
  ])('of version %i open unchanged', (schemaVersion, units) => {
    // As those versions wrote them.
    const written = {
      schemaVersion,
      keepTurns: false,
      room: { width: 4, depth: 5 },
      ...units,
      dancers: 12,
      staggered: false,
      heights: { shortest: 1.65, tallest: 1.65 },
      level: 'intermediate',
      figure: { height: 1.7, build: 1.1 },
      figures: { 'landing.side': 0.5 },
    }
    const dancer = { height: 1.7, build: 1.1, look: USUAL_LOOK }
    expect(readHouse(written)).toEqual({ ...small, dancer })
    // As version 4 wrote it.
    const { figure, figures, ...kept } = written
    const four = { ...kept, units: 'metres', schemaVersion: 4, dancer: figure, limits: figures }
    expect(readHouse(four)).toEqual({ ...small, dancer })
    // As version 5 wrote it.
    expect(readHouse({ ...small, schemaVersion: 5, dancer })).toEqual({ ...small, dancer })
    const { figure: _, ...without } = written
    expect(readHouse(without)).toEqual(small)
  })

  it('are told to who watches, also when another window changes them', async () => {
    const { database, house } = place()
    const told = new Promise<void>((resolve) => {
      let calls = 0
      house.watch(() => {
        calls++
        if (calls === 2) resolve()
      })
    })
    await house.get()
    await new Promise((resolve) => setTimeout(resolve, 50))
    await createHouse(database, () => {}, notesOf(store)).change(USUAL_RULES, small)
    await told
    expect(await house.get()).toEqual({ rules: small })
  })

  it('are changed field by field in what another window has stored, also by what a closed tab left', async () => {
    const { database, house } = place()
    const there = createHouse(database, () => {}, notesOf(store))
    await house.change(USUAL_RULES, { ...USUAL_RULES, dancers: 9 })
    expect(await there.change(USUAL_RULES, small)).toEqual({ ...small, dancers: 9 })
    // Closed in the middle of a change: the next window makes it.
    const left = slots()
    const closing = createHouse(database, () => {}, notesOf(left, { window: 'gone' }))
    database.close()
    await expect(closing.change(small, { ...small, dancers: 30 })).rejects.toThrow()
    await database.open()
    const next = createHouse(database, () => {}, notesOf(left, { areGone: true }))
    expect(await next.recover()).toBe(1)
    expect(await next.get()).toEqual({ rules: { ...small, dancers: 30 } })
    expect(await next.recover()).toBe(0)
  })

  it('that are damaged or newer are left where they are, and the usual ones taken', async () => {
    const { database, house } = place()
    for (const record of [{ ...small, dancers: -3 }, { ...small, schemaVersion: 99 }, {}]) {
      await database.settings.put({ id: 'house', record })
      const kept = await house.get()
      expect(kept.rules).toEqual(USUAL_RULES)
      expect(kept.problem?.message).toMatch(/can’t be read by this version/)
      expect((await database.settings.get('house'))?.record).toEqual(record)
    }
    await expect(house.change(USUAL_RULES, { ...small, dancers: 0 })).rejects.toThrow()
    // What a newer app wrote is not written over; what is damaged is put aside.
    await database.settings.put({ id: 'house', record: { ...small, schemaVersion: 99 } })
    await expect(house.change(USUAL_RULES, small)).rejects.toThrow(/can’t be read/)
    expect((await database.settings.get('house'))?.record.schemaVersion).toBe(99)
    await database.settings.put({ id: 'house', record: { ...small, dancers: -3 } })
    await house.change(USUAL_RULES, small)
    expect(await house.get()).toEqual({ rules: small })
    expect((await database.settings.get('damaged house'))?.record.dancers).toBe(-3)
  })
})
