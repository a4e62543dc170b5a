import { beforeEach, describe, expect, it } from 'vitest'
import { placeNamed } from '../../tests/place'
import { songWith } from '../../tests/songs'
import { emptyRoutine, type Routine } from '../core/routine/routine'
import { evenCounts } from '../core/song/even'
import type { Song } from '../core/song/song'
import { restoreBackup, writeBackup } from './backup'
import { isSoundBackup, restoreSounds, writeSounds } from './soundBackup'

const mark = (of: string) => of.repeat(64)
const song = (id: string, of = 'a'): Song => {
  const made = songWith(evenCounts(60), { id, title: `Song ${id}` })
  const media = { ...made.media, name: `${id}.mp3`, type: 'audio/mpeg', bytes: 4, mark: mark(of) }
  return { ...made, media }
}

const routine: Routine = emptyRoutine('routine', { id: 'one', title: 'Laid' })

let names = 0
const place = (options: Parameters<typeof placeNamed>[1] = {}) =>
  placeNamed(`songs-${names++}`, options)
let here: ReturnType<typeof place>
beforeEach(() => {
  here = place()
})

const sound = (bytes = 4) => new Blob([new Uint8Array(bytes)])

describe('songs', () => {
  it('keep their sound by its mark, and what was heard of it by its version', async () => {
    const { songs, sounds, heard } = here.songs
    await songs.put(song('one'))
    expect(await sounds.keep(mark('a'), sound())).toBe('here')
    expect((await sounds.get(mark('a')))?.size).toBe(4)
    expect(await sounds.get(mark('b'))).toBeUndefined()
    const row = { most: 1, values: Uint8Array.of(128, 200) }
    const features = {
      frames: 2,
      slowFrames: 1,
      flux: row,
      low: row,
      loudness: row,
      lowShare: row,
      chroma: row,
      timbre: row,
    }
    await heard.write(mark('a'), features)
    expect(await heard.read(mark('a'))).toEqual(features)
    await here.database.heard.update(mark('a'), { version: 99 })
    expect(await heard.read(mark('a'))).toBeUndefined()
  })

  it('go on without it where there is no room, or none is left when it is stored', async () => {
    // A fifth of the room that is left, and no more than 300 MB.
    const small = place({ room: 100 })
    expect(await small.songs.sounds.keep(mark('a'), sound(20))).toBe('here')
    expect(await small.songs.sounds.keep(mark('b'), sound(21))).toBe('linked')
    here.database.media.hook('creating', () => {
      throw new DOMException('no room', 'QuotaExceededError')
    })
    expect(await here.songs.sounds.keep(mark('a'), sound())).toBe('linked')
  })

  it('lose their sound a day after they were deleted, and not before', async () => {
    const { songs, sounds, sweep } = here.songs
    for (const [id, of] of [
      ['kept', 'a'],
      ['gone', 'b'],
      ['long gone', 'c'],
      ['newer', 'd'],
    ] as const) {
      await songs.put(song(id, of))
      await sounds.keep(mark(of), sound())
    }
    await sounds.keep(mark('e'), sound())
    await here.database.songs.update('gone', { removedAt: 1 })
    await here.database.songs.update('long gone', { removedAt: 1 - 25 * 3600 * 1000 })
    // What a newer app has written keeps its sound, though it can't be read here.
    const newer = { ...song('newer', 'd'), schemaVersion: 99 }
    await here.database.songs.update('newer', { record: newer })
    expect(await songs.list()).toMatchObject({ unreadable: 1 })
    await sweep()
    const left = await here.database.media.toCollection().primaryKeys()
    expect(left.sort()).toEqual([mark('a'), mark('b'), mark('d')])
    await songs.restore('gone')
    expect((await songs.list()).all.map(({ id }) => id).sort()).toEqual(['gone', 'kept'])
  })

  it('come back from a backup, without their sound, beside those that are here', async () => {
    await here.songs.songs.put(song('one'))
    const bytes = await writeBackup(here)
    const there = place()
    await there.songs.songs.put({ ...song('one'), title: 'Mine' })
    await here.songs.songs.put(song('two', 'b'))
    await here.songs.routines.put(routine)
    const reports = await restoreBackup(await writeBackup(here), there)
    expect(reports.find(({ name }) => name === 'songs.json')).toMatchObject({
      ok: true,
      text: '1 songs came in.',
    })
    expect((await there.songs.songs.list()).all.map(({ title }) => title).sort()).toEqual([
      'Mine',
      'Song two',
    ])
    expect((await there.songs.routines.list()).all).toEqual([routine])
    const empty = place()
    await restoreBackup(bytes, empty)
    expect(await empty.songs.songs.get('one')).toEqual(song('one'))
  })

  it('have their sound back from a file of its own, but what is damaged, or belongs to none', async () => {
    const roomy = { room: 1e9 }
    const first = place(roomy)
    const { songs, sounds } = first.songs
    // Each says its own mark, so that damage is seen.
    const bytes = (of: string) =>
      new Blob([mark(of), new Uint8Array(5 << 20).fill(of.charCodeAt(0))])
    const markOf = async (file: Blob) => (await file.slice(0, 64).text()) as string
    const going = { onShare: () => {}, signal: new AbortController().signal }
    await expect(writeSounds(first.songs, going)).rejects.toThrow(/No sound is kept/)
    for (const of of ['a', 'b', 'c']) {
      await songs.put(song(of, of))
      await sounds.keep(mark(of), bytes(of))
    }
    const zip = await writeSounds(first.songs, going)
    expect(await isSoundBackup(zip)).toBe(true)
    const other = place(roomy)
    await other.songs.songs.put(song('a', 'a'))
    await other.songs.songs.put(song('c', 'c'))
    await other.songs.sounds.keep(mark('c'), bytes('c'))
    const reports = await restoreSounds(zip, other.songs, markOf, going)
    expect(
      reports.map(({ ok, text }) => [
        ok,
        text
          .split(/[ :,.]/)
          .slice(0, 2)
          .join(' '),
      ]),
    ).toEqual([
      [true, 'has its'],
      [false, 'belongs to'],
      [true, 'has its'],
    ])
    const back = await other.songs.sounds.get(mark('a'))
    expect(await back?.arrayBuffer()).toEqual(await bytes('a').arrayBuffer())
    expect(await other.songs.sounds.get(mark('b'))).toBeUndefined()
    expect((await other.songs.songs.get('a'))?.media.keep).toBe('here')
    // Cut off: what came whole is there, the rest is named.
    const third = place(roomy)
    for (const of of ['a', 'b', 'c']) await third.songs.songs.put(song(of, of))
    const cut = await restoreSounds(zip.slice(0, 7 << 20), third.songs, markOf, going)
    expect(cut.map(({ ok }) => ok)).toEqual([true, false, false])
    await expect(
      restoreSounds(new Blob(['no zip at all']), third.songs, markOf, going),
    ).rejects.toThrow(/Nothing was changed|damaged/)
    expect(await isSoundBackup(new Blob([(await writeBackup({ ...here })).slice()]))).toBe(false)
  })
})
