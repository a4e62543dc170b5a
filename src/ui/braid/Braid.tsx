import { useElementSize, useMediaQuery } from '@mantine/hooks'
import { type PointerEvent, type ReactNode, useEffect, useMemo, useRef, useState } from 'react'
import { useStore } from 'zustand'
import { Layer } from '../../core/body/layers'
import { isLead, isSameDancing } from '../../core/combination/dancing'
import type { DancedEvent } from '../../core/combination/lengths'
import { nameOf, placeIn } from '../../core/combination/names'
import { pickupBefore } from '../../core/combination/passes'
import { onSide } from '../../core/combination/whatOf'
import * as edits from '../../core/edits/edits'
import { layerWord } from '../../core/moves/vocabulary'
import { HALF_COUNT, labelIn, labelOfSpan, QUARTER_COUNT, slotAt, tick } from '../../core/time/time'
import { type Dragged, drag, type Pointed } from '../parts/drag'
import { pressOf } from '../parts/keys'
import { partTint } from '../parts/PartBadge'
import type { KeyScope } from '../shortcuts/shortcut'
import { press } from '../shortcuts/shortcuts'
import { type Carried, carried } from '../stores/carried'
import { moveSelected, placeAtSelection, stretchSelected } from '../stores/editing'
import { extending, openPlacing } from '../stores/placing'
import { scrubbed } from '../stores/scrub'
import { change, pickBeside, type Session, select } from '../stores/session'
import {
  changedEvents,
  documentOf,
  drawnState,
  isFlipped,
  isLineOf,
  layersSelected,
  type Selection,
  type SessionState,
  selectedEvents,
  sideMeant,
  vocabularyOf,
} from '../stores/state'
import classes from './braid.module.css'
import { Ghost, type GhostBox } from './Ghost'
import { laneUnder, lineWidth, SIZE, tickUnder } from './geometry'
import { type Line, linesOf } from './lines'
import { type LineSelection, PassLine } from './PassLine'
import { Placer } from './Placer'
import { RibbonInk } from './Ribbon'
import { usePaperWidth } from './usePaperWidth'

interface BraidProps {
  readonly session: Session
  readonly deck: KeyScope
  readonly newId: () => string
  /** What stands in the margin of a line: the phrase's own menu. */
  readonly margin: (line: Line) => ReactNode
}

/** An event that is dragged. */
interface Drag {
  readonly kind: 'move' | 'stretch'
  readonly line: Line
  /** Where the pointer went down, in pixels. */
  readonly x: number
  readonly layer: Layer
  /** Of the event that is dragged. */
  readonly from: number
  readonly length: number
  /** Where it would land, in ticks from where it is; the line when it is another one. */
  by: number
  to: Line
  /** It was let go where it was. */
  readonly tapped: () => void
}

const EDGE_PX = 9
/** Where fingers are what points. */
const FINGERS = '(pointer: coarse)'

