import type { Layer } from '../../core/body/layers'
import { isLead } from '../../core/combination/dancing'
import { nameOf } from '../../core/combination/names'
import * as edits from '../../core/edits/edits'
import { tick } from '../../core/time/time'
import { change, type Session, select } from '../stores/session'
import { documentOf, isFlipped, selectedEvents, vocabularyOf } from '../stores/state'
import type { GhostBox } from './Ghost'
import { SIZE } from './geometry'
import type { Line } from './lines'

/** An event that is dragged. */
export interface EventDrag {
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

/** Where something on a layer of a line is drawn, in pixels of the braid. */
export function boxAt(line: Line, layer: Layer, from: number, to: number, top: number): GhostBox {
  const { x, lanes } = line.shape
  const lane = lanes.find((one) => one.layer === layer)
  return {
    left: x(from),
    width: Math.max(8, x(to) - x(from)),
    top: top + (lane?.top ?? 0),
    height: lane?.height ?? SIZE.row,
  }
}

/** Where what is dragged would land. */
export function ghostOf({ kind, to, from, length, by, layer }: EventDrag, top: number): GhostBox {
  const start = kind === 'stretch' ? from : from + by
  const end = from + length + by
  return boxAt(to, layer, start, Math.max(end, start + 3), top)
}

/** Puts the one dragged event into the phrase of another line. */
export function moveToLine(session: Session, { to, from, by }: EventDrag): void {
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
