import type { KeptFeatures } from '../core/beats/kept'
import { type Routine, readRoutine } from '../core/routine/routine'
import { readSong, type Song } from '../core/song/song'
import type { Database } from './database'
import { createRecords, type Keeping, type Records } from './records'

/** Larger files stay where they are. */
const MOST_BYTES = 300_000_000
/** No file takes more of the room that is left. */
const MOST_SHARE = 0.2
/** The sound of a song that was deleted goes after so long; until then it comes back with it. */
const DELETED_MS = 24 * 60 * 60 * 1000
/** What was heard by another version is heard anew. */
const HEARD_VERSION = 1

/** Files of sound, by their marks. */
interface Sounds {
  /** Keeps a file here where there is room; else it is only linked, and has to be found again. */
  readonly keep: (mark: string, file: Blob) => Promise<Song['media']['keep']>
  /** Undefined where it is not kept here. */
  readonly get: (mark: string) => Promise<Blob | undefined>
  /** Remembers where a file is that is not kept. */
  readonly link: (mark: string, handle: FileSystemFileHandle) => Promise<void>
  readonly linked: (mark: string) => Promise<FileSystemFileHandle | undefined>
}

/** What was heard of files, so that counting again needs no listening. */
interface Heard {
  readonly write: (mark: string, features: KeptFeatures) => Promise<void>
  readonly read: (mark: string) => Promise<KeptFeatures | undefined>
}

/** Songs, what is laid on them, and what belongs to them. */
export interface Songs {
  readonly songs: Records<Song>
  readonly routines: Records<Routine>
  readonly sounds: Sounds
  readonly heard: Heard
  /** Saves what windows that are gone have left; returns how much there was. */
  readonly recover: () => Promise<number>
  /** Throws sound away that belongs to no song any more. */
  readonly sweep: () => Promise<void>
}

/** @param room bytes that are left for this app; undefined where the browser does not say */
export function createSongs(
  database: Database,
  keeping: Keeping,
  room: () => Promise<number | undefined>,
): Songs {
  const { media, handles, heard } = database
  const songs = createRecords(database, database.songs, readSong, keeping)
  const routines = createRecords(database, database.routines, readRoutine, keeping)
  return {
    songs,
    routines,
    sounds: {
      async keep(id, blob) {
        const left = await room().catch(() => undefined)
        if (blob.size > MOST_BYTES || (left !== undefined && blob.size > MOST_SHARE * left))
          return 'linked'
        try {
          await media.put({ id, blob, bytes: blob.size })
          return 'here'
        } catch {
          // The disk is full: the song goes on without its sound.
          return 'linked'
        }
      },
      get: async (id) => (await media.get(id))?.blob,
      async link(id, handle) {
        await handles.put({ id, handle }).catch(() => {})
      },
      linked: async (id) => (await handles.get(id))?.handle,
    },
    heard: {
      async write(id, features) {
        await heard.put({ id, version: HEARD_VERSION, features }).catch(() => {})
      },
      async read(id) {
        const row = await heard.get(id).catch(() => undefined)
        return row?.version === HEARD_VERSION ? row.features : undefined
      },
    },
    recover: async () => (await songs.recover()) + (await routines.recover()),
    sweep: () =>
      database.transaction('rw', [database.songs, media, handles, heard], async () => {
        const rows = await database.songs.toArray()
        const since = keeping.now() - DELETED_MS
        const used = new Set(
          rows
            .filter(({ removedAt }) => removedAt === undefined || removedAt > since)
            // What can't be read by this version keeps its sound too.
            .map(({ record }) => markOf(record)),
        )
        for (const table of [media, handles, heard])
          for (const id of await table.toCollection().primaryKeys())
            if (!used.has(id)) await table.delete(id)
      }),
  }
}

/** The mark in a record of any version. */
function markOf({ media }: Record<string, unknown>): unknown {
  return typeof media === 'object' && media !== null && 'mark' in media ? media.mark : undefined
}
