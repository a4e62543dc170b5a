import type { Listened } from '../beats/listen'
import { mean } from '../beats/numbers'
import { capital } from '../capital'
import type { Selection } from './correct'
import { evenCounts } from './even'
import { merged, recounted } from './recount'
import {
  MOST_COUNTS,
  type Section,
  SONG_VERSION,
  type Song,
  type SongCounts,
  SURE_COUNTS,
} from './song'

/** What was heard of a song, as its counts. Where it may begin anew is only proposed. */
export function countsHeard(
  { counts, bar, ones, sure }: Listened,
  by: 'found' | 'tapped' = 'found',
): SongCounts {
  const ms = counts.slice(0, MOST_COUNTS).map((at) => Math.max(0, Math.round(1000 * at)))
  const phrase = 2 * bar
  const first = Math.min(ones[0] ?? 0, ms.length - 1)
  const anew: number[] = []
  for (const at of ones)
    if ((at - (anew.at(-1) ?? first)) % phrase !== 0 && at < ms.length) anew.push(at)
  return {
    ms,
    by,
    fixed: [],
    sure: Array.from({ length: Math.ceil(ms.length / SURE_COUNTS) }, (_, i) =>
      Math.round(100 * mean(sure.counts.slice(i * SURE_COUNTS, (i + 1) * SURE_COUNTS))),
    ),
    ones: [{ at: first, counts: phrase, found: true }],
    anew,
    silent: [],
  }
}

/** What it is called where nobody has named it. */
const LABELS: Readonly<Partial<Record<Section['kind'], string>>> = { other: 'Part' }
export const labelOf = (kind: Section['kind']): string => LABELS[kind] ?? capital(kind)

/** Its sections, as they were heard: the first one from its first count on. */
export function sectionsHeard(
  { sections }: Listened,
  counts: number,
  newId: () => string,
): readonly Section[] {
  const ids = sections.map(newId)
  return sections
    .filter(({ at }) => at < counts)
    .map(
      ({ at, kind, energy, as }, i): Section => ({
        id: ids[i] as string,
        at: i === 0 ? 0 : at,
        label: labelOf(kind),
        kind,
        energy,
        ...(as !== undefined && { as: ids[as] as string }),
        found: true,
      }),
    )
}

/**
 * A song that was counted again, with all that was set by hand.
 * @param within only these counts of it
 */
export function heardAgain(
  song: Song,
  heard: Listened,
  by: 'found' | 'tapped',
  newId: () => string,
  within?: Selection,
): Song {
  const counts = merged(song.counts, countsHeard(heard, by), within)
  const next = recounted(song, counts)
  // Sections nobody has said yes to are heard anew too.
  return within || song.sections.some(({ found }) => !found)
    ? next
    : { ...next, sections: sectionsHeard(heard, counts.ms.length, newId) }
}

/** What is known of a song before anything is heard of it. */
type Unheard = Pick<Song, 'id' | 'title' | 'media'>

/** A new song: as it was heard, or not counted where nothing could be. */
export function newSong(about: Unheard, heard: Listened | undefined, newId: () => string): Song {
  const counts = heard ? countsHeard(heard) : evenCounts(about.media.seconds)
  return {
    ...about,
    kind: 'song',
    schemaVersion: SONG_VERSION,
    by: '',
    notes: '',
    counts,
    sections: heard ? sectionsHeard(heard, counts.ms.length, newId) : [],
    stops: [],
    words: [],
  }
}
