import { UserError } from '../errors'
import { recordIn } from '../record/recordIn'
import { readSong, type Song } from './song'

/** A song as a file: its counts, sections and all that was set in it, without its sound. */
export const writeSongJson = (song: Song): string => `${JSON.stringify(song, null, 2)}\n`

/** @throws UserError where it is no such file, is damaged, or of a newer version */
export function readSongJson(text: string): Song {
  const noSong = (cause?: unknown) =>
    new UserError(
      'This is no song file, or it is damaged.',
      'Open one that ends in .song.json, as it was saved here.',
      { cause },
    )
  const record = recordIn(text, noSong)
  if (record.kind !== 'song') throw noSong()
  try {
    return readSong(record)
  } catch (error) {
    if (error instanceof UserError) throw error
    throw noSong(error)
  }
}
