import { memo, type RefObject, useMemo } from 'react'
import type { Combination } from '../../core/combination/combination'
import { type Gap, gapsIn } from '../../core/routine/fit'
import { endOfPiece, type Piece, type Routine } from '../../core/routine/routine'
import { nameOf } from '../../core/routine/words'
import { linesOf, placeWords, type SongLine } from '../../core/song/lines'
import { placeIn, type Song } from '../../core/song/song'
import { CountGrid, CountLine, columnsOf, countId, countUnder } from '../song/CountGrid'
import classes from './routine.module.css'

const COUNTS_IN_LINE = 32

/** A line of the song with all that lies on it. */
interface LaidLine extends SongLine {
  readonly pieces: readonly Piece[]
  readonly gaps: readonly Gap[]
}

/** The song like text, and what is laid on it: equal sections stand one under the other. */
export function RoutineLines({
  routine,
  song,
  combinations,
  at,
  grid,
  onSelect,
}: {
  readonly routine: Routine
  readonly song: Song
  readonly combinations: readonly Combination[]
  /** The selected count. */
  readonly at: number
  readonly grid: RefObject<HTMLDivElement | null>
  readonly onSelect: (at: number) => void
}) {
  const lines = useMemo((): readonly LaidLine[] => {
    const gaps = gapsIn(routine, song)
    return linesOf(song, COUNTS_IN_LINE).map((line) => ({
      ...line,
      pieces: routine.pieces.filter((one) => one.at < line.to && endOfPiece(one) > line.from),
      gaps: gaps.filter((gap) => gap.at < line.to && gap.at + gap.counts > line.from),
    }))
  }, [routine, song])
  return (
    <CountGrid
      label="The song and what is laid on it"
      at={at}
      most={COUNTS_IN_LINE}
      grid={grid}
      onPointerDown={({ target }) => {
        const under = countUnder(target)
        if (under !== undefined) onSelect(under)
      }}
    >
      {lines.map((line) => (
        <Line
          key={line.from}
          line={line}
          song={song}
          combinations={combinations}
          selected={at >= line.from && at < line.to ? at : undefined}
          selectedPiece={line.pieces.find((one) => at >= one.at && at < endOfPiece(one))?.id}
        />
      ))}
    </CountGrid>
  )
}

const Line = memo(function Line({
  line,
  song,
  combinations,
  selected,
  selectedPiece,
}: {
  readonly line: LaidLine
  readonly song: Song
  readonly combinations: readonly Combination[]
  readonly selected: number | undefined
  readonly selectedPiece: string | undefined
}) {
  const { from, to, section, pieces, gaps } = line
  return (
    <CountLine
      line={line}
      most={COUNTS_IN_LINE}
      before={<span className={classes.label}>{section?.label}</span>}
    >
      {gaps.map(({ at, counts }) => (
        <div key={at} className={classes.gap} style={columnsOf(line, at, counts)} aria-hidden>
          {at >= from && counts}
        </div>
      ))}
      {pieces.map((one) => (
        <div
          key={one.id}
          className={classes.piece}
          data-kind={one.what.kind}
          data-hue={hueOf(one, combinations)}
          data-selected={one.id === selectedPiece}
          data-begins={one.at >= from}
          data-ends={endOfPiece(one) <= to}
          style={columnsOf(line, one.at, one.counts)}
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
            style={columnsOf(line, at, 1)}
          >
            {count === 1 ? '1' : count < 1 ? '·' : ''}
          </div>
        )
      })}
    </CountLine>
  )
})

const HUES = 5
/** Pieces of one combination look alike; what they are is written on them. */
const hueOf = ({ what }: Piece, combinations: readonly Combination[]): number =>
  what.kind === 'rest' ? 0 : combinations.findIndex(({ id }) => id === what.combination) % HUES
