import type { ReactNode } from 'react'
import type { Spot } from './pads'
import classes from './placing.module.css'

interface PadProps<T> {
  /** What a screen reader calls it. */
  readonly label: string
  readonly spots: readonly Spot<T>[]
  readonly onPick: (value: T) => void
  readonly disabled?: boolean
  /** What lies under the spots: a floor, a body. */
  readonly children?: ReactNode
}

/** A small floor or body: each place is touched where it is. */
export function Pad<T extends string>({ label, spots, onPick, disabled, children }: PadProps<T>) {
  const columns = 1 + Math.max(...spots.map(({ column }) => column))
  return (
    <div
      className={classes.pad}
      role="group"
      aria-label={label}
      style={{ gridTemplateColumns: `repeat(${columns}, minmax(0, 1fr))` }}
    >
      {children}
      {spots.map(({ value, column, row, label: word, name }) => (
        <button
          key={value}
          type="button"
          aria-label={name}
          disabled={disabled}
          style={{ gridColumn: column + 1, gridRow: row + 1 }}
          onClick={() => onPick(value)}
        >
          {word}
        </button>
      ))}
    </div>
  )
}

/** The feet on the floor, toes up. */
export const FloorUnder = () => (
  <svg className={classes.under} viewBox="0 0 100 100" preserveAspectRatio="none" aria-hidden>
    <ellipse cx="50" cy="50" rx="46" ry="46" />
    <ellipse cx="50" cy="50" rx="24" ry="24" />
  </svg>
)

/** Half a body from behind, its middle at the edge: the other half is the image. */
export const BodyUnder = ({ isLeft }: { readonly isLeft: boolean }) => (
  <svg
    className={classes.under}
    viewBox="0 0 100 100"
    preserveAspectRatio="none"
    style={isLeft ? { transform: 'scaleX(-1)' } : undefined}
    aria-hidden
  >
    <path d="M0 3 C11 3 16 8 15 15 C14 20 9 23 7 25 L7 29 C16 30 30 31 33 38 C36 46 40 54 46 62 L41 66 C35 60 31 53 28 47 C29 56 22 60 23 67 C27 73 31 80 32 100 L0 100 Z" />
  </svg>
)

/** A head and its shoulders from behind. */
export const HeadUnder = () => (
  <svg className={classes.under} viewBox="0 0 100 100" preserveAspectRatio="none" aria-hidden>
    <path d="M50 8 C62 8 66 22 64 36 C63 46 58 52 56 56 L56 64 C70 66 84 70 88 84 L90 100 L10 100 L12 84 C16 70 30 66 44 64 L44 56 C42 52 37 46 36 36 C34 22 38 8 50 8 Z" />
  </svg>
)
