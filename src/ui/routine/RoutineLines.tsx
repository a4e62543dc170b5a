import { memo, useEffect } from 'react'
import type { Combination } from '../../core/combination/combination'
import { gapsIn } from '../../core/routine/fit'
import { endOfPiece, type Piece, type Routine } from '../../core/routine/routine'
import { REST_WORDS } from '../../core/routine/words'
import { linesOf, placeWords, type SongLine } from '../../core/song/lines'
import { placeIn, type Song } from '../../core/song/song'
import map from '../song/song.module.css'
import classes from './routine.module.css'

const COUNTS_IN_LINE = 32

export const countId = (at: number): string => `song-count-${at}`

/** The song like text, and what is laid on it: equal sections stand one under the other. */
export function RoutineLines({
  routine,
  song,
  combinations,
  at,
  piece,
  onSelect,
}: {
  readonly routine: Routine
  readonly song: Song
  readonly combinations: readonly Combination[]
  /** The selected count, and the piece that lies there. */
  readonly at: number
  readonly piece: Piece | undefined
  readonly onSelect: (at: number) => void
}) {
  const gaps = gapsIn(routine, song)
  useEffect(() => {
    document.getElementById(countId(at))?.scrollIntoView({ block: 'nearest' })
  }, [at])
  return (
    <div
      className={map.lines}
      role="grid"
      aria-label="The song and what is laid on it"
      aria-activedescendant={countId(at)}
      tabIndex={0}
      onPointerDown={({ target }) => {
        const cell = target instanceof Element ? target.closest<HTMLElement>('[data-at]') : null
        if (cell) onSelect(Number(cell.dataset.at))
      }}
    >
      {linesOf(song, COUNTS_IN_LINE).map((line) => (
        <Line
          key={line.from}
          {...line}
          song={song}
          pieces={routine.pieces.filter((one) => one.at < line.to && endOfPiece(one) > line.from)}
          gaps={gaps.filter((gap) => gap.at < line.to && gap.at + gap.counts > line.from)}
          combinations={combinations}
          selected={at >= line.from && at < line.to ? at : undefined}
          piece={piece}
        />
      ))}
    </div>
  )
}

const Line = memo(function Line({
  song,
  from,
  to,
  section,
  indent,
  pieces,
  gaps,
  combinations,
  selected,
  piece,
}: SongLine & {
  readonly song: Song
  readonly pieces: readonly Piece[]
  readonly gaps: readonly { readonly at: number; readonly counts: number }[]
  readonly combinations: readonly Combination[]
  readonly selected: number | undefined
  readonly piece: Piece | undefined
}) {
  const columnOf = (at: number) => indent + 1 + at - from
  /** Where a stretch stands in this line. */
  const within = (at: number, counts: number) => {
    const [begin, end] = [Math.max(from, at), Math.min(to, at + counts)]
    return { gridColumn: `${columnOf(begin)} / span ${end - begin}` }
  }
  return (
    // biome-ignore lint/a11y/useFocusableInteractive: the grid has the focus
    <div className={map.line} role="row" data-line={from} data-to={to}>
      {/* biome-ignore lint/a11y/useFocusableInteractive: the grid has the focus */}
      <div className={classes.label} role="rowheader" data-energy={section?.energy}>
        {section?.label}
      </div>
      <div
        className={map.counts}
        role="presentation"
        style={{
          gridTemplateColumns: `repeat(${Math.max(COUNTS_IN_LINE, to - from + indent)}, minmax(0, 1fr))`,
        }}
      >
        {gaps.map((gap) => (
          <div key={gap.at} className={classes.gap} style={within(gap.at, gap.counts)} aria-hidden>
            {gap.at >= from && gap.counts}
          </div>
        ))}
        {pieces.map((one) => (
          <div
            key={one.id}
            className={classes.piece}
            data-kind={one.what.kind}
            data-hue={hueOf(one, combinations)}
            data-selected={one.id === piece?.id}
            data-begins={one.at >= from}
            data-ends={endOfPiece(one) <= to}
            style={within(one.at, one.counts)}
            aria-hidden
          >
            <span>{one.at >= from ? nameOf(one, combinations) : ''}</span>
          </div>
        ))}
        {Array.from({ length: to - from }, (_, i) => from + i).map((at) => {
          const { count } = placeIn(song, at)
          const over = pieces.find((one) => at >= one.at && at < endOfPiece(one))
          return (
            // biome-ignore lint/a11y/useFocusableInteractive: the grid has the focus
            <div
              key={at}
              id={countId(at)}
              className={classes.count}
              role="gridcell"
              aria-selected={at === selected}
              aria-label={`${placeWords(song, at)}, ${over ? nameOf(over, combinations) : 'free'}`}
              data-at={at}
              data-one={count === 1}
              style={{ gridColumn: columnOf(at) }}
            >
              {count === 1 ? '1' : count < 1 ? '·' : ''}
            </div>
          )
        })}
        <span className={map.head} data-head aria-hidden />
      </div>
    </div>
  )
})

/** What a piece is called: its combination and its side, or how one rests. */
export function nameOf({ what }: Piece, combinations: readonly Combination[]): string {
  if (what.kind === 'rest') return what.words || REST_WORDS[what.how]
  const title = combinations.find(({ id }) => id === what.combination)?.title
  return `${title ?? 'A combination that is gone'}, ${what.side}`
}

const HUES = 5
/** Pieces of one combination look alike; what they are is written on them. */
const hueOf = ({ what }: Piece, combinations: readonly Combination[]): number =>
  what.kind === 'rest' ? 0 : combinations.findIndex(({ id }) => id === what.combination) % HUES