/** The braid: phrases run down the page like lines of text, the body upright inside each. */
export function Braid({ session, deck, newId, margin }: BraidProps) {
  const { ref, width } = useElementSize()
  const box = useRef<HTMLDivElement>(null)
  const [ghost, setGhost] = useState<GhostBox>()
  const now = useStore(session, (s) => s)
  const state = useMemo(() => drawnState(now), [now])
  const document = documentOf(state)
  const freshIds = useMemo(
    () => (now.preview ? [...changedEvents(documentOf(now), now.preview)].join(' ') : ''),
    [now],
  )
  const { selection } = state
  const known = useRef<readonly Line[]>([])
  const isTouched = useMediaQuery(FINGERS) ?? false
  // A drag moves only its ghost: the lines are worked out when the combination changes.
  const lines = useMemo(() => {
    const air = isTouched ? SIZE.fingers : 0
    known.current = linesOf(state, lineWidth(width), known.current, air)
    return known.current
  }, [state, width, isTouched])
  const selected = useMemo(() => selectedEvents(state), [state])
  const selectedIds = selected.map(({ id }) => id).join(' ')
  const showsBoth = state.shown === 'both'

  usePaperWidth(box)

  const topOf = (line: Line) =>
    lines.slice(0, lines.indexOf(line)).reduce((sum, { shape }) => sum + shape.height, 0)
  const firstOf = ({ pass }: Line) => 0 - pickupBefore(document, pass.index)

  const pick = (event: PointerEvent<HTMLDivElement>, line: Line): Dragged | undefined => {
    const { pass, dancing, whom, shape } = line
    const target = event.target instanceof Element ? event.target : null
    const row = rowOf(line)
    const frame = row.getBoundingClientRect()
    const beside = target?.closest('[data-beside]')?.getAttribute('data-beside')
    const mark = target?.closest('[data-event]')
    const isFinger = event.pointerType === 'touch'
    const { clientX, clientY } = event
    const ask = () =>
      openPlacing({ by: isFinger ? 'finger' : 'mouse', left: clientX, top: clientY })
    box.current?.focus({ preventScroll: true })
    if (beside) {
      pickBeside(session, beside)
      return undefined
    }
    const lane = Layer.safeParse(laneUnder(shape, event.clientY - frame.top))
    const at = tickUnder(shape, event.clientX - frame.left, HALF_COUNT, firstOf(line))
    const isEnd = extending.getState().isOn
    if ((event.shiftKey || isEnd) && lane.success) {
      stretchSelectionTo(session, line, lane.data, at)
      if (isEnd) {
        extending.setState({ isOn: false })
        ask()
      }
      return undefined
    }
    const all = [...line.early, ...line.events]
    const picked =
      all.find(({ id }) => id === mark?.getAttribute('data-event')) ??
      // A finger means what is danced there, also beside its mark.
      (isFinger ? all.find((one) => one.layer === lane.data && isDancedAt(one, at)) : undefined)
    const begun = { line, x: event.clientX, by: 0, to: line }
    if (picked) {
      const { layer, at: from, length, id } = picked
      // A block that was selected is dragged as one; else what is touched is picked.
      const isInBlock =
        selection.event === undefined &&
        selected.length > 1 &&
        selected.some((one) => one.id === id)
      const alone = { dancing, whom, pass: pass.index, layer, at: from, length, event: id }
      if (!isInBlock) select(session, alone)
      const right = shape.x(from + length) + frame.left
      const stretches = right - event.clientX < EDGE_PX && layer !== 'feet'
      const kind = stretches ? 'stretch' : 'move'
      const tapped = () => {
        if (isInBlock) select(session, alone)
        if (isFinger) ask()
      }
      return carryOn({ ...begun, kind, layer, from, length, tapped })
    }
    if (whom === undefined && event.clientY - frame.top < SIZE.ruler) {
      scrubTo(event, line)
      return {
        move: (to) => scrubTo(to, line),
        drop: () => endScrub(line),
        cancel: () => scrubbed.setState(undefined),
      }
    }
    if (!lane.success) return undefined
    const isAgain =
      isHere(line, selection) &&
      selection.event === undefined &&
      selection.layer === lane.data &&
      selection.at === at
    select(session, {
      dancing,
      whom,
      pass: pass.index,
      layer: lane.data,
      at: tick(at),
      length: slotAt(tick(at)),
    })
    return {
      move: (to) => selectTo(to, line, clientX),
      drop() {
        // A finger that went over several counts wants something on all of them.
        const { length } = session.getState().selection
        if (isFinger || (isAgain && length === slotAt(tick(at)))) ask()
      },
      cancel() {},
    }
  }

  const rowOf = (line: Line): Element => {
    const row = box.current?.children[lines.indexOf(line)]
    if (!row) throw new Error('a line is not drawn')
    return row
  }

  /** Dragging over the ruler shows the figure at that very moment. */
  const scrubTo = ({ clientX }: Pointed, line: Line) => {
    const { shape, dancing, pass } = line
    const [from, to] = [shape.x(0), shape.x(pass.length)]
    const share = (clientX - rowOf(line).getBoundingClientRect().left - from) / (to - from)
    const at = Math.min(1, Math.max(0, share)) * pass.length
    scrubbed.setState({ dancing, tick: pass.at + at })
  }
  const endScrub = ({ pass, dancing }: Line) => {
    const at = (scrubbed.getState()?.tick ?? pass.at) - pass.at
    const half = tick(Math.min(pass.length - HALF_COUNT, Math.round(at / HALF_COUNT) * HALF_COUNT))
    scrubbed.setState(undefined)
    select(session, {
      dancing,
      pass: pass.index,
      layer: selection.layer,
      at: half,
      length: slotAt(half),
    })
  }

  /** The line under a height of the page, and where it begins there. */
  const lineUnder = (clientY: number): { line: Line; frame: DOMRect } | undefined => {
    for (const line of lines) {
      const frame = rowOf(line).getBoundingClientRect()
      if (clientY >= frame.top && clientY < frame.bottom) return { line, frame }
    }
    return undefined
  }

  /** Dragging from an empty place selects all up to there. */
  const selectTo = ({ clientX, clientY }: Pointed, from: Line, fromX: number) => {
    const over = lineUnder(clientY)
    if (!over || (Math.abs(clientX - fromX) < 6 && over.line === from)) return
    const { line, frame } = over
    const lane = Layer.safeParse(laneUnder(line.shape, clientY - frame.top))
    const at = tickUnder(line.shape, clientX - frame.left, HALF_COUNT, firstOf(line))
    if (lane.success) stretchSelectionTo(session, line, lane.data, at)
  }

  /** Moves or stretches what was picked: only its ghost, until it is let go. */
  const carryOn = (now: Drag): Dragged => ({
    move({ clientX, clientY, altKey }) {
      const { shape } = now.line
      const grid = altKey ? QUARTER_COUNT : HALF_COUNT
      const step = shape.x(grid) - shape.x(0)
      now.by = Math.round((clientX - now.x) / step) * grid
      const over = now.kind === 'move' ? lineUnder(clientY)?.line : now.line
      const isOtherPhrase =
        over &&
        over.phrase !== now.line.phrase &&
        over.whom === now.line.whom &&
        isSameDancing(over.dancing, now.line.dancing)
      now.to = isOtherPhrase && selectedEvents(session.getState()).length === 1 ? over : now.line
      setGhost(now.by === 0 && now.to === now.line ? undefined : ghostOf(now, topOf(now.to)))
    },
    drop() {
      setGhost(undefined)
      if (now.to !== now.line) moveToLine(session, now)
      else if (now.by !== 0 && now.kind === 'stretch') stretchSelected(session, now.by)
      else if (now.by !== 0) moveSelected(session, now.by)
      else now.tapped()
    },
    cancel: () => setGhost(undefined),
  })

  /** The handle of what is selected makes it longer and shorter. */
  const stretchFrom = ({ clientX }: PointerEvent, line: Line): Dragged => {
    const { layer, at: from, length } = selection
    const begun = { line, x: clientX, by: 0, to: line, tapped: () => {} }
    return carryOn({ ...begun, kind: 'stretch', layer, from, length })
  }

  /** A move from the list shows where it would land, and lands there. */
  const land = (offer: Carried | undefined) => {
    const over = offer && isOver(box.current, offer) ? lineUnder(offer.clientY) : undefined
    if (!offer || !over) return setGhost(undefined)
    const { line, frame } = over
    const { layer, what, length, clientX, isLetGo } = offer
    const at = tick(tickUnder(line.shape, clientX - frame.left, HALF_COUNT, firstOf(line)))
    if (!isLetGo) return setGhost(boxAt(line, layer, at, at + length, topOf(line)))
    setGhost(undefined)
    const { dancing, whom } = line
    select(session, { dancing, whom, pass: line.pass.index, layer, at, length: slotAt(at) })
    // The foot that is free there, whichever it was where the list was read.
    placeAtSelection(session, onSide(what, sideMeant(session.getState())), length, newId)
    box.current?.focus({ preventScroll: true })
  }
  const latestLand = useRef(land)
  latestLand.current = land
  useEffect(() => carried.subscribe((offer) => latestLand.current(offer)), [])

  const here = lines.find((line) => isHere(line, selection))
  const lane = here?.shape.lanes.find(({ layer }) => layer === selection.layer)
  const start = (here?.pass.at ?? 0) + selection.at
  const layers = layersSelected(selection)
  const selectionIn = ({ pass, dancing, whom }: Line): LineSelection | undefined => {
    if (whom !== selection.whom || !isSameDancing(dancing, selection.dancing)) return undefined
    if (pass.index < selection.pass) return undefined
    const from = Math.max(start - pass.at, pass.index === selection.pass ? selection.at : 0)
    const to = Math.min(start + selection.length - pass.at, pass.length)
    return to > from ? { from, to, layers } : undefined
  }

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
          if (press(session, pressOf(event.nativeEvent), deck)) event.preventDefault()
        }}
      >
        {lines.map((line) => {
          const { pass, dancing } = line
          const own = selectionIn(line)
          return (
            <div
              key={`${line.whom ?? ''} ${dancing.part} ${dancing.side}${pass.index}`}
              className={line.whom === undefined ? classes.row : `${classes.row} ${classes.own}`}
              style={line.whom === undefined ? undefined : partTint(line.part)}
              data-alternate={showsBoth && !isLead(document, dancing)}
              onPointerDown={(event) => {
                if (event.target instanceof Element && event.target.closest('button')) return
                if (event.button === 0) drag(event, () => pick(event, line))
              }}
            >
              <div className={classes.head}>{margin(line)}</div>
              <PassLine
                line={line}
                from={own?.from}
                to={own?.to}
                layers={own ? layers.join(' ') : ''}
                selectedIds={own ? selectedIds : ''}
                freshIds={freshIds}
                dancers={line.shape.pairs === undefined ? undefined : document.parts}
                picked={
                  line.shape.pairs === undefined && !line.shape.props ? undefined : state.beside
                }
              />
            </div>
          )
        })}
        {ghost && <Ghost box={ghost} />}
        {here && lane && !isTouched && selected.length === 0 && state.query === undefined && (
          <button
            type="button"
            className={classes.plus}
            aria-label="Show what fits here"
            tabIndex={-1}
            style={{ left: here.shape.x(selection.at), top: topOf(here) + lane.top }}
            onClick={({ currentTarget }) => {
              const { left, bottom } = currentTarget.getBoundingClientRect()
              openPlacing({ by: 'mouse', left, top: bottom })
            }}
          >
            +
          </button>
        )}
        {here &&
          lane &&
          isTouched &&
          selection.event !== undefined &&
          selection.layer !== 'feet' && (
            <div
              className={classes.handle}
              data-handle
              aria-hidden
              style={{
                left: here.shape.x(selection.at + selection.length),
                top: topOf(here) + lane.top - here.shape.air / 2,
                height: lane.height + here.shape.air,
              }}
              onPointerDown={(event) => {
                event.stopPropagation()
                drag(event, () => stretchFrom(event, here), { atOnce: true })
              }}
            />
          )}
        {here && lane && state.query !== undefined && (
          <Placer
            session={session}
            newId={newId}
            left={Math.min(here.shape.x(selection.at), here.shape.width - 240)}
            top={topOf(here) + lane.top + lane.height + 2}
            onClose={() => {
              session.setState({ query: undefined })
              box.current?.focus({ preventScroll: true })
            }}
          />
        )}
      </div>
      <p id="braid-place" className="only-read" aria-live="polite">
        {placeText(state, here)}
      </p>
    </div>
  )
}

