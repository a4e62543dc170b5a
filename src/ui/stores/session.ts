import { dequal } from 'dequal'
import { createStore, type StoreApi } from 'zustand/vanilla'
import type { Combination } from '../../core/combination/combination'
import { isLead, leadOf, otherDancing } from '../../core/combination/dancing'
import { followed } from '../../core/combination/like'
import { throughOption } from '../../core/combination/options'
import { partOf } from '../../core/combination/partOf'
import type { PartId } from '../../core/combination/whose'
import type { Edit } from '../../core/edits/edit'
import { forPart, lifted } from '../../core/edits/forPart'
import { UserError } from '../../core/errors'
import { beginHistory, edit, everyState, redo, undo } from '../../core/record/history'
import { endOf, slotAt, TICKS_PER_COUNT, tick } from '../../core/time/time'
import type { Stored } from '../../storage/combinations'
import { createSaver, type Later, later, type Saver } from './saver'
import type { Services } from './services'

import {
  documentOf,
  optionChanged,
  phraseAt,
  type Selection,
  type SessionState,
  shownPart,
  withSelectionInside,
} from './state'

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
    const id = saver.id()
    const there = await combinations.get(id).catch(() => undefined)
    // This window may have gone on in a copy meanwhile: what is there is another one then.
    if (!there || saver.id() !== id) return
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

/** Makes one undoable change: in a part's own line of what she dances, else of what is written. */
export function change(session: Session, label: string, make: Edit, mark?: string): void {
  const { whom } = session.getState().selection
  changeAll(session, label, whom === undefined ? make : forPart(whom, make), mark)
}

/** What is written, with something else for the selected part to dance. */
export function withDance(state: SessionState, after: Combination): Combination {
  const { whom, dancing } = state.selection
  const combination = documentOf(state)
  const before = partOf(combination, dancing.part)
  return before === combination
    ? after
    : lifted(combination, dancing.part, { before, after, whom: whom === undefined ? 'all' : 'own' })
}

/** Makes one undoable change of what is written, whosever line the selection stands in. */
export function changeAll(session: Session, label: string, make: Edit, mark?: string): void {
  session.setState((state) => {
    try {
      const { present } = state.history
      const target = optionChanged(state)
      const made = target
        ? throughOption(target.phrase, target.option, make)(present)
        : make(present)
      const history = edit(state.history, label, followed(present, made), mark)
      return history === state.history
        ? state
        : withSelectionInside({ ...state, history, preview: undefined, message: '' })
    } catch (error) {
      if (!(error instanceof UserError)) throw error
      return { ...state, message: `${error.message} ${error.whatToDo}` }
    }
  })
}

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

/** Shows what something would make of the combination, until it is taken or left. */
/** Shows a phrase with one of its options, dances it so, and puts what is changed into it; as it is written where none is given. */
export const tryOption = (session: Session, phrase: string, option: string | undefined): void =>
  session.setState((state) =>
    withSelectionInside({
      ...state,
      preview: undefined,
      trying: option === undefined ? undefined : { phrase, option },
    }),
  )

export const showPreview = (session: Session, preview: Combination | undefined): void =>
  session.setState((state) => (state.preview === preview ? state : { ...state, preview }))

export const undoLast = (session: Session): void => step(session, undo, 'Undo')

export const redoNext = (session: Session): void => step(session, redo, 'Redo')

export const select = (session: Session, selection: Selection): void =>
  session.setState((state) =>
    withSelectionInside({ ...state, selection, query: undefined, beside: undefined }),
  )

/** Picks what two do with each other, or what is done with a thing. */
export const pickBeside = (session: Session, beside: string | undefined): void =>
  session.setState((state) => ({
    ...state,
    beside,
    query: undefined,
    selection: { ...state.selection, event: undefined },
  }))

/** Goes over to what a part dances, or to what all do: what is changed from now on is hers, or everybody's. */
export const selectWhom = (session: Session, whom: PartId | undefined): void =>
  session.setState((state) => {
    const combination = documentOf(state)
    if (!combination.parts) return state
    const { selection } = state
    const isWritten = isLead(combination, selection.dancing)
    const lead = leadOf(combination, whom ?? shownPart(combination))
    const dancing = isWritten ? lead : otherDancing(lead)
    const name = combination.parts.find(({ id }) => id === whom)?.name ?? 'all'
    return withSelectionInside({
      ...state,
      selection: { ...selection, dancing, whom, event: undefined },
      query: undefined,
      message: `What you change now is for ${name}.`,
    })
  })

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

/** The counts right behind what is selected, on into the next line where this one ends; undefined at the end. */
export function behind(state: SessionState): Selection | undefined {
  const { selection } = state
  const { order } = documentOf(state)
  const counts = phraseAt(state, selection.pass)?.counts ?? 0
  const end = endOf(selection)
  const isPast = end >= counts * TICKS_PER_COUNT
  if (isPast && selection.pass + 1 >= order.length) return undefined
  const at = tick(isPast ? 0 : end)
  return {
    ...selection,
    toLayer: undefined,
    event: undefined,
    pass: isPast ? selection.pass + 1 : selection.pass,
    at,
    length: slotAt(at),
  }
}

/** Moves the cursor right behind what is selected. */
export function goBehind(session: Session): void {
  const to = behind(session.getState())
  if (to) select(session, to)
}
