import { useState } from 'react'
import type { KeptFeatures } from '../../core/beats/kept'
import type { Listened, Told } from '../../core/beats/listen'
import { ANY_STYLE } from '../../core/beats/pace'
import { merged, recounted } from '../../core/song/edits'
import { countsHeard, sectionsHeard } from '../../core/song/heard'
import type { Song } from '../../core/song/song'
import { priorOf } from '../../core/song/styles'
import { listenBeside } from '../../workers/listen'
import { inWords } from '../parts/Problem'
import { type Change, selected } from './SongAside'
import type { Counts } from './useSongPlay'

/** A level that is asked for is looked for this near, in octaves. */
const NEAR = 0.06

/** Counts a song again from what is kept of it: at another tempo, or as it was tapped. */
export function useRecount({
  song,
  selection,
  features,
  change,
  say,
  newId,
}: {
  readonly song: Song
  readonly selection: Counts
  readonly features: KeptFeatures | null | undefined
  readonly change: Change
  readonly say: (text: string) => void
  readonly newId: () => string
}) {
  const [isAsking, setAsking] = useState(false)
  const ask = async (label: string, told: Told, by: 'found' | 'tapped', within?: Counts) => {
    if (!features) {
      say('What was heard of this song is gone. Find its file, then count it again.')
      return
    }
    setAsking(true)
    try {
      const { heard } = await listenBeside({ features, told }, {})
      if (typeof heard === 'string') say('No steady beat found. Tap along, eight counts or more.')
      else change(label, (now) => takenOn(now, heard, by, within, newId))
    } catch (error) {
      const { what, toDo } = inWords(error)
      say(`${what} ${toDo}`)
    } finally {
      setAsking(false)
    }
  }
  const { ms } = song.counts
  const tempo = (60_000 * (ms.length - 1)) / ((ms.at(-1) ?? 1) - (ms[0] ?? 0))
  return {
    isAsking,
    byTaps: (taps: readonly number[]) =>
      void ask('tap along', { taps }, 'tapped', selected(selection)),
    atTempo: (times: number) =>
      void ask(
        times > 1 ? '3 counts for 2' : '2 counts for 3',
        { prior: { centre: tempo * times, spread: NEAR } },
        'found',
      ),
    anew: () => void ask('count again', { prior: priorOf(song.rhythm) ?? ANY_STYLE }, 'found'),
  }
}

/** A song counted anew, with all that was set by hand. */
function takenOn(
  now: Song,
  heard: Listened,
  by: 'found' | 'tapped',
  within: Counts | undefined,
  newId: () => string,
): Song {
  const counts = merged(now.counts, countsHeard(heard, by), within)
  const next = recounted(now, counts)
  // Sections nobody has said yes to are heard anew too.
  return within || now.sections.some(({ found }) => !found)
    ? next
    : { ...next, sections: sectionsHeard(heard, counts.ms.length, newId) }
}
