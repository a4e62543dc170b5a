import type { Drill } from '../../core/plan/drill'
import { currentOf, type PartToDance } from '../../core/routine/drillParts'
import classes from './class.module.css'

/** Where in its song a drill is danced from: one touch goes there. */
export function SongParts({
  parts,
  drill,
  onFrom,
  stops: { hasStops, isStopping, said, toggle },
}: {
  readonly parts: readonly PartToDance[]
  readonly drill: Drill
  readonly onFrom: (ms: number) => void
  /** Whether it waits at the stops of its song. */
  readonly stops: {
    readonly hasStops: boolean
    readonly isStopping: boolean
    readonly said: string
    readonly toggle: () => void
  }
}) {
  if (!drill.song || (parts.length < 2 && !hasStops)) return null
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
      {hasStops && (
        <button type="button" aria-pressed={isStopping} onClick={toggle}>
          waits at stops
        </button>
      )}
      <span role="status">{said}</span>
    </nav>
  )
}
