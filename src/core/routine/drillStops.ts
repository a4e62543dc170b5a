import type { Drill } from '../plan/drill'
import type { Song } from '../song/song'
import { beforeStop, phraseBegins } from '../song/stretch'
import { songOf } from './drillParts'
import { momentOf, placesIn } from './settled'
import type { LaidSongs } from './withSong'

/** Where a drill goes on in its song, in milliseconds, and the last stop that is behind it. */
export interface SongPlaceLeft {
  readonly from: number
  readonly after: number
}

/** A drill as far as it is danced without a stop. */
interface UntilStop {
  readonly drill: Drill
  /** Where it is to stop, and where it goes on from there; absent where it is danced to its end. */
  readonly stop?: { readonly label: string; readonly left: SongPlaceLeft }
}

/** The stops of its song a drill comes to, in milliseconds. */
export const stopsOf = (
  { song: danced }: Pick<Drill, 'song'>,
  songs: LaidSongs,
): readonly { readonly ms: number; readonly label: string }[] => {
  const song = songOf(danced, songs)
  if (!song || !danced) return []
  return song.stops
    .map(({ at, label }) => ({ ms: momentOf(song, at), label }))
    .filter(({ ms }) => ms > danced.from && ms < danced.to)
    .sort((a, b) => a.ms - b.ms)
}

/**
 * A drill with its song from where it is left, as far as the next stop that is not behind it.
 * @param isStopping whether it is to stop at all
 */
export function untilStop(
  drill: Drill,
  songs: LaidSongs,
  left: SongPlaceLeft | undefined,
  isStopping: boolean,
): UntilStop {
  const song = songOf(drill.song, songs)
  if (!song || !drill.song) return { drill }
  const from = left?.from ?? drill.song.from
  const begun = { ...drill, song: { ...drill.song, from } }
  const behind = left?.after ?? from
  const next = isStopping ? stopsOf(drill, songs).find(({ ms }) => ms > behind) : undefined
  // What begins within the song, or ends there, is one round.
  if (!next) return { drill: left ? { ...begun, repeats: 1 } : begun }
  const { ms, label } = next
  return {
    drill: { ...begun, song: { ...begun.song, to: ms }, repeats: 1 },
    stop: { label, left: { from: goesOnAt(drill, song, ms, beforeStop), after: ms } },
  }
}

/**
 * Where a drill goes on that was halted: where that phrase begins. Undefined where it had not begun.
 * @param second of its song, as it is heard
 */
export function leftAt(drill: Drill, songs: LaidSongs, second: number): SongPlaceLeft | undefined {
  const song = songOf(drill.song, songs)
  if (!song || !drill.song) return undefined
  const ms = 1000 * second - song.media.shift
  if (ms <= drill.song.from) return undefined
  return { from: goesOnAt(drill, song, ms, phraseBegins), after: ms }
}

const goesOnAt = (
  { song: danced }: Drill,
  song: Song,
  ms: number,
  begins: (song: Song, at: number) => number,
): number =>
  Math.max(danced?.from ?? 0, momentOf(song, Math.max(0, begins(song, placesIn(song)(ms)))))
