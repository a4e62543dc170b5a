import { partMark } from '../../core/house/partMarks'
import classes from './partBadge.module.css'

interface PartBadgeProps {
  /** Its place among the parts, from 0. */
  readonly index: number
  readonly name: string
}

/** A part as it is known everywhere: its shape in its colour, and its name. */
export function PartBadge({ index, name }: PartBadgeProps) {
  return (
    <span className={classes.badge} style={partTint(index)}>
      <svg viewBox="0 0 12 12" aria-hidden className={classes.mark}>
        <path d={partMark(index)} />
      </svg>
      {name}
    </span>
  )
}

/** The colour of a part, for whatever is drawn in it. */
export const partTint = (index: number): Record<string, string> => ({
  '--part': `var(--part-${(index % 8) + 1})`,
})
