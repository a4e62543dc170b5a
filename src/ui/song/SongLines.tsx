import { memo, type PointerEvent, type RefObject, useEffect, useRef } from 'react'
import { linesOf, placeWords, type SongLine } from '../../core/song/lines'
import { placeIn, type Section, type Song, sureAt } from '../../core/song/song'
import { drag } from '../parts/drag'
import { sureWord } from '../songs/songWords'
import { drawHeat, type Heat } from './heat'
import classes from './song.module.css'
import type { Counts } from './useSongPlay'

interface LinesProps {
  readonly song: Song
  readonly most: number
  readonly heat: Heat | undefined
  readonly selection: Counts
  /** The count a selection began at goes on being its end. */
  readonly onSelect: (at: number, isMore: boolean) => void
  readonly onSection: (section: Section) => void
  readonly onDrag: (at: number, ms: number) => void
  readonly screen: RefObject<HTMLDivElement | null>
}

const cellId = (at: number): string => `count-${at}`

/** A song like text: a line 32 counts or fewer, each section from a line of its own, equal ones one under the other. */
export function SongLines(props: LinesProps) {
  const { song, most, heat, selection, screen, onSelect } = props
  const lines = linesOf(song, most)
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
      const gap = ((ms[at + 1] ?? ms[at]) as number) - (ms[at] as number) || 500
      const from = event.clientX
      const msAt = (clientX: number) =>
        (ms[at] as number) + ((clientX - from) / cell.offsetWidth) * gap
      let to = ms[at] as number
      drag(
        event,
        () => ({
          move({ clientX }) {
            to = msAt(clientX)
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
  useEffect(() => {
    document.getElementById(cellId(selection.from))?.scrollIntoView({ block: 'nearest' })
  }, [selection.from])
  return (
    <div
      ref={screen}
      className={classes.lines}
      role="grid"
      aria-label="Counts of the song"
      aria-activedescendant={cellId(selection.from)}
      tabIndex={0}
      onPointerDown={hands.press}
      data-most={most}
      onFocus={() => onSelect(selection.from, true)}
    >
      {lines.map((line) => (
        <Line
          key={line.from}
          {...line}
          song={song}
          most={most}
          heat={heat}
          from={line.from}
          selected={inLine(selection, line)}
          onSection={hands.section}
          onGrip={hands.grip}
        />
      ))}
    </div>
  )
}

/** What of a selection is in a line, as text so that lines it does not touch are not drawn again. */
const inLine = ({ from, to }: Counts, line: SongLine): string =>
  to <= line.from || from >= line.to ? '' : `${from} ${to}`

const countUnder = (target: EventTarget | null): number | undefined => {
  const cell = target instanceof Element ? target.closest<HTMLElement>('[data-at]') : null
  return cell ? Number(cell.dataset.at) : undefined
}

const Line = memo(function Line({
  song,
  from,
  to,
  section,
  indent,
  most,
  heat,
  selected,
  onSection,
  onGrip,
}: SongLine & {
  readonly song: Song
  readonly most: number
  readonly heat: Heat | undefined
  readonly selected: string
  readonly onSection: (section: Section) => void
  readonly onGrip: (event: PointerEvent<HTMLSpanElement>, at: number) => void
}) {
  const canvas = useRef<HTMLCanvasElement>(null)
  const { counts, media } = song
  useEffect(() => {
    if (canvas.current && heat) drawHeat(canvas.current, heat, counts.ms, media.shift, from, to)
  }, [heat, counts.ms, media.shift, from, to])
  const [first, last] = selected.split(' ').map(Number) as [number, number]
  return (
    // biome-ignore lint/a11y/useFocusableInteractive: the grid has the focus
    <div className={classes.line} role="row" data-line={from} data-to={to}>
      {/* biome-ignore lint/a11y/useFocusableInteractive: the grid has the focus */}
      <div className={classes.gutter} role="rowheader">
        {section && (
          <button
            type="button"
            className={classes.section}
            data-found={section.found === true}
            data-energy={section.energy}
            onClick={() => onSection(section)}
          >
            {section.label}
          </button>
        )}
      </div>
      <div
        className={classes.counts}
        role="presentation"
        style={{
          gridTemplateColumns: `repeat(${Math.max(most, to - from + indent)}, minmax(0, 1fr))`,
        }}
      >
        <div
          className={classes.heat}
          style={{ gridColumn: `${indent + 1} / span ${to - from}` }}
          aria-hidden
        >
          <canvas ref={canvas} />
        </div>
        {Array.from({ length: to - from }, (_, i) => from + i).map((at, i) => (
          <Count
            key={at}
            song={song}
            at={at}
            column={indent + i + 1}
            isSelected={selected !== '' && at >= first && at < last}
            hasGrip={selected !== '' && at === first && last === first + 1}
            onGrip={onGrip}
          />
        ))}
        <span className={classes.head} aria-hidden />
      </div>
    </div>
  )
})

function Count({
  song,
  at,
  column,
  isSelected,
  hasGrip,
  onGrip,
}: {
  readonly song: Song
  readonly at: number
  readonly column: number
  readonly isSelected: boolean
  readonly hasGrip: boolean
  readonly onGrip: (event: PointerEvent<HTMLSpanElement>, at: number) => void
}) {
  const { counts, stops, words } = song
  const { count } = placeIn(song, at)
  const isFixed = counts.fixed.includes(at)
  const isSilent = counts.silent.some((one) => at >= one.from && at < one.to)
  const sure = sureWord(sureAt(counts, at))
  const isAnew = counts.anew.includes(at)
  const isOne = counts.ones.some((one) => one.at === at)
  const stop = stops.find((one) => one.at === at)
  const tick = 12 * (at - (counts.ones[0]?.at ?? 0))
  const word = words.find((one) => one.at === tick)
  const said = [
    placeWords(song, at),
    isSilent && 'not counted',
    isFixed && 'set by hand',
    sure !== 'sure' && !isSilent && sure,
    isAnew && 'may begin anew here',
    stop && 'playing stops here',
    word?.text,
  ].filter(Boolean)
  return (
    // biome-ignore lint/a11y/useFocusableInteractive: the grid has the focus
    <div
      id={cellId(at)}
      className={classes.count}
      role="gridcell"
      aria-label={said.join(', ')}
      aria-selected={isSelected}
      data-at={at}
      data-one={count === 1}
      data-anew={isAnew}
      data-begins={isOne}
      data-fixed={isFixed}
      data-silent={isSilent}
      data-sure={sure}
      data-stop={stop !== undefined}
      style={{ gridColumn: column }}
    >
      {isSilent ? '' : count < 1 ? '·' : count}
      {word && <span className={classes.word}>{word.text}</span>}
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
