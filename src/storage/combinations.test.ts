import { beforeEach, describe, expect, it } from 'vitest'
import { combination, feet } from '../../tests/write'
import { type Combination, SCHEMA_VERSION } from '../core/combination/combination'
import { summaryOf } from '../core/findings/summary'
import { vocabulary } from '../core/moves/vocabulary'
import { createCombinations } from './combinations'
import { Database } from './database'

const summarise = (c: Combination) => summaryOf(c, vocabulary)
let names = 0
let database: Database
let here: ReturnType<typeof createCombinations>
let there: ReturnType<typeof createCombinations>
let clock = 0

beforeEach(() => {
  const name = `shelf-${names++}`
  database = new Database(name)
  const given = { now: () => ++clock, newId: () => `copy-${clock}`, summarise }
  here = createCombinations(database, given)
  there = createCombinations(new Database(name), given)
})

const lantern = combination([feet('1 step R side')], { id: 'lantern', title: 'Lantern' })
const titles = async () => (await here.list()).stored.map((s) => s.summary.title)

describe('the shelf', () => {
  it('gives back what was saved, the last changed first', async () => {
    await here.add(lantern)
    await here.add({ ...lantern, id: 'other', title: 'Other' })
    expect(await here.save({ ...lantern, title: 'Lamp' }, 1)).toEqual({
      kind: 'saved',
      revision: 2,
    })
    expect(await titles()).toEqual(['Lamp', 'Other'])
    expect(await here.get('lantern')).toMatchObject({ revision: 2, combination: { title: 'Lamp' } })
    expect(await here.get('nothing')).toBeUndefined()
  })

  it('keeps both when two windows save the same one', async () => {
    await here.add(lantern)
    await there.save({ ...lantern, title: 'Theirs' }, 1)
    const saved = await here.save({ ...lantern, title: 'Mine' }, 1)
    expect(saved).toMatchObject({
      kind: 'elsewhere',
      copy: { title: 'Mine' },
    })
    expect(await titles()).toEqual(['Mine', 'Theirs'])
    // Two of one name are told apart.
    const again = await here.save({ ...lantern, title: 'Theirs' }, 1)
    expect(again).toMatchObject({ copy: { title: 'Theirs (from another window)' } })
  })

  it('gives back what was removed', async () => {
    await here.add(lantern)
    await here.remove('lantern')
    expect(await titles()).toEqual([])
    expect((await here.list()).removed.map((s) => s.id)).toEqual(['lantern'])
    await here.restore('lantern')
    expect(await here.all()).toEqual([lantern])
  })

  it('shows what it cannot read, says why, and keeps it', async () => {
    await database.combinations.add({
      id: 'bad',
      revision: 1,
      changedAt: 1,
      record: { kind: 'combination', schemaVersion: 1, title: 'Bent' },
    })
    await database.combinations.add({
      id: 'new',
      revision: 1,
      changedAt: 2,
      record: { kind: 'combination', schemaVersion: SCHEMA_VERSION + 1, title: 'Later' },
    })
    const { damaged, stored } = await here.list()
    expect(stored).toEqual([])
    expect(damaged.map((d) => [d.title, d.error.message])).toEqual([
      ['Later', expect.stringMatching(/newer version/)],
      ['Bent', expect.stringMatching(/“Bent” can't be opened/)],
    ])
    expect(await database.combinations.count()).toBe(2)
  })

  it('loads the demo once on an empty shelf, also from two windows, and never over work', async () => {
    await Promise.all([
      here.addDemoOnce(async () => [lantern]),
      there.addDemoOnce(async () => [lantern]),
    ])
    expect(await titles()).toEqual(['Lantern'])
    await here.remove('lantern')
    await here.addDemoOnce(async () => [lantern])
    expect(await titles()).toEqual([])

    const name = `shelf-${names++}`
    const used = createCombinations(new Database(name), {
      now: () => 1,
      newId: () => 'x',
      summarise,
    })
    await used.add({ ...lantern, id: 'own', title: 'Own' })
    await used.addDemoOnce(async () => [lantern])
    expect((await used.list()).stored.map((s) => s.summary.title)).toEqual(['Own'])
  })

  it('tells of changes made elsewhere', async () => {
    await here.add(lantern)
    let told = 0
    const stop = here.watch(() => told++)
    await expect.poll(() => told).toBeGreaterThan(0)
    const before = told
    await there.save({ ...lantern, title: 'Changed' }, 1)
    await expect.poll(() => told).toBeGreaterThan(before)
    stop()
  })

  it('makes summaries of what an older version stored, and makes old ones again', async () => {
    await database.combinations.add({
      id: 'lantern',
      revision: 1,
      changedAt: 1,
      record: { ...lantern },
    })
    const [shown] = (await here.list()).stored
    expect(shown?.summary).toEqual(summarise(lantern))
    await database.summaries.update('lantern', {
      'summary.schemaVersion': 0 as 1,
      'summary.title': 'stale',
    })
    expect(await titles()).toEqual(['Lantern'])
    expect(await here.get('lantern')).toMatchObject({ revision: 1, changedAt: 1 })
  })
})
