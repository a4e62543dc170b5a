import type { Drill } from '../../core/plan/drill'
import { partsOf } from '../../core/song/parts'
import type { ClassMaterials } from '../planning/usePlanning'
import classes from './class.module.css'

/** A part of the song that is danced to, by the moment it begins at, in milliseconds. */
interface PartToDance {
  readonly label: string
  readonly ms: number
}

/** The parts of its song a drill can be danced from: before its end. */
export function partsToDance(
  { song: danced }: Pick<Drill, 'song'>,
  { laidSongs: { routines, songs } }: ClassMaterials,
): readonly PartToDance[] {
  const routine = routines.find(({ id }) => id === danced?.routine)
  const song = songs.find(({ id }) => id === routine?.song)
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
const currentOf = (parts: readonly PartToDance[], from: number): PartToDance | undefined =>
  parts.findLast(({ ms }) => ms <= from) ?? parts[0]

/** The part behind the one it is danced from; the first one behind the last. */
export function nextPart(
  parts: readonly PartToDance[],
  { song }: Pick<Drill, 'song'>,
): PartToDance | undefined {
  const current = song && currentOf(parts, song.from)
  return current && (parts[parts.indexOf(current) + 1] ?? parts[0])
}

/** Where in its song a drill is danced from: one touch goes there. */
export function SongParts({
  parts,
  drill,
  onFrom,
}: {
  readonly parts: readonly PartToDance[]
  readonly drill: Drill
  readonly onFrom: (ms: number) => void
}) {
  if (!drill.song || parts.length < 2) return null
  const current = currentOf(parts, drill.song.from)
  return (
    <nav className={classes.parts} aria-label="Danced from">
      <span>from</span>
      {parts.map((part) => (
        <button
          key={part.ms}
          type="button"
          aria-pressed={part === current}
          onClick={() => onFrom(part.ms)}
        >
          {part.label}
        </button>
      ))}
    </nav>
  )
}
