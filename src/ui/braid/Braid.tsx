import { useElementSize } from '@mantine/hooks'
import { type PointerEvent, type ReactNode, useRef } from 'react'
import { nameOf } from '../../core/combination/names'
import { Layer } from '../../core/moves/move'
import { layerWord, vocabulary } from '../../core/moves/vocabulary'
import { HALF_COUNT, labelOfSpan, slotAt, tick } from '../../core/time/time'
import {
  documentOf,
  moveSelected,
  type Session,
  select,
  selectedEvents,
  stretchSelected,
} from '../stores/session'
import { useStore } from '../stores/store'
import { type Deck, press } from '../studio/shortcuts'
import classes from './braid.module.css'
import { laneUnder, SIZE, tickUnder } from './geometry'
import { type Line, linesOf } from './lines'
import { PassLine } from './PassLine'
import { Placer } from './Placer'
import { RibbonInk } from './Ribbon'

interface BraidProps {
  readonly session: Session
  readonly deck: Deck
  readonly newId: () => string
  /** What stands in the margin of a line: the phrase's own menu. */
  readonly margin: (line: Line) => ReactNode
}

interface Drag {
  readonly x: number
  readonly stretches: boolean
  moved: number
}

const EDGE_PX = 9

/** The braid: phrases run down the page like lines of text, the body upright inside each. */
export function Braid({ session, deck, newId, margin }: BraidProps) {
  const { ref, width } = useElementSize()
  const box = useRef<HTMLDivElement>(null)
  const drag = useRef<Drag | null>(null)
  const state = useStore(session, (s) => s)
  const document = documentOf(state)
  const { selection } = state
  const known = useRef<readonly Line[]>([])
  const lines = linesOf(state, Math.max(560, width), known.current)
  known.current = lines
  const selected = selectedEvents(state)
  const selectedIds = selected.map(({ id }) => id).join(' ')
  const showsBoth = state.shown === 'both'

  const pick = (event: PointerEvent<HTMLDivElement>, { pass, side, shape }: Line) => {
    const target = event.target instanceof Element ? event.target : null
    const frame = event.currentTarget.getBoundingClientRect()
    const mark = target?.closest('[data-event]')
    const picked = pass.events.find(({ id }) => id === mark?.getAttribute('data-event'))
    box.current?.focus({ preventScroll: true })
    if (picked) {
      const { layer, at, length, id } = picked
      select(session, { side, pass: pass.index, layer, at, length, event: id })
      const right = shape.x(at + length) + frame.left
      drag.current = {
        x: event.clientX,
        stretches: right - event.clientX < EDGE_PX && layer !== 'feet',
        moved: 0,
      }
      event.currentTarget.setPointerCapture(event.pointerId)
      return
    }
    const lane = Layer.safeParse(laneUnder(shape, event.clientY - frame.top))
    if (!lane.success) return
    const at = tick(tickUnder(shape, event.clientX - frame.left, pass.length, HALF_COUNT))
    select(session, { side, pass: pass.index, layer: lane.data, at, length: slotAt(at) })
  }

  const dragOn = (event: PointerEvent<HTMLDivElement>, { shape }: Line) => {
    const now = drag.current
    if (!now) return
    const half = shape.x(HALF_COUNT) - shape.x(0)
    const halves = Math.round((event.clientX - now.x) / half)
    const by = (halves - now.moved) * HALF_COUNT
    if (by === 0) return
    now.moved = halves
    const mark = `drag ${event.pointerId} ${now.x}`
    if (now.stretches) stretchSelected(session, by, mark)
    else moveSelected(session, by, mark)
  }

  const here = lines.find(
    ({ pass, side }) => pass.index === selection.pass && side === selection.side,
  )
  const hereIndex = here ? lines.indexOf(here) : -1
  const top = lines
    .slice(0, Math.max(0, hereIndex))
    .reduce((sum, { shape }) => sum + shape.height, 0)
  const lane = here?.shape.lanes.find(({ layer }) => layer === selection.layer)

  return (
    <div className={classes.braid} ref={ref} data-braid>
      <svg width={0} height={0} aria-hidden className="only-read">
        <RibbonInk top={SIZE.leftFoot} bottom={SIZE.rightFoot} />
      </svg>
      <div
        ref={box}
        role="application"
        aria-roledescription="braid"
        aria-label={`${document.title}: arrow keys go over counts and layers, letters find a move`}
        aria-describedby="braid-place"
        tabIndex={0}
        className={classes.braid}
        onKeyDown={(event) => {
          if (event.target !== event.currentTarget) return
          const { key, altKey, shiftKey } = event
          const pressed = {
            key,
            alt: altKey,
            shift: shiftKey,
            ctrl: event.ctrlKey || event.metaKey,
          }
          if (press(session, pressed, deck)) event.preventDefault()
        }}
      >
        {lines.map((line) => {
          const { pass, side } = line
          const isHere = line === here
          return (
            // biome-ignore lint/a11y/noStaticElementInteractions: the braid around it has the keys
            <div
              key={`${side}${pass.index}`}
              className={classes.row}
              data-alternate={showsBoth && side !== document.lead}
              onPointerDown={(event) => {
                if (event.target instanceof Element && event.target.closest('button')) return
                pick(event, line)
              }}
              onPointerMove={(event) => dragOn(event, line)}
              onPointerUp={() => {
                drag.current = null
              }}
              onDoubleClick={() => session.set((s) => ({ ...s, query: '' }))}
            >
              <div className={classes.head}>{margin(line)}</div>
              <PassLine
                line={line}
                selection={isHere ? selection : undefined}
                selectedIds={isHere ? selectedIds : ''}
              />
            </div>
          )
        })}
        {here && lane && state.query !== undefined && (
          <Placer
            session={session}
            newId={newId}
            left={Math.min(here.shape.x(selection.at), here.shape.width - 240)}
            top={top + lane.top + lane.height + 2}
            onClose={() => {
              session.set((s) => ({ ...s, query: undefined }))
              box.current?.focus({ preventScroll: true })
            }}
          />
        )}
      </div>
      <p id="braid-place" className="only-read" aria-live="polite">
        {`${here?.pass.phrase.name ?? ''}${labelOfSpan(selection)}, ${layerWord[selection.layer]}: ${
          selected.length === 0
            ? 'empty'
            : selected.map((event) => nameOf(event, vocabulary)).join(', ')
        }`}
      </p>
    </div>
  )
}
