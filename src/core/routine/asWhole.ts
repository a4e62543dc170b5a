import type { Side } from '../body/side'
import type { Combination } from '../combination/combination'
import { type Song, secondsOfCount } from '../song/song'
import { TICKS_PER_COUNT } from '../time/time'
import { countsFrom } from './room'
import type { Routine } from './routine'
import { settled } from './settled'

/** A combination as a song has it: from its first count to its last, at its own pace. */
export interface WholeInSong {
  /** Which piece of which routine. */
  readonly id: string
  readonly song: Song
  /** The place it begins at, as a count of the song. */
  readonly at: number
  readonly side: Side
  /** When its ticks are heard, in seconds of the song, a count each. */
  readonly knots: readonly (readonly [tick: number, second: number])[]
}

/** Where a combination lies whole on songs; parts of one, and what is danced twice as fast, are left out. */
export function wholeInSongs(
  combination: Combination,
  routines: readonly Routine[],
  songs: readonly Song[],
): readonly WholeInSong[] {
  const counts = countsFrom(combination)
  return routines.flatMap((routine) => {
    const song = songs.find(({ id }) => id === routine.song)
    if (!song) return []
    return settled(routine, song).pieces.flatMap(({ id, at, counts: own, what }) =>
      what.kind === 'dance' &&
      what.combination === combination.id &&
      what.from === 0 &&
      what.pace === undefined &&
      own >= counts &&
      at + counts <= song.counts.ms.length
        ? [
            {
              id: `${routine.id} ${id}`,
              song,
              at,
              side: what.side,
              knots: Array.from({ length: counts + 1 }, (_, i): [number, number] => [
                i * TICKS_PER_COUNT,
                Number(secondsOfCount(song, at + i).toFixed(4)),
              ]),
            },
          ]
        : [],
    )
  })
}
