import { type PointerEvent, type RefObject, useEffect, useRef, useState } from 'react'
import { Layer } from '../../core/body/layers'
import { isSameDancing } from '../../core/combination/dancing'
import type { DancedEvent } from '../../core/combination/lengths'
import { pickupBefore } from '../../core/combination/passes'
import { onSide } from '../../core/combination/whatOf'
import { HALF_COUNT, QUARTER_COUNT, slotAt, tick } from '../../core/time/time'
import type { Dragged, Pointed } from '../parts/drag'
import { type Carried, carried } from '../stores/carried'
import { moveSelected, placeAtSelection, stretchSelected } from '../stores/editing'
import { extending, openPlacing } from '../stores/placing'
import { scrubbed } from '../stores/scrub'
import { pickBeside, type Session, select } from '../stores/session'
import { documentOf, type SessionState, selectedEvents, sideMeant } from '../stores/state'
import { boxAt, type EventDrag, ghostOf, moveToLine } from './eventDrag'
import type { GhostBox } from './Ghost'
import { laneUnder, SIZE, tickUnder } from './geometry'
import type { Line } from './lines'
import { isHere, stretchSelectionTo } from './selecting'

const EDGE_PX = 9

interface HandsOn {
  readonly session: Session
  readonly newId: () => string
  /** What holds a row for each line, in their order. */
  readonly box: RefObject<HTMLDivElement | null>
  readonly lines: readonly Line[]
  /** What is drawn, which may be a preview. */
  readonly state: SessionState
  readonly selected: ReturnType<typeof selectedEvents>
}

/** A pointer that went down on a line. */
interface Down {
  readonly line: Line
  /** Of the line, on the page. */
  readonly frame: DOMRect
  readonly isFinger: boolean
  readonly clientX: number
  /** The layer under it, where there is one. */
  readonly lane: Layer | undefined
  /** The half count under it, from the start of the pass. */
  readonly at: number
  /** What is carried or done with another there, by its id. */
  readonly beside: string | null | undefined
  /** The event whose mark it is on, by its id. */
  readonly mark: string | null | undefined
  /** Shows what fits there. */
  readonly ask: () => void
}

/** What pointers do on the braid: pick, select, drag, stretch, scrub, and let fall what comes from a list. */
export function useBraidHands({ session, newId, box, lines, state, selected }: HandsOn) {
  const [ghost, setGhost] = useState<GhostBox>()
  const { selection } = state
  const topOf = (line: Line) =>
    lines.slice(0, lines.indexOf(line)).reduce((sum, { shape }) => sum + shape.height, 0)
  const firstOf = ({ pass }: Line) => 0 - pickupBefore(documentOf(state), pass.index)

  const rowOf = (line: Line): Element => {
    const row = box.current?.children[lines.indexOf(line)]
    if (!row) throw new Error('a line is not drawn')
    return row
  }

  /** The line under a height of the page, and where it begins there. */
  const lineUnder = (clientY: number): { line: Line; frame: DOMRect } | undefined => {
    for (const line of lines) {
      const frame = rowOf(line).getBoundingClientRect()
      if (clientY >= frame.top && clientY < frame.bottom) return { line, frame }
    }
    return undefined
  }

  /** What a pointer that goes down on a line takes hold of. */
  const pick = (event: PointerEvent<HTMLDivElement>, line: Line): Dragged | undefined => {
    const down = downOn(event, line)
    box.current?.focus({ preventScroll: true })
    if (down.beside) {
      pickBeside(session, down.beside)
      return undefined
    }
    const isEnd = extending.getState().isOn
    if ((event.shiftKey || isEnd) && down.lane) {
      stretchSelectionTo(session, line, down.lane, down.at)
      if (isEnd) {
        extending.setState({ isOn: false })
        down.ask()
      }
      return undefined
    }
    const picked = eventUnder(down)
    if (picked) return takeEvent(picked, down)
    if (line.whom === undefined && event.clientY - down.frame.top < SIZE.ruler) {
      scrubTo(event, line)
      return {
        move: (to) => scrubTo(to, line),
        drop: () => endScrub(line),
        cancel: () => scrubbed.setState(undefined),
      }
    }
    return down.lane && takeEmpty(down, down.lane)
  }

  const downOn = (event: PointerEvent<HTMLDivElement>, line: Line): Down => {
    const { clientX, clientY, pointerType } = event
    const target = event.target instanceof Element ? event.target : null
    const frame = rowOf(line).getBoundingClientRect()
    const isFinger = pointerType === 'touch'
    return {
      line,
      frame,
      isFinger,
      clientX,
      lane: Layer.safeParse(laneUnder(line.shape, clientY - frame.top)).data,
      at: tickUnder(line.shape, clientX - frame.left, HALF_COUNT, firstOf(line)),
      beside: target?.closest('[data-beside]')?.getAttribute('data-beside'),
      mark: target?.closest('[data-event]')?.getAttribute('data-event'),
      ask: () => openPlacing({ by: isFinger ? 'finger' : 'mouse', left: clientX, top: clientY }),
    }
  }

  const takeEvent = ({ layer, at: from, length, id }: DancedEvent, down: Down): Dragged => {
    const { line, frame, clientX, isFinger, ask } = down
    const { pass, dancing, whom, shape } = line
    // A block that was selected is dragged as one; else what is touched is picked.
    const isInBlock =
      selection.event === undefined && selected.length > 1 && selected.some((one) => one.id === id)
    const alone = { dancing, whom, pass: pass.index, layer, at: from, length, event: id }
    if (!isInBlock) select(session, alone)
    const right = shape.x(from + length) + frame.left
    const stretches = right - clientX < EDGE_PX && layer !== 'feet'
    const tapped = () => {
      if (isInBlock) select(session, alone)
      if (isFinger) ask()
    }
    const kind = stretches ? 'stretch' : 'move'
    return carryOn({ line, x: clientX, by: 0, to: line, kind, layer, from, length, tapped })
  }

  const takeEmpty = ({ line, clientX, isFinger, at, ask }: Down, layer: Layer): Dragged => {
    const { pass, dancing, whom } = line
    const length = slotAt(tick(at))
    const isAgain =
      isHere(line, selection) &&
      selection.event === undefined &&
      selection.layer === layer &&
      selection.at === at
    select(session, { dancing, whom, pass: pass.index, layer, at: tick(at), length })
    return {
      move: (to) => selectTo(to, line, clientX),
      drop() {
        // A finger that went over several counts wants something on all of them.
        if (isFinger || (isAgain && session.getState().selection.length === length)) ask()
      },
      cancel() {},
    }
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
  const carryOn = (now: EventDrag): Dragged => ({
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

  return { ghost, topOf, pick, stretchFrom }
}

/** The event a pointer means: whose mark it is on, or for a finger what is danced there. */
function eventUnder({ line, mark, isFinger, lane, at }: Down): DancedEvent | undefined {
  const all = [...line.early, ...line.events]
  return (
    all.find(({ id }) => id === mark) ??
    (isFinger ? all.find((one) => one.layer === lane && isDancedAt(one, at)) : undefined)
  )
}

/** Whether an event is what stands at a tick: a step where it lands, anything else for as long as it is danced. */
const isDancedAt = ({ layer, at, length }: DancedEvent, when: number): boolean =>
  layer === 'feet' ? at === when : at <= when && when < at + length

const isOver = (element: Element | null, { clientX, clientY }: Carried): boolean =>
  element?.contains(document.elementFromPoint(clientX, clientY)) ?? false
