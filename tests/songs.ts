import { SONG_VERSION, type Song, type SongCounts } from '../src/core/song/song'

/** Counts at these milliseconds, the first of them 1, nothing else said of them. */
export const countsAt = (ms: readonly number[], more: Partial<SongCounts> = {}): SongCounts => ({
  ms,
  by: 'hand',
  fixed: [],
  sure: [],
  ones: [{ at: 0, counts: 8 }],
  anew: [],
  silent: [],
  ...more,
})

/** As many counts as that, even, from the first second on. */
export const evenMs = (counts: number, tempo: number): readonly number[] =>
  Array.from({ length: counts }, (_, i) => 1000 + Math.round((60_000 * i) / tempo))

/** A song of these counts, as it is stored. */
export const songWith = (counts: SongCounts, more: Partial<Song> = {}): Song => ({
  kind: 'song',
  schemaVersion: SONG_VERSION,
  id: 'song',
  title: 'Kiln Yard',
  by: '',
  notes: '',
  media: {
    name: 'kiln.wav',
    type: 'audio/wav',
    bytes: 10,
    seconds: (counts.ms.at(-1) ?? 0) / 1000 + 2,
    picture: false,
    mark: 'a'.repeat(64),
    keep: 'here',
    shift: 0,
  },
  counts,
  sections: [],
  stops: [],
  words: [],
  ...more,
})
