import { useComputedColorScheme } from '@mantine/core'
import {
  type CSSProperties,
  memo,
  type PointerEvent,
  type RefObject,
  useEffect,
  useRef,
} from 'react'
import type { KeptFeatures } from '../../core/beats/kept'
import type { Selection } from '../../core/song/correct'
import { linesOf, placeWords, type SongLine } from '../../core/song/lines'
import { wordOn } from '../../core/song/marks'
import { isSilent, placeIn, type Section, type Song, sureAt } from '../../core/song/song'
import { drag } from '../parts/drag'
import { CountGrid, CountLine, columnsOf, countId, countUnder } from './CountGrid'
import { drawHeat } from './heat'
import classes from './song.module.css'

interface LinesProps {
  readonly song: Song
  readonly most: number
  readonly heat: KeptFeatures | undefined
  readonly selection: Selection
  /** With `isMore` the count a selection began at goes on being its end. */
  readonly onSelect: (at: number, isMore: boolean) => void
  readonly onSection: (section: Section) => void
  readonly onDrag: (at: number, ms: number) => void
  readonly grid: RefObject<HTMLDivElement | null>
}

/** What a count goes on by where nobody knows how long it is, in milliseconds. */
const USUAL_GAP = 500

/** A song like text: a line 32 counts or fewer, each section from a line of its own, equal ones one under the other. */
export function SongLines(props: LinesProps) {
  const { song, most, heat, selection, grid } = props
  const latest = useRef(props)
  latest.current = props
  const hands = useRef({
    press(event: PointerEvent<HTMLDivElement>) {
      const at = countUnder(event.target)
      if (at === undefined || event.button !== 0) return
      latest.current.onSelect(at, event.shiftKey)
      drag(
        event,
        () => ({
          move({ clientX, clientY }) {
            const over = countUnder(document.elementFromPoint(clientX, clientY))
            if (over !== undefined) latest.current.onSelect(over, true)
          },
          drop: () => {},
          cancel: () => {},
        }),
        { least: 6 },
      )
    },
    section: (section: Section) => latest.current.onSection(section),
    grip(event: PointerEvent<HTMLSpanElement>, at: number) {
      event.stopPropagation()
      const cell = event.currentTarget.parentElement as HTMLElement
      const { ms } = latest.current.song.counts
      const own = ms[at] as number
      const gap = (ms[at + 1] ?? own + USUAL_GAP) - own
      const from = event.clientX
      let to = own
      drag(
        event,
        () => ({
          move({ clientX }) {
            to = own + ((clientX - from) / cell.offsetWidth) * gap
            cell.style.setProperty('--pulled', `${clientX - from}px`)
          },
          drop() {
            cell.style.removeProperty('--pulled')
            latest.current.onDrag(at, to)
          },
          cancel: () => cell.style.removeProperty('--pulled'),
        }),
        { least: 2, atOnce: true },
      )
    },
  }).current
  return (
    <CountGrid
      label="Counts of the song"
      at={selection.from}
      most={most}
      grid={grid}
      onPointerDown={hands.press}
    >
      {linesOf(song, most).map((line) => (
        <Line
          key={line.from}
          {...line}
          song={song}
          most={most}
          heat={heat}
          selected={inLine(selection, line)}
          onSection={hands.section}
          onGrip={hands.grip}
        />
      ))}
    </CountGrid>
  )
}

/** What of a selection is in a line, as text so that lines it does not touch are not drawn again. */
const inLine = ({ from, to }: Selection, line: SongLine): string =>
  to <= line.from || from >= line.to ? '' : `${from} ${to}`

const Line = memo(function Line({
  song,
  most,
  heat,
  selected,
  onSection,
  onGrip,
  ...line
}: SongLine & {
  readonly song: Song
  readonly most: number
  readonly heat: KeptFeatures | undefined
  readonly selected: string
  readonly onSection: (section: Section) => void
  readonly onGrip: (event: PointerEvent<HTMLSpanElement>, at: number) => void
}) {
  const canvas = useRef<HTMLCanvasElement>(null)
  const scheme = useComputedColorScheme('light')
  const { from, to, section } = line
  useEffect(() => {
    const shown = canvas.current
    if (!shown || !heat) return
    shown.dataset.scheme = scheme
    // Drawn again in the colours of the evening, and as wide as it has become.
    const draw = () => drawHeat(shown, heat, song, { from, to })
    draw()
    const watch = new ResizeObserver(draw)
    watch.observe(shown)
    return () => watch.disconnect()
  }, [heat, song, from, to, scheme])
  const [first, last] = selected.split(' ').map(Number) as [number, number]
  return (
    <CountLine
      line={line}
      most={most}
      before={
        section && (
          <button
            type="button"
            className={classes.section}
            data-found={section.found === true}
            data-energy={section.energy}
            onClick={() => onSection(section)}
          >
            {section.label}
          </button>
        )
      }
    >
      <div className={classes.heat} style={columnsOf(line, from, to - from)} aria-hidden>
        <canvas ref={canvas} />
      </div>
      {Array.from({ length: to - from }, (_, i) => from + i).map((at) => (
        <Count
          key={at}
          song={song}
          at={at}
          style={columnsOf(line, at, 1)}
          isSelected={selected !== '' && at >= first && at < last}
          hasGrip={selected !== '' && at === first && last === first + 1}
          onGrip={onGrip}
        />
      ))}
    </CountLine>
  )
})

function Count({
  song,
  at,
  style,
  isSelected,
  hasGrip,
  onGrip,
}: {
  readonly song: Song
  readonly at: number
  readonly style: CSSProperties
  readonly isSelected: boolean
  readonly hasGrip: boolean
  readonly onGrip: (event: PointerEvent<HTMLSpanElement>, at: number) => void
}) {
  const { counts, stops } = song
  const { count } = placeIn(song, at)
  const isFixed = counts.fixed.includes(at)
  const isOff = isSilent(counts, at)
  const sure = sureAt(counts, at)
  const isAnew = counts.anew.includes(at)
  const isOne = counts.ones.some((one) => one.at === at)
  const stop = stops.find((one) => one.at === at)
  const word = wordOn(song, at)
  const said = [
    placeWords(song, at),
    isOff && 'not counted',
    isFixed && 'set by hand',
    sure !== 'sure' && !isOff && sure,
    isAnew && 'may begin anew here',
    stop && 'playing stops here',
    word,
  ].filter(Boolean)
  return (
    // biome-ignore lint/a11y/useFocusableInteractive: the grid has the focus
    <div
      id={countId(at)}
      className={classes.count}
      role="gridcell"
      aria-label={said.join(', ')}
      aria-selected={isSelected}
      data-at={at}
      data-one={count === 1}
      data-anew={isAnew}
      data-begins={isOne}
      data-fixed={isFixed}
      data-silent={isOff}
      data-sure={sure}
      data-stop={stop !== undefined}
      style={style}
    >
      {isOff ? '' : count < 1 ? '·' : count}
      {word !== '' && <span className={classes.word}>{word}</span>}
      {hasGrip && (
        <span
          className={classes.grip}
          data-grip
          aria-hidden
          onPointerDown={(event) => onGrip(event, at)}
        />
      )}
    </div>
  )
}
