import { placeWords } from '../song/lines'
import { partsOf } from '../song/parts'
import { firstOne, type Song } from '../song/song'
import type { Routine } from './routine'

/** A count of a song from which something may be danced. */
interface Place {
  readonly at: number
  readonly label: string
}

/** Where a combination may be danced to a song: where it is laid first, then where its parts begin. */
export function placesFor(
  combination: string,
  song: Song,
  routines: readonly Routine[],
): readonly Place[] {
  const laid = routines
    .filter((routine) => routine.song === song.id)
    .flatMap(({ pieces }) => pieces)
    .flatMap(({ at, what }): readonly Place[] =>
      what.kind === 'dance' && what.combination === combination
        ? [{ at, label: `${placeWords(song, at)}, as it is laid` }]
        : [],
    )
  const begins = partsOf(song).map(({ from, label }): Place => ({ at: from, label }))
  const parts = begins.length > 0 ? begins : [{ at: firstOne(song.counts), label: 'From 1' }]
  return [...laid, ...parts.filter(({ at }) => laid.every((one) => one.at !== at))]
}
