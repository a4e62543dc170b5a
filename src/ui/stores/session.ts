import { dequal } from 'dequal'
import { createStore, type StoreApi } from 'zustand/vanilla'
import type { Layer } from '../../core/body/layers'
import { LAYERS } from '../../core/body/layers'
import { otherSide, type Side } from '../../core/body/side'
import type { Combination, Event } from '../../core/combination/combination'
import {
  bothOf,
  type Dancing,
  isLead,
  leadOf,
  otherDancing,
  partOf,
} from '../../core/combination/dancing'
import type { Pass } from '../../core/combination/passes'
import { type Edit, earliestIn } from '../../core/edits/edit'
import * as edits from '../../core/edits/edits'
import { UserError } from '../../core/errors'
import type { Vocabulary } from '../../core/moves/vocabulary'
import { beginHistory, edit, everyState, type History, redo, undo } from '../../core/record/history'
import { footMeant } from '../../core/simulate/footMeant'
import { type Simulation, stateBefore } from '../../core/simulate/simulate'
import { hereIn } from '../../core/suggest/here'
import { endOf, slotAt, TICKS_PER_COUNT, type Tick, tick } from '../../core/time/time'
import type { Here } from '../../core/writing/search'
import type { Stored } from '../../storage/combinations'
import { checkedOf, simulationFrom } from './checked'
import { createSaver, type Later, later, type Saver } from './saver'
import type { Services } from './services'

/** Which lines of the braid are shown: as led, the other side, or both count under count. */
export type LinesShown = 'lead' | 'other' | 'both'

/** Some counts of one layer or more, from a place of a line on; it may run on into the lines behind. */
export interface Selection {
  readonly dancing: Dancing
  readonly pass: number
  readonly layer: Layer
  /** The other end of a block of layers; absent for one layer. */
  readonly toLayer?: Layer | undefined
  readonly at: Tick
  readonly length: Tick
  /** One event was picked, not all that starts here. */
  readonly event?: string | undefined
}

export interface SessionState {
  readonly history: History<Combination>
  readonly shown: LinesShown
  readonly selection: Selection
  /** What was placed lately, the last first: it is offered before the rest. */
  readonly recent: readonly string[]
  /** What is being typed to find a move; absent while nothing is. */
  readonly query?: string | undefined
  /** The layer chosen on the standing body: only it and the feet are shown, heard and danced. */
  readonly only?: Layer | undefined
  /** What a repair or a proposal would make of it: drawn in the braid, not taken yet. */
  readonly preview?: Combination | undefined
  /** Said to screen readers, and shown for a while. */
  readonly message: string
}

/** One open combination: what is saved and undone, and what is neither. */
export interface Session extends StoreApi<SessionState> {
  readonly saver: Saver
  readonly close: () => void
}

/** What a session asks of the world besides its services. */
interface Outside {
  /** Milliseconds since 1970. */
  readonly now: () => number
  readonly later: Later
}

/**
 * So long after a change of one's own another window's is not taken on: two who write at once
 * would tear each other's words, so the next change leads to a copy instead.
 */
export const REST_MS = 5000

/** Opens a stored combination for editing; every change is saved as it is made. */
export function openSession(
  stored: Stored,
  services: Pick<Services, 'combinations' | 'journal' | 'onSaved'>,
  { now, later: wait }: Outside = { now: Date.now, later },
): Session {
  const { combinations } = services
  const { combination } = stored
  const store = createStore<SessionState>(() => ({
    history: beginHistory(combination),
    shown: 'lead',
    selection: {
      dancing: leadOf(combination),
      pass: 0,
      layer: 'feet',
      at: tick(0),
      length: slotAt(tick(0)),
    },
    recent: [],
    message: '',
  }))
  const saver = createSaver(services, stored, wait)
  const say = (message: string) => store.setState({ message })
  let known = combination
  let changedAt = Number.NEGATIVE_INFINITY
  let isRemoved = false
  let stopWaiting = () => {}

  const stopSaving = store.subscribe(() => {
    const { present } = store.getState().history
    if (present === known) return
    known = present
    changedAt = now()
    isRemoved = false
    saver.save(present)
  })
  const stopFollowing = saver.subscribe(() => {
    const saved = saver.getState()
    if (saved.kind !== 'elsewhere') return
    // Go on in the copy with all that can be undone, so that nothing written here is fought over.
    const { written, copy } = saved
    const inCopy = (one: Combination): Combination => ({
      ...one,
      id: copy.id,
      title: one.title === written.title ? copy.title : one.title,
    })
    store.setState((state) => {
      const history = everyState(state.history, inCopy)
      known = history.present
      return {
        ...state,
        history,
        message:
          'Another window changed this combination too. Both are kept: you are now in a copy.',
      }
    })
    // What was changed while the copy was made is saved under the copy's name too.
    if (!dequal(known, copy)) saver.save(known)
  })
  async function follow() {
    const there = await combinations.get(saver.id()).catch(() => undefined)
    if (!there) return
    if (there.removedAt !== undefined && !isRemoved)
      say('This combination was deleted in another window. It is back with your next change.')
    isRemoved = there.removedAt !== undefined
    // A save under way, or one that waits, finds out by itself.
    const { kind } = saver.getState()
    if (there.revision <= saver.revision() || kind === 'saving' || kind === 'failed') return
    const rest = changedAt + REST_MS - now()
    stopWaiting()
    if (rest > 0) {
      stopWaiting = wait(() => void follow(), rest)
      return
    }
    saver.takeOn(there.revision)
    store.setState((state) => {
      known = there.combination
      return { ...state, history: edit(state.history, 'what the other window changed', known) }
    })
  }
  const stopWatching = combinations.watch(() => void follow())

  return {
    ...store,
    saver,
    close() {
      stopSaving()
      stopFollowing()
      stopWatching()
      stopWaiting()
    },
  }
}

