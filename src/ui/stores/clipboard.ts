import { createStore } from 'zustand/vanilla'
import type { Layer } from '../../core/body/layers'
import { isLead } from '../../core/combination/dancing'
import { writtenOf } from '../../core/combination/lengths'
import * as clips from '../../core/edits/clip'
import { TICKS_PER_COUNT, type Tick, tick } from '../../core/time/time'
import { removeSelected } from './editing'
import { change, type Session, select } from './session'
import { documentOf, isFlipped, layersSelected, type SessionState, selectedInPasses } from './state'

interface Copied {
  readonly clip: clips.Clip
  /** Ticks from the start of what was copied to its end. */
  readonly length: Tick
}

/** What was copied last, in any combination; as danced on the side it was copied from. */
const copied = createStore<Copied | undefined>(() => undefined)

function clipOf(state: SessionState): Copied | undefined {
  const { selection } = state
  const danced = selectedInPasses(state)
  if (danced.length === 0) return undefined
  const first = danced[0]?.pass
  const start = documentOf(state).order[selection.pass]
  if (!first || !start) return undefined
  const from = passStart(state) + selection.at
  const events = danced.map(({ pass, event }) => ({
    event: writtenOf(event),
    danced: event.length,
    offset: pass.at + event.at - from,
  }))
  return { clip: { events }, length: selection.length }
}

function passStart(state: SessionState): number {
  const { order, phrases } = documentOf(state)
  return order
    .slice(0, state.selection.pass)
    .reduce(
      (sum, { phrase }) => sum + (phrases.find(({ id }) => id === phrase)?.counts ?? 0) * 12,
      0,
    )
}

const say = (session: Session, message: string) => session.setState({ message })

export function copySelected(session: Session): void {
  const made = clipOf(session.getState())
  if (!made) {
    say(session, 'Nothing is selected to copy.')
    return
  }
  copied.setState(() => made)
  const { length } = made.clip.events
  say(session, `${length} ${length === 1 ? 'move' : 'moves'} copied.`)
}

export function cutSelected(session: Session): void {
  copySelected(session)
  removeSelected(session)
}

/** How something is pasted. */
interface PasteWay {
  /** From the other side. */
  readonly mirrored?: boolean
  /** Only what belongs to this layer. */
  readonly only?: Layer
}

export function pasteHere(session: Session, newId: () => string, way: PasteWay = {}): void {
  const made = copied.getState()
  if (!made) {
    say(session, 'Nothing was copied yet.')
    return
  }
  pasteClip(session, made, newId, way)
}

function pasteClip(
  session: Session,
  { clip, length }: Copied,
  newId: () => string,
  { mirrored = false, only }: PasteWay,
): void {
  const state = session.getState()
  const { selection } = state
  const combination = documentOf(state)
  const kept = clip.events.filter(({ event }) => !only || event.layer === only)
  if (kept.length === 0) {
    say(session, `Nothing of the ${only} was copied.`)
    return
  }
  const chosen = mirrored ? clips.mirroredClip({ events: kept }) : { events: kept }
  // What is written from the other side is stored from the lead side.
  const isOther = !isLead(combination, selection.dancing)
  const stored = isOther ? clips.mirroredClip(chosen) : chosen
  const room = clips.roomFor(stored, selection.pass, selection.at, combination)
  if (room === 0) {
    say(session, 'There is no room behind here: add a phrase first.')
    return
  }
  change(
    session,
    `paste ${room} ${room === 1 ? 'move' : 'moves'}`,
    clips.paste(stored, selection.pass, selection.at, newId),
  )
  select(session, { ...selection, length, event: undefined })
  const lost = kept.length - room
  say(
    session,
    lost > 0
      ? `${room} pasted; ${lost} had no room behind the end.`
      : `${room} ${room === 1 ? 'move' : 'moves'} pasted.`,
  )
}

/** Pastes the selection right behind itself, and moves on to it. */
export function duplicateSelected(session: Session, newId: () => string): void {
  const state = session.getState()
  const made = clipOf(state)
  if (!made) {
    say(session, 'Nothing is selected to double.')
    return
  }
  const { selection } = state
  const end = moved(state, selection.length)
  if (!end) {
    say(session, 'There is no room behind here: add a phrase first.')
    return
  }
  select(session, { ...selection, ...end, event: undefined })
  pasteClip(session, made, newId, {})
}

/** Pastes the selection again and again to the end of its phrase. */
export function repeatToEnd(session: Session, newId: () => string): void {
  const state = session.getState()
  const made = clipOf(state)
  if (!made) {
    say(session, 'Nothing is selected to repeat.')
    return
  }
  const { selection } = state
  const { order, phrases } = documentOf(state)
  const phrase = phrases.find(({ id }) => id === order[selection.pass]?.phrase)
  const room = (phrase?.counts ?? 0) * 12 - selection.at - selection.length
  const times = Math.floor(room / selection.length)
  if (times < 1) {
    say(session, 'It fits no second time before the phrase ends.')
    return
  }
  const stored = isFlipped(state) ? clips.mirroredClip(made.clip) : made.clip
  const events = Array.from({ length: times }, (_, i) =>
    stored.events.map((one) => ({ ...one, offset: one.offset + (i + 1) * selection.length })),
  ).flat()
  change(
    session,
    `repeat to the end of ${phrase?.name}`,
    clips.pasteInPhrase({ events }, phrase?.id ?? '', selection.at, newId),
  )
  say(session, `Repeated ${times} ${times === 1 ? 'time' : 'times'}.`)
}

/** A place some ticks later, in this pass or one behind; undefined past the end. */
function moved(state: SessionState, by: number): { pass: number; at: Tick } | undefined {
  const { order, phrases } = documentOf(state)
  let at = state.selection.at + by
  for (let pass = state.selection.pass; pass < order.length; pass++) {
    const counts = phrases.find(({ id }) => id === order[pass]?.phrase)?.counts ?? 0
    if (at < counts * TICKS_PER_COUNT) return { pass, at: tick(at) }
    at -= counts * 12
  }
  return undefined
}

/** The layer a one-layer paste means: the one the cursor is on. */
export const layerHere = ({ selection }: SessionState): Layer =>
  layersSelected(selection)[0] ?? selection.layer
