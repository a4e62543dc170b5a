import Dexie from 'dexie'
import { beforeEach, describe, expect, it } from 'vitest'
import { combination, feet } from '../../tests/write'
import { summaryOf } from '../core/findings/summary'
import { vocabulary } from '../core/moves/vocabulary'
import { createCombinations } from './combinations'
import { Database, OWN_VERSION } from './database'
import { createOwnWords, type OwnWords } from './own'

let names = 0
let name = ''
let database: Database
let here: OwnWords
beforeEach(() => {
  name = `own-${names++}`
  database = new Database(name)
  here = createOwnWords(database, () => {})
})
const melt = {
  id: 'melt',
  name: 'Melt',
  layer: 'torso',
  kind: 'path',
  motion: 'wave(ribs>waist)',
  counts: 4,
  sided: 'none',
  claims: ['ribs'],
} as const

describe('own words', () => {
  it('say each thing by itself, and are gone when they say nothing more', async () => {
    await here.rename('hip-drop', '  plop ')
    await here.setFavourite('hip-drop', true)
    await here.saveMove(melt)
    expect(await here.list()).toEqual([
      { schemaVersion: OWN_VERSION, id: 'hip-drop', name: 'plop', favourite: true },
      { schemaVersion: OWN_VERSION, id: 'melt', move: melt },
    ])
    await here.rename('hip-drop', undefined)
    expect((await here.list())[0]).toEqual({
      schemaVersion: OWN_VERSION,
      id: 'hip-drop',
      favourite: true,
    })
    await here.setFavourite('hip-drop', false)
    await here.removeMove('melt')
    expect(await here.list()).toEqual([])
    expect(await database.own.count()).toBe(0)
  })

  it('of version 1 are here as they were, and a full move is kept with all it says', async () => {
    await database.own.add({ schemaVersion: 1 as 2, id: 'melt', move: melt })
    const full = { ...melt, id: 'drop', risk: ['knees' as const], fastest: 1.5, easier: 'melt' }
    await here.saveMove(full)
    expect(await here.list()).toEqual([
      { schemaVersion: OWN_VERSION, id: 'drop', move: full },
      { schemaVersion: OWN_VERSION, id: 'melt', move: melt },
    ])
  })

  it('pass over what they can’t read, and leave it where it is', async () => {
    await database.own.add({ schemaVersion: 9 as 2, id: 'later', name: 'x' })
    await here.rename('hip-drop', 'plop')
    expect((await here.list()).map(({ id }) => id)).toEqual(['hip-drop'])
    expect(await database.own.count()).toBe(2)
  })

  it('are seen in another window', async () => {
    const there = createOwnWords(new Database(name), () => {})
    let told = 0
    const stop = there.watch(() => told++)
    await expect.poll(() => told).toBeGreaterThan(0)
    const before = told
    await here.rename('hip-drop', 'plop')
    await expect.poll(() => told).toBeGreaterThan(before)
    expect((await there.list())[0]?.name).toBe('plop')
    stop()
  })

  it('of a backup come in where there are none, and never over what is here', async () => {
    await here.rename('hip-drop', 'plop')
    const count = await here.merge([
      { schemaVersion: OWN_VERSION, id: 'hip-drop', name: 'theirs' },
      { schemaVersion: OWN_VERSION, id: 'melt', move: melt },
    ])
    expect(count).toBe(1)
    expect((await here.list()).map((entry) => entry.name ?? entry.move?.name)).toEqual([
      'plop',
      'Melt',
    ])
  })
})

describe('a database of the version before', () => {
  it('is opened with all that is in it, and gets its summaries', async () => {
    const old = new Dexie(`old-${names}`)
    old.version(1).stores({ combinations: 'id, changedAt', flags: 'name' })
    const lantern = combination([feet('1 step R side')], { id: 'lantern', title: 'Lantern' })
    await old
      .table('combinations')
      .add({ id: 'lantern', revision: 3, changedAt: 5, record: lantern })
    await old.table('flags').add({ name: 'demo', at: 1 })
    old.close()
    const shelf = createCombinations(new Database(`old-${names}`), {
      now: () => 9,
      newId: () => 'x',
      summarise: (c) => summaryOf(c, vocabulary),
    })
    const { stored, damaged } = await shelf.list()
    expect(damaged).toEqual([])
    expect(stored.map(({ id, changedAt, summary }) => [id, changedAt, summary.title])).toEqual([
      ['lantern', 5, 'Lantern'],
    ])
    expect(await shelf.get('lantern')).toEqual({ combination: lantern, revision: 3, changedAt: 5 })
    await shelf.addDemoOnce(async () => [{ ...lantern, id: 'demo' }])
    expect((await shelf.list()).stored).toHaveLength(1)
  })
})
