import { LAYERS_DOWN } from '../../core/body/layers'
import { pickupBefore } from '../../core/combination/passes'
import { HALF_COUNT, slotAt, TICKS_PER_COUNT, tick } from '../../core/time/time'
import { type Session, select } from './session'
import { documentOf, isLineOf, layersShown, linesShown, phraseAt, type Selection } from './state'

/** Where a line begins: before its count 1 where a pickup leads into it. */
const firstTick = (session: Session, pass: number): number =>
  0 - pickupBefore(documentOf(session.getState()), pass)

export const phraseIdHere = (session: Session): string => {
  const { selection } = session.getState()
  return documentOf(session.getState()).order[selection.pass]?.phrase ?? ''
}

export const countHere = (session: Session): number =>
  Math.max(0, Math.floor(session.getState().selection.at / TICKS_PER_COUNT)) + 1

export function phraseTicks(session: Session, pass: number): number {
  return (phraseAt(session.getState(), pass)?.counts ?? 1) * TICKS_PER_COUNT
}

export function go(session: Session, to: Partial<Selection>): void {
  const { selection } = session.getState()
  const at = to.at ?? selection.at
  select(session, {
    ...selection,
    toLayer: undefined,
    ...to,
    at,
    length: to.length ?? slotAt(at),
    event: undefined,
  })
}

/** One step in time; past an end of the phrase it goes on in the phrase before or after. */
export function stepInTime(session: Session, by: number): void {
  const { selection } = session.getState()
  const { order } = documentOf(session.getState())
  const at =
    (by > 0 ? Math.floor(selection.at / by) : Math.ceil(selection.at / -by)) * Math.abs(by) + by
  if (at < firstTick(session, selection.pass)) {
    const pass = selection.pass - 1
    if (pass >= 0) go(session, { pass, at: tick(phraseTicks(session, pass) + by) })
  } else if (at >= phraseTicks(session, selection.pass)) {
    if (selection.pass + 1 < order.length) go(session, { pass: selection.pass + 1, at: tick(0) })
  } else go(session, { at: tick(at) })
}

/** One layer up or down, over the lines of both sides. */
export function stepLayer(session: Session, by: number): void {
  const state = session.getState()
  const { selection } = state
  const rows = linesShown(state).flatMap(({ layers, ...line }) =>
    LAYERS_DOWN.filter((layer) => layers.has(layer)).map((layer) => ({ ...line, layer })),
  )
  const row = rows.findIndex((one) => isLineOf(one, selection) && one.layer === selection.layer)
  const to = rows[row + by]
  if (row + by < 0 || !to) return
  const at = Math.min(
    Math.max(selection.at, firstTick(session, to.pass)),
    phraseTicks(session, to.pass) - HALF_COUNT,
  )
  go(session, { ...to, at: tick(at), length: selection.length })
}

/** The other end of a block of layers, one up or down. */
export function stretchLayers(session: Session, by: number): void {
  const { selection } = session.getState()
  const shown = LAYERS_DOWN.filter((layer) => layersShown(session.getState()).has(layer))
  const index = shown.indexOf(selection.toLayer ?? selection.layer) + by
  const toLayer = shown[index]
  if (toLayer) select(session, { ...selection, toLayer, event: undefined })
}

/** All layers of all phrases. */
export function selectAll(session: Session): void {
  const { selection } = session.getState()
  const at = tick(firstTick(session, 0))
  select(session, {
    ...selection,
    pass: 0,
    layer: 'head',
    toLayer: 'feet',
    at,
    // Longer than any combination; it is cut to what there is.
    length: tick(10_000),
    event: undefined,
  })
}

/** Whole phrase, all layers. */
export function selectPhrase(session: Session): void {
  const { selection } = session.getState()
  const at = tick(firstTick(session, selection.pass))
  select(session, {
    ...selection,
    layer: 'head',
    toLayer: 'feet',
    at,
    length: tick(phraseTicks(session, selection.pass) - at),
    event: undefined,
  })
}
