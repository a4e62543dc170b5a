import { dequal } from 'dequal'
import { createStore } from 'zustand/vanilla'
import type { Part } from '../../audio/decode'
import { newSong } from '../../core/song/heard'
import type { Song } from '../../core/song/song'
import { readSongJson } from '../../core/song/songJson'
import type { Songs } from '../../storage/songs'
import { inWords } from '../parts/Problem'
import type { PlayDeck } from '../stores/deck'

/** A file that is being read. */
interface Reading {
  readonly id: string
  readonly name: string
  /** What is done now, in words. */
  readonly text: string
  /** 0 to 1; undefined where nobody knows. */
  readonly share: number | undefined
  readonly stop: AbortController
}

/** What came of a file, where it is not simply a song now. */
interface Told {
  readonly id: string
  readonly name: string
  readonly what: string
  readonly toDo: string
  /** The song it is already, or has become. */
  readonly song?: string
  /** A file that is too long as a whole: its minutes. */
  readonly long?: { readonly file: File; readonly seconds: number }
}

interface State {
  readonly readings: readonly Reading[]
  readonly told: readonly Told[]
}

/** Files go on being read on whatever screen the instructor is. */
export const reading = createStore<State>(() => ({ readings: [], told: [] }))

export const forget = (id: string): void =>
  reading.setState(({ told }) => ({ told: told.filter((one) => one.id !== id) }))

/** What reading needs. */
interface Needs {
  readonly store: Songs
  readonly deck: PlayDeck
  readonly newId: () => string
}

/** What is heard in it that can't be counted. */
const NOT_HEARD = {
  silent: 'Nothing is heard in it. Tap the counts yourself.',
  short: 'Too short to find a count. Tap it.',
  beatless: 'No steady beat found. Tap along, or use it without a count.',
} as const

/** A file's name as a title: without its ending and the number before it. */
const titleOf = (name: string): string =>
  name
    .replace(/\.[a-z0-9]{1,5}$/i, '')
    .replace(/[_]+/g, ' ')
    .replace(/^\d{1,3}\s*[-. ]\s*(?=\S)/, '')
    .trim()
    .slice(0, 120) || 'A song'

/** Takes on a song that was saved without its sound, beside what is here. Gives its id. */
async function readCounts(
  file: File,
  { store, newId }: Needs,
  tell: (told: Omit<Told, 'id' | 'name'>) => void,
): Promise<string> {
  const read = readSongJson(await file.text())
  const { all } = await store.songs.list()
  const same = all.find(({ id }) => id === read.id)
  if (same && dequal(same, read)) {
    tell({ what: 'You have this song already.', toDo: same.title, song: same.id })
    return same.id
  }
  const isHere = (await store.sounds.get(read.media.mark)) !== undefined
  const media = { ...read.media, keep: isHere ? 'here' : 'linked' } as const
  const song: Song = { ...read, id: same ? newId() : read.id, media }
  await store.songs.put(song)
  if (!isHere)
    tell({
      what: 'Its counts are here, its sound is not.',
      toDo: 'Open it, then find its file.',
      song: song.id,
    })
  return song.id
}

/** Reads a file into a song; says what is wrong with it, and loses nothing. Gives its id. */
export async function readSongFile(
  file: File,
  needs: Needs,
  {
    part,
    handle,
  }: { readonly part?: Part; readonly handle?: FileSystemFileHandle | undefined } = {},
): Promise<string | undefined> {
  const { store, deck, newId } = needs
  const id = newId()
  const stop = new AbortController()
  const { signal } = stop
  const { name } = file
  const step = (text: string, share?: number) =>
    reading.setState(({ readings }) => ({
      readings: readings.map((one) => (one.id === id ? { ...one, text, share } : one)),
    }))
  const tell = (told: Omit<Told, 'id' | 'name'>) =>
    reading.setState((state) => ({
      told: [...state.told.filter((one) => one.name !== name), { id, name, ...told }],
    }))
  reading.setState(({ readings, told }) => ({
    readings: [...readings, { id, name, text: 'Reading', share: undefined, stop }],
    told: told.filter((one) => one.name !== name),
  }))
  try {
    if (/\.json$/i.test(name)) return await readCounts(file, needs, tell)
    const [{ decodeSound, factsOf, markOf, MOST_SECONDS }, { mixedOf }, { listenBeside }] =
      await Promise.all([
        import('../../audio/decode'),
        import('../../audio/held'),
        import('../../workers/listen'),
      ])
    const [facts, mark] = await Promise.all([factsOf(file), markOf(file)])
    signal.throwIfAborted()
    const known = (await store.songs.list()).all.find(({ media }) => media.mark === mark)
    if (known && !part) {
      // It may be the very file that was missing.
      await keepSound(store, known, file)
      tell({ what: 'You have this song already.', toDo: known.title, song: known.id })
      return known.id
    }
    if (facts.seconds > MOST_SECONDS && !part) {
      tell({
        what: 'It is over an hour long.',
        toDo: 'Only the part you choose is read.',
        long: { file, seconds: facts.seconds },
      })
      return undefined
    }
    const { sound, remark } = await decodeSound(file, facts, {
      part,
      signal,
      onShare: (share) => step('Reading', share),
    })
    await deck.hold(mark, sound)
    step('Listening', 0)
    const { heard, features } = await listenBeside(
      { samples: mixedOf(sound), rate: sound.rate, told: {} },
      { signal, onShare: (share) => step('Listening', share) },
    )
    const media: Song['media'] = {
      name,
      type: file.type,
      bytes: file.size,
      seconds: sound.length / sound.rate,
      picture: facts.hasPicture,
      mark,
      keep: 'here',
      shift: 0,
      ...(part && { part }),
    }
    const isHeard = typeof heard !== 'string'
    const song = newSong({ id, title: titleOf(name), media }, isHeard ? heard : undefined, newId)
    await store.songs.put(song)
    if (features) await store.heard.write(mark, features)
    const keep = await keepSound(store, song, file)
    if (keep === 'linked' && handle) await store.sounds.link(mark, handle)
    const remarks = [
      remark,
      isHeard ? undefined : NOT_HEARD[heard],
      keep === 'linked' &&
        'There is no room to keep its sound here: it must be opened again next time.',
    ].filter((text) => typeof text === 'string')
    if (remarks.length > 0) tell({ what: 'It is here now.', toDo: remarks.join(' '), song: id })
    return id
  } catch (error) {
    if (signal.aborted) return undefined
    tell(inWords(error))
    return undefined
  } finally {
    reading.setState(({ readings }) => ({ readings: readings.filter((one) => one.id !== id) }))
  }
}

/** Keeps the sound of a song where there is room, and notes whether it is. */
export async function keepSound(
  { sounds, songs }: Songs,
  { id, media: { mark } }: Song,
  file: Blob,
): Promise<Song['media']['keep']> {
  const keep = await sounds.keep(mark, file)
  await songs.change(id, (now) =>
    now.media.keep === keep ? now : { ...now, media: { ...now.media, keep } },
  )
  return keep
}