/** Where the cursor is and what stands there, for screen readers. */
function placeText(state: SessionState, here: Line | undefined): string {
  const { selection } = state
  const vocabulary = vocabularyOf(state)
  const label = labelOfSpan(selection, labelIn(here?.pass.phrase ?? { counts: 8 }))
  const layers = layersSelected(selection)
    .map((layer) => layerWord[layer])
    .join(', ')
  const names = selectedEvents(state).map((event) => nameOf(event, vocabulary))
  const said = names.length === 0 ? 'empty' : names.slice(0, 6).join(', ')
  return `${placeIn(here?.pass.phrase.name ?? '', label)}, ${layers}: ${said}${names.length > 6 ? ` and ${names.length - 6} more` : ''}`
}

/** Stretches the selection from where it starts to a place, layers too. */
function stretchSelectionTo(session: Session, line: Line, layer: Layer, at: number): void {
  const { selection } = session.getState()
  const first = line.simulation.passes[selection.pass]
  if (line.whom !== selection.whom || !isSameDancing(line.dancing, selection.dancing)) return
  if (!first) return
  const from = first.at + selection.at
  const end = line.pass.at + at + slotAt(tick(at))
  if (end <= from) return
  select(session, {
    ...selection,
    event: undefined,
    toLayer: layer === selection.layer ? undefined : layer,
    length: tick(end - from),
  })
}

