import type { Drill } from '../plan/drill'
import { partsOf } from '../song/parts'
import type { Song } from '../song/song'
import type { LaidSongs } from './withSong'

/** The song a drill dances to. */
export const songOf = (danced: Drill['song'], { routines, songs }: LaidSongs): Song | undefined => {
  const routine = routines.find(({ id }) => id === danced?.routine)
  return songs.find(({ id }) => id === routine?.song)
}

/** A part of the song that is danced to, by the moment it begins at, in milliseconds. */
export interface PartToDance {
  readonly label: string
  readonly ms: number
}

/** The parts of its song a drill can be danced from: before its end. */
export function partsToDance(
  { song: danced }: Pick<Drill, 'song'>,
  songs: LaidSongs,
): readonly PartToDance[] {
  const song = songOf(danced, songs)
  if (!song || !danced) return []
  const parts = partsOf(song)
  return parts
    .map(({ label, from }, i) => {
      // A part that comes again has its number.
      const times = parts.slice(0, i + 1).filter((one) => one.label === label).length
      return { label: times > 1 ? `${label} ${times}` : label, ms: song.counts.ms[from] ?? 0 }
    })
    .filter(({ ms }) => ms < danced.to)
}

/** The part it is danced from: the last one that has begun by then. */
export const currentOf = (parts: readonly PartToDance[], from: number): PartToDance | undefined =>
  parts.findLast(({ ms }) => ms <= from) ?? parts[0]

/** The part behind the one it is danced from; the first one behind the last. */
export function nextPart(
  parts: readonly PartToDance[],
  { song }: Pick<Drill, 'song'>,
): PartToDance | undefined {
  const current = song && currentOf(parts, song.from)
  return current && (parts[parts.indexOf(current) + 1] ?? parts[0])
}
