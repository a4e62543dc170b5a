import 'fake-indexeddb/auto'
import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate'
import { beforeEach, describe, expect, it } from 'vitest'
import { keepingIn, slots } from '../../tests/slots'
import { combination, feet } from '../../tests/write'
import { summaryOf } from '../core/findings/summary'
import { USUAL_RULES } from '../core/house/house'
import { vocabulary } from '../core/moves/vocabulary'
import { restoreBackup, writeBackup } from './backup'
import { createCombinations } from './combinations'
import { Database } from './database'
import { createHouse } from './house'
import { createOwnWords } from './own'
import { createTeaching } from './teaching'

let names = 0
const place = () => {
  const database = new Database(`backup-${names++}`)
  let copies = 0
  return {
    combinations: createCombinations(database, {
      now: () => 1,
      newId: () => `copy-${++copies}`,
      summarise: (c) => summaryOf(c, vocabulary),
    }),
    own: createOwnWords(database),
    house: createHouse(database),
    teaching: createTeaching(
      database,
      slots(),
      keepingIn(slots(), () => 1),
    ),
  }
}
const lantern = combination([feet('1 step R side')], { id: 'lantern', title: 'Lantern' })
const swell = combination([feet('1 step L side')], { id: 'swell', title: 'Lantern' })
const melt = {
  id: 'slow-melt',
  name: 'Slow melt',
  layer: 'hips',
  kind: 'path',
  motion: 'arc(R>C>L)',
  counts: 2,
  sided: 'side',
  claims: ['pelvis'],
} as const

let here: ReturnType<typeof place>
let bytes: Uint8Array
beforeEach(async () => {
  here = place()
  await here.combinations.addAll([lantern, swell])
  await here.own.rename('hip-drop', 'plop')
  await here.own.saveMove(melt)
  await here.own.setFavourite('hip-drop', true)
  bytes = await writeBackup(here)
})
const titles = async ({ combinations }: ReturnType<typeof place>) =>
  (await combinations.list()).stored.map(({ summary }) => summary.title).sort()

describe('a backup', () => {
  it('brings everything back on an empty place', async () => {
    const there = place()
    const reports = await restoreBackup(bytes, there)
    expect(reports.every(({ ok }) => ok)).toBe(true)
    expect(await there.combinations.all()).toEqual(await here.combinations.all())
    expect(await there.own.list()).toEqual(await here.own.list())
  })

  it('changes nothing where all is here already, and keeps both where it differs', async () => {
    await restoreBackup(bytes, here)
    expect(await titles(here)).toEqual(['Lantern', 'Lantern'])
    await here.combinations.save({ ...lantern, title: 'Lamp' }, 1)
    await here.own.rename('hip-drop', 'drip')
    const reports = await restoreBackup(bytes, here)
    expect(reports.map(({ text }) => text).join(' ')).toMatch(/both are kept/)
    expect(await titles(here)).toEqual(['Lamp', 'Lantern', 'Lantern (from the backup)'])
    expect((await here.own.list()).find(({ id }) => id === 'hip-drop')?.name).toBe('drip')
  })

  it('names a damaged file and still brings the others', async () => {
    const files = unzipSync(bytes)
    const path =
      Object.keys(files).find((name) => name.includes('lantern')) ??
      Object.keys(files).find((name) => name.startsWith('combinations')) ??
      ''
    files[path] = strToU8(strFromU8(files[path]!).replace('"tempo": 96', '"tempo": 97'))
    const there = place()
    const reports = await restoreBackup(zipSync(files), there)
    expect(reports.filter(({ ok }) => !ok).map(({ name, text }) => [name, text])).toEqual([
      [path, expect.stringMatching(/checksum/)],
    ])
    expect(await titles(there)).toEqual(['Lantern'])
  })

  it.each([
    ['no zip', strToU8('hello'), /no zip/],
    ['another zip', zipSync({ 'a.txt': strToU8('a') }), /no backup/],
    ['a broken list', zipSync({ 'manifest.json': strToU8('{') }), /no backup/],
    [
      'a newer backup',
      zipSync({
        'manifest.json': strToU8('{"kind":"molten-sway-backup","schemaVersion":9,"files":[]}'),
      }),
      /newer version/,
    ],
  ])('is told from %s', async (_, file, message) => {
    const there = place()
    await expect(restoreBackup(file, there)).rejects.toThrow(message)
    expect(await titles(there)).toEqual([])
  })
})

describe('own words', () => {
  it('rename, mark and keep moves, and forget what says nothing', async () => {
    await here.own.rename('hip-drop', ' ')
    await here.own.setFavourite('hip-drop', false)
    await here.own.removeMove('slow-melt')
    expect(await here.own.list()).toEqual([])
  })

  it('brings the house rules into a studio that has none, and leaves another its own', async () => {
    const rules = { ...USUAL_RULES, dancers: 7 }
    await here.house.save(rules)
    const backup = await writeBackup(here)
    const fresh = place()
    await restoreBackup(backup, fresh)
    expect(await fresh.house.get()).toEqual(rules)
    const settled = place()
    await settled.house.save({ ...USUAL_RULES, dancers: 20 })
    const reports = await restoreBackup(backup, settled)
    expect((await settled.house.get()).dancers).toBe(20)
    expect(reports.find(({ name }) => name === 'house.json')?.text).toMatch(/stay/)
  })
})