/** Whether an event is what stands at a tick: a step where it lands, anything else for as long as it is danced. */
const isDancedAt = ({ layer, at, length }: DancedEvent, when: number): boolean =>
  layer === 'feet' ? at === when : at <= when && when < at + length

const isHere = ({ pass, dancing, whom }: Line, selection: Selection): boolean =>
  isLineOf({ pass: pass.index, dancing, whom }, selection)

const isOver = (element: Element | null, { clientX, clientY }: Carried): boolean =>
  element?.contains(document.elementFromPoint(clientX, clientY)) ?? false

function boxAt(line: Line, layer: Layer, from: number, to: number, top: number): GhostBox {
  const { x, lanes } = line.shape
  const lane = lanes.find((one) => one.layer === layer)
  return {
    left: x(from),
    width: Math.max(8, x(to) - x(from)),
    top: top + (lane?.top ?? 0),
    height: lane?.height ?? SIZE.row,
  }
}

function ghostOf({ kind, to, from, length, by, layer }: Drag, top: number): GhostBox {
  const start = kind === 'stretch' ? from : from + by
  const end = from + length + by
  return boxAt(to, layer, start, Math.max(end, start + 3), top)
}

/** Puts the one dragged event into the phrase of another line. */
function moveToLine(session: Session, { to, from, by }: Drag): void {
  const state = session.getState()
  const [event] = selectedEvents(state)
  if (!event) return
  const at = tick(Math.max(0, from + by))
  const flips = isFlipped(state) !== (!isLead(documentOf(state), to.dancing) !== to.pass.mirrored)
  change(session, `move ${nameOf(event, vocabularyOf(state))}`, (combination) => {
    const moved = edits.moveEventTo(event.id, to.phrase.id, at)(combination)
    return flips ? edits.turnOver([event.id])(moved) : moved
  })
  select(session, {
    ...state.selection,
    pass: to.pass.index,
    at,
    event: event.id,
  })
}
