import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate'
import { beforeEach, describe, expect, it } from 'vitest'
import { placeNamed } from '../../tests/place'
import { combination, feet } from '../../tests/write'
import type { UserError } from '../core/errors'
import { USUAL_RULES } from '../core/house/house'
import { restoreBackup, writeBackup } from './backup'

let names = 0
const place = () => placeNamed(`backup-${names++}`)
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

  it('tells what is the same by its value: worked on and back again, in any order of its fields', async () => {
    const [first] = lantern.phrases
    const other = { ...lantern, phrases: [{ ...first!, events: [] }] }
    await here.combinations.save(other, 1)
    // The same moves again, their fields in another order, as an edit leaves them.
    const turned = Object.fromEntries(Object.entries(lantern).reverse()) as typeof lantern
    await here.combinations.save(turned, 2)
    await restoreBackup(bytes, here)
    expect(await titles(here)).toEqual(['Lantern', 'Lantern'])
    // What differs is there twice, once: the same backup again brings no third one.
    await here.combinations.save({ ...lantern, tempo: 111 }, 3)
    await restoreBackup(bytes, here)
    await restoreBackup(bytes, here)
    expect(await titles(here)).toEqual(['Lantern', 'Lantern', 'Lantern (from the backup)'])
  })

  it('knows what an older version stored, brought up to this one', async () => {
    const there = place()
    const old = { ...lantern, schemaVersion: 1, teachTempo: 64 }
    await there.combinations.add({ ...lantern, teachTempo: 64 })
    await there.database.combinations.update('lantern', { record: old })
    const newer = place()
    await newer.combinations.add({ ...lantern, teachTempo: 64 })
    await restoreBackup(await writeBackup(newer), there)
    expect(await titles(there)).toEqual(['Lantern'])
  })

  const contents = async ({ database }: ReturnType<typeof place>) =>
    Object.fromEntries(
      await Promise.all(
        database.tables.map(async (table) => [table.name, await table.toArray()] as const),
      ),
    )

  it('comes back whole or not at all, wherever the writing breaks', async () => {
    await here.house.change(USUAL_RULES, { ...USUAL_RULES, dancers: 7 })
    await here.planning.spoken.save({
      text: 'Drop',
      samples: Float32Array.from([0, 0.5]),
      rate: 16_000,
      onset: 0,
    })
    const all = await writeBackup(here)
    for (let writes = 0; writes < 12; writes++) {
      const there = place()
      const before = await contents(there)
      let left = writes
      for (const table of there.database.tables)
        table.hook('creating', () => {
          if (left-- === 0) throw new Error('the disk is full')
        })
      const done = await restoreBackup(all, there).then(
        () => true,
        (error: UserError) => {
          expect(error.message).toMatch(/could not be stored/)
          expect(error.whatToDo).toMatch(/^Nothing was changed/)
          return false
        },
      )
      const after = await contents(there)
      if (done) expect(after.combinations).toHaveLength(2)
      else expect(after).toEqual(before)
      if (done) break
      expect(writes).toBeLessThan(11)
    }
  })

  it('that is crafted loses no more than the file that is: wrong text, ids twice, names of objects', async () => {
    const files = unzipSync(bytes)
    const put = async (path: string, text: string) => {
      files[path] = strToU8(text)
    }
    await put('own-moves.json', 'no JSON at all')
    await put('plans.json', '[{"id":"x"},{"id":"x"}]')
    await put('constructor', '{}')
    const twice = files[Object.keys(files).find((name) => name.startsWith('combinations')) ?? '']!
    files['combinations/again.sway.json'] = twice
    const hashes = await Promise.all(
      Object.keys(files)
        .filter((path) => path !== 'manifest.json')
        .map(async (path) => {
          const hash = await crypto.subtle.digest('SHA-256', files[path]!.slice())
          const sha256 = [...new Uint8Array(hash)]
            .map((b) => b.toString(16).padStart(2, '0'))
            .join('')
          return { path, sha256 }
        }),
    )
    files['manifest.json'] = strToU8(
      JSON.stringify({
        kind: 'molten-sway-backup',
        schemaVersion: 1,
        files: [...hashes, { path: 'toString', sha256: '' }],
      }),
    )
    const there = place()
    const reports = await restoreBackup(zipSync(files), there)
    const bad = reports.filter(({ ok }) => !ok)
    expect(bad.map(({ name }) => name).sort()).toEqual([
      'constructor',
      'own-moves.json',
      'plans.json',
      'toString',
    ])
    for (const { text } of bad) expect(text).not.toMatch(/Nothing was changed/)
    expect(await titles(there)).toEqual(['Lantern', 'Lantern', 'Lantern (from the backup)'])
  })

  it('is stopped before anything is written, and says how far it is', async () => {
    const there = place()
    const stop = new AbortController()
    const seen: number[] = []
    const onFile = (done: number) => {
      seen.push(done)
      if (done === 1) stop.abort()
    }
    await expect(restoreBackup(bytes, there, { onFile, signal: stop.signal })).rejects.toThrow(
      expect.objectContaining({ name: 'AbortError' }),
    )
    expect(seen).toEqual([0, 1])
    expect(await titles(there)).toEqual([])
  })

  it('is not unpacked where it would fill the memory', async () => {
    const large = zipSync({
      'manifest.json': new Uint8Array(120_000_000),
    })
    expect(large.length).toBeLessThan(1_000_000)
    await expect(restoreBackup(large, place())).rejects.toThrow(/far too large/)
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
    await here.house.change(USUAL_RULES, rules)
    const backup = await writeBackup(here)
    const fresh = place()
    await restoreBackup(backup, fresh)
    expect((await fresh.house.get()).rules).toEqual(rules)
    const other = place()
    await other.house.change(USUAL_RULES, { ...USUAL_RULES, dancers: 20 })
    const reports = await restoreBackup(backup, other)
    expect((await other.house.get()).rules.dancers).toBe(20)
    expect(reports.find(({ name }) => name === 'house.json')?.text).toMatch(/stay/)
  })
})