/** The document of a session. */
export const documentOf = (state: SessionState): Combination => state.history.present

/** What the selected part dances, with its own start and lead side. */
export const danceOf = (state: SessionState): Combination =>
  partOf(documentOf(state), state.selection.dancing.part)

/** The dancings the braid shows, from the top. */
export function dancingsShown({ history, shown, selection }: SessionState): readonly Dancing[] {
  const both = bothOf(history.present, selection.dancing.part)
  return shown === 'both' ? both : both.slice(shown === 'lead' ? 0 : 1).slice(0, 1)
}

/** The layers that are shown, heard and danced: all, or the feet and a chosen one. */
export const layersOf = (only: Layer | undefined): ReadonlySet<Layer> =>
  new Set(only ? ['feet', only] : LAYERS)

export const layersShown = ({ only }: SessionState): ReadonlySet<Layer> => layersOf(only)

export const passOf = ({ history }: SessionState, { dancing, pass }: Selection): Pass | undefined =>
  simulationFrom(history.present, dancing).passes[pass]

/** The layers of a block selection, from head to feet or the other way round. */
export function layersSelected({ layer, toLayer = layer }: Selection): readonly Layer[] {
  const [from, to] = [LAYERS.indexOf(layer), LAYERS.indexOf(toLayer)].sort((a, b) => a - b)
  return LAYERS.slice(from, (to ?? 0) + 1)
}

/** An event as it is danced in a pass of a side. */
interface EventInPass {
  readonly pass: Pass
  readonly event: Event
}

/** The events a selection means, each with its pass; a phrase danced twice has its events twice. */
export function selectedInPasses(state: SessionState): readonly EventInPass[] {
  const { selection } = state
  const first = passOf(state, selection)
  if (!first) return []
  const { passes } = simulationFrom(documentOf(state), selection.dancing)
  if (selection.event)
    return first.events
      .filter(({ id }) => id === selection.event)
      .map((event) => ({ pass: first, event }))
  const from = first.at + selection.at
  const to = from + selection.length
  const layers = layersSelected(selection)
  return passes
    .slice(first.index)
    .flatMap((pass) =>
      pass.at >= to
        ? []
        : pass.events
            .filter(
              ({ layer, at }) =>
                layers.includes(layer) && pass.at + at >= from && pass.at + at < to,
            )
            .map((event) => ({ pass, event })),
    )
}

/** The events a selection means, as they are danced on its side, each once. */
export function selectedEvents(state: SessionState): readonly Event[] {
  const seen = new Map(selectedInPasses(state).map(({ event }) => [event.id, event]))
  return [...seen.values()]
}

/** The vocabulary an open combination is read by. */
export const vocabularyOf = (state: SessionState): Vocabulary =>
  checkedOf(documentOf(state)).lead.vocabulary

/** Whether what is shown in the selected line is the mirror image of what is stored. */
export function isFlipped(state: SessionState): boolean {
  const { history, selection } = state
  const mirrored = history.present.order[selection.pass]?.mirrored ?? false
  return !isLead(history.present, selection.dancing) !== mirrored
}

/** Makes one undoable change. */
export function change(session: Session, label: string, make: Edit, mark?: string): void {
  session.setState((state) => {
    try {
      const history = edit(state.history, label, make(state.history.present), mark)
      return history === state.history
        ? state
        : withSelectionInside({ ...state, history, preview: undefined, message: '' })
    } catch (error) {
      if (!(error instanceof UserError)) throw error
      return { ...state, message: `${error.message} ${error.whatToDo}` }
    }
  })
}

