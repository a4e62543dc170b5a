import { type PointerEvent, type ReactNode, type RefObject, useEffect } from 'react'
import type { SongLine } from '../../core/song/lines'
import classes from './song.module.css'

export const countId = (at: number): string => `count-${at}`

/** The count under a pointer. */
export const countUnder = (target: EventTarget | null): number | undefined => {
  const cell = target instanceof Element ? target.closest<HTMLElement>('[data-at]') : null
  return cell ? Number(cell.dataset.at) : undefined
}

/** The counts of a song like text, in lines; one of them has the cursor. */
export function CountGrid({
  label,
  at,
  most,
  grid,
  onPointerDown,
  children,
}: {
  readonly label: string
  /** The count with the cursor. */
  readonly at: number
  /** Counts in a line. */
  readonly most: number
  readonly grid: RefObject<HTMLDivElement | null>
  readonly onPointerDown: (event: PointerEvent<HTMLDivElement>) => void
  readonly children: ReactNode
}) {
  useEffect(() => {
    document.getElementById(countId(at))?.scrollIntoView({ block: 'nearest' })
  }, [at])
  return (
    <div
      ref={grid}
      className={classes.lines}
      role="grid"
      aria-label={label}
      aria-activedescendant={countId(at)}
      tabIndex={0}
      onPointerDown={onPointerDown}
      data-most={most}
    >
      {children}
    </div>
  )
}

/** A line of it: what stands before it, and all that stands on its counts. */
export function CountLine({
  line: { from, to, indent },
  most,
  before,
  children,
}: {
  readonly line: Pick<SongLine, 'from' | 'to' | 'indent'>
  readonly most: number
  readonly before: ReactNode
  readonly children: ReactNode
}) {
  const columns = Math.max(most, to - from + indent)
  return (
    // biome-ignore lint/a11y/useFocusableInteractive: the grid has the focus
    <div className={classes.line} role="row">
      {/* biome-ignore lint/a11y/useFocusableInteractive: the grid has the focus */}
      <div className={classes.gutter} role="rowheader">
        {before}
      </div>
      <div
        className={classes.counts}
        role="presentation"
        style={{ gridTemplateColumns: `repeat(${columns}, minmax(0, 1fr))` }}
      >
        {children}
        <span className={classes.head} data-head aria-hidden />
      </div>
    </div>
  )
}

/** Where a stretch of counts stands in a line: as much of it as is there. */
export function columnsOf(
  { from, to, indent }: Pick<SongLine, 'from' | 'to' | 'indent'>,
  at: number,
  counts: number,
): { readonly gridColumn: string } {
  const [begin, end] = [Math.max(from, at), Math.min(to, at + counts)]
  return { gridColumn: `${indent + 1 + begin - from} / span ${end - begin}` }
}
