import type { Combination } from '../combination/combination'
import type { Song } from '../song/song'
import { countsFrom } from './room'
import { emptyRoutine, type Routine } from './routine'

/** A combination alone on a song, from one of its counts on, as far as the song goes. */
export function placedOn(song: Song, combination: Combination, at: number): Routine {
  const counts = Math.min(countsFrom(combination), song.counts.ms.length - at)
  const what = {
    kind: 'dance',
    combination: combination.id,
    from: 0,
    side: combination.lead,
  } as const
  return {
    ...emptyRoutine('here', song),
    pieces: counts > 0 ? [{ id: 'here', at, counts, what }] : [],
  }
}
