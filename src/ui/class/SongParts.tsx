import type { Drill } from '../../core/plan/drill'
import { currentOf, type PartToDance } from '../../core/routine/drillParts'
import classes from './class.module.css'

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