/** Keeps the selection inside what there is. */
export function withSelectionInside(state: SessionState): SessionState {
  const { selection, history } = state
  const pass = Math.min(selection.pass, history.present.order.length - 1)
  const phrase = history.present.phrases.find(
    ({ id }) => id === history.present.order[pass]?.phrase,
  )
  const end = (phrase?.counts ?? 1) * TICKS_PER_COUNT
  const first = earliestIn(history.present, phrase?.id ?? '')
  const at = Math.max(pass === 0 ? first : 0, Math.min(selection.at, end - 1))
  const behind = history.present.order
    .slice(pass + 1)
    .reduce((sum, entry) => sum + (countsOf(history.present, entry.phrase) ?? 0), 0)
  const length = Math.min(selection.length, end + behind * TICKS_PER_COUNT - at)
  const gone = selection.event && !edits.eventOf(history.present, selection.event)
  return {
    ...state,
    selection: {
      ...selection,
      pass,
      at: tick(at),
      length: tick(length),
      event: gone ? undefined : selection.event,
    },
  }
}

const countsOf = ({ phrases }: Combination, id: string): number | undefined =>
  phrases.find((phrase) => phrase.id === id)?.counts

const step = (session: Session, to: typeof undo, said: string): void =>
  session.setState((state) => {
    const label = (to === undo ? state.history.past : state.history.future).at(-1)?.label
    if (!label) return { ...state, message: `Nothing to ${said.toLowerCase()}.` }
    return withSelectionInside({
      ...state,
      history: to(state.history),
      message: `${said}: ${label}.`,
    })
  })

/** What is drawn: the combination, or what it would become by what is being looked at. */
export const drawnState = (state: SessionState): SessionState =>
  state.preview
    ? withSelectionInside({ ...state, history: { ...state.history, present: state.preview } })
    : state

/** Shows what something would make of the combination, until it is taken or left. */
export const showPreview = (session: Session, preview: Combination | undefined): void =>
  session.setState((state) => (state.preview === preview ? state : { ...state, preview }))

/** Events that are not as they were: new, changed, or moved. */
export function changedEvents(before: Combination, after: Combination): ReadonlySet<string> {
  const known = new Map(before.phrases.flatMap(({ events }) => events.map((one) => [one.id, one])))
  return new Set(
    after.phrases.flatMap(({ events }) =>
      events.filter((event) => known.get(event.id) !== event).map(({ id }) => id),
    ),
  )
}

export const undoLast = (session: Session): void => step(session, undo, 'Undo')
export const redoNext = (session: Session): void => step(session, redo, 'Redo')

export const select = (session: Session, selection: Selection): void =>
  session.setState((state) => withSelectionInside({ ...state, selection, query: undefined }))

/** What the feet stand on where the selection starts. */
function weightAt(state: SessionState): ReturnType<typeof stateBefore> {
  const simulation: Simulation = simulationFrom(documentOf(state), state.selection.dancing)
  const pass = simulation.passes[state.selection.pass]
  return stateBefore(simulation, (pass?.at ?? 0) + state.selection.at)
}

/** The side that is meant where none is written. */
export function sideMeant(state: SessionState): Side {
  const { selection, history } = state
  const { order } = history.present
  const led = selection.dancing.side
  const mirrored = order[selection.pass]?.mirrored ?? false
  if (selection.layer === 'feet') return footMeant(weightAt(state).weight, led, mirrored)
  return mirrored ? otherSide[led] : led
}

/** Flips the braid to its other side and back. */
export const flip = (session: Session): void =>
  session.setState((state) => {
    const { selection } = state
    const lead = leadOf(documentOf(state), selection.dancing.part)
    const shown = state.shown === 'other' ? 'lead' : 'other'
    const dancing = shown === 'lead' ? lead : otherDancing(lead)
    return { ...state, shown, selection: { ...selection, dancing } }
  })

export const showBoth = (session: Session): void =>
  session.setState((state) => {
    const shown = state.shown === 'both' ? 'lead' : 'both'
    const { selection } = state
    const dancing = leadOf(documentOf(state), selection.dancing.part)
    return { ...state, shown, selection: { ...selection, dancing } }
  })

/** Moves the cursor right behind what is selected, on into the next line where this one ends. */
export function goBehind(session: Session): void {
  const { selection } = session.getState()
  const { order, phrases } = documentOf(session.getState())
  const counts = phrases.find(({ id }) => id === order[selection.pass]?.phrase)?.counts ?? 0
  const behind = endOf(selection)
  const isPast = behind >= counts * TICKS_PER_COUNT
  if (isPast && selection.pass + 1 >= order.length) return
  const at = tick(isPast ? 0 : behind)
  const pass = isPast ? selection.pass + 1 : selection.pass
  select(session, {
    ...selection,
    toLayer: undefined,
    event: undefined,
    pass,
    at,
    length: slotAt(at),
  })
}

/** What decides what fits at the selection. */
export function hereAt(state: SessionState): Here {
  const { selection, recent } = state
  const simulation = simulationFrom(documentOf(state), selection.dancing)
  return hereIn(simulation, selection.pass, selection.layer, selection.at, recent)
}
