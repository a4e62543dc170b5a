import { otherSide, type Side } from '../../core/body/side'
import type { ActId, PropAct } from '../../core/combination/carried'
import type { Event } from '../../core/combination/combination'
import { isLevelWord } from '../../core/combination/lengths'
import { mirrorEvent, mirrorWhat } from '../../core/combination/mirror'
import { mirrorWords } from '../../core/combination/mirrorWords'
import { nameOf } from '../../core/combination/names'
import { isShared, isSolo, type PartId } from '../../core/combination/whose'
import { addBetween, firstMeeting } from '../../core/edits/between'
import type { Edit } from '../../core/edits/edit'
import * as edits from '../../core/edits/edits'
import { danceBy } from '../../core/edits/parts'
import { addAct } from '../../core/edits/props'
import type { Vocabulary } from '../../core/moves/vocabulary'
import { actsHere } from '../../core/props/lane'
import { COUNT, slotAt, type Tick, tick } from '../../core/time/time'
import type { What } from '../../core/what/kinds'
import { idOfKind } from '../../core/writing/fit'
import { simulationFrom } from './checked'
import { change, changeAll, pickBeside, type Session, select, selectWhom } from './session'
import {
  documentOf,
  isFlipped,
  passOf,
  type SessionState,
  selectedEvents,
  vocabularyOf,
  withSelectionInside,
} from './state'
import { words } from './words'

/** Places something at the selection; what starts there on that layer makes room for it. */
export function placeAtSelection(
  session: Session,
  what: What,
  usual: Tick,
  newId: () => string,
): void {
  const state = session.getState()
  const { selection, history } = state
  const phrase = history.present.order[selection.pass]?.phrase
  const pass = passOf(state, selection)
  if (!phrase || !pass) return
  const replaced = selectedEvents({
    ...state,
    selection: {
      ...selection,
      toLayer: undefined,
      length: tick(Math.min(selection.length, pass.length - selection.at)),
    },
  })
  const vocabulary = vocabularyOf(state)
  const isOneSlot = selection.length <= slotAt(selection.at)
  // On a shorter slot the cursor stays as short, to go on from there.
  const wanted = !isOneSlot || selection.length < COUNT ? selection.length : usual
  const length = tick(Math.min(wanted, pass.length - selection.at))
  // A length is written only where counts were selected for it.
  const shown: Event = {
    id: newId(),
    layer: selection.layer,
    at: selection.at,
    ...(!isOneSlot && { length }),
    what,
  }
  const stored = isFlipped(state) ? mirrorEvent(shown) : shown
  // A height goes on under the steps: it takes the place of no step, and a step of no height.
  const ids = [...replaced, ...ownThere(state, shown)]
    .filter((one) => isLevelWord(one) === isLevelWord(shown))
    .map(({ id }) => id)
  const own = words
    .getState()
    .entries.find(({ id }) => what.kind === 'move' && id === what.move)?.move
  change(session, `place ${nameOf(shown, vocabulary)}`, (combination) => {
    const placed = edits.replaceWith(phrase, ids, stored)(combination)
    return own ? edits.bringMove(own)(placed) : placed
  })
  const kind = idOfKind(what)
  session.setState((now) => ({
    ...now,
    query: undefined,
    recent: [kind, ...now.recent.filter((one) => one !== kind)].slice(0, 12),
    selection: { ...selection, toLayer: undefined, length, event: shown.id },
    message: `${nameOf(shown, vocabulary)} placed.`,
  }))
}

/** What only some dance where something is placed for all: it makes room too. */
function ownThere(state: SessionState, placed: Event): readonly Event[] {
  const { selection } = state
  const combination = documentOf(state)
  const phrase = combination.order[selection.pass]?.phrase
  if (!combination.parts || selection.whom !== undefined) return []
  const end = placed.at + (placed.length ?? slotAt(placed.at))
  return (combination.phrases.find(({ id }) => id === phrase)?.events ?? []).filter(
    (one) =>
      !isShared(one) &&
      !isSolo(one) &&
      one.layer === placed.layer &&
      one.at >= placed.at &&
      one.at < end,
  )
}

const named = (events: readonly Event[], vocabulary: Vocabulary): string =>
  events.length === 1 && events[0] ? nameOf(events[0], vocabulary) : `${events.length} moves`

function changeSelected(
  session: Session,
  verb: string,
  make: (ids: readonly string[], events: readonly Event[]) => Edit,
  mark?: string,
): void {
  const events = selectedEvents(session.getState())
  if (events.length === 0) return
  change(
    session,
    `${verb} ${named(events, vocabularyOf(session.getState()))}`,
    make(
      events.map(({ id }) => id),
      events,
    ),
    mark,
  )
}

export const removeSelected = (session: Session): void =>
  changeSelected(session, 'remove', edits.removeEvents)

export function turnSelected(session: Session, side: Side): void {
  const flipped = isFlipped(session.getState())
  changeSelected(
    session,
    'change the side of',
    (_, events) => (combination) =>
      events.reduce((changed, { id, kept }) => {
        const written = flipped && !kept ? otherSide[side] : side
        return edits.changeSide([id], written)(changed)
      }, combination),
  )
}

/** Writes the selected figures out as their steps. */
export function openSelectedFigure(session: Session, newId: () => string): void {
  const vocabulary = vocabularyOf(session.getState())
  changeSelected(
    session,
    'open',
    (ids) => (combination) =>
      ids.reduce((changed, id) => edits.openFigure(id, vocabulary, newId)(changed), combination),
  )
}

/** Puts a hold of two hands on the selected counts, to be made into whatever they do there. */
export function meetHere(session: Session, newId: () => string): void {
  const state = session.getState()
  const { selection } = state
  const combination = documentOf(state)
  const phrase = combination.order[selection.pass]?.phrase
  const what = firstMeeting(combination)
  if (!phrase || !what) {
    session.setState({
      message: 'It is for one dancer: make it for two first, with Dancers… in the menu.',
    })
    return
  }
  const id = newId()
  const { at, length } = selection
  changeAll(session, 'let them meet', addBetween(phrase, { id, at, length, what }))
  pickBeside(session, id)
}

/** What is meant first where nothing else is said: what changes least. */
const FIRST_ACTS: readonly ActId[] = ['carry', 'swish', 'strike', 'take', 'catch']

/** Does something with what is carried on the selected counts: what can be done there, to be made into anything else. */
export function actHere(session: Session, newId: () => string, wanted?: string): void {
  const state = session.getState()
  const { selection } = state
  const combination = documentOf(state)
  const phrase = combination.order[selection.pass]?.phrase
  const simulation = simulationFrom(combination, selection.dancing)
  const pass = simulation.passes[selection.pass]
  const own = simulation.combination.carried ?? []
  const prop =
    own.find(({ id }) => id === wanted) ??
    combination.carried?.find(({ id }) => id === wanted) ??
    own[0] ??
    combination.carried?.[0]
  if (!phrase || !pass || !prop) {
    session.setState({
      message: 'Nothing is carried: say what with What is carried… in the menu.',
    })
    return
  }
  const id = newId()
  const { at, length, whom } = selection
  const { can } = actsHere(simulation, prop, pass.at + at)
  const act: PropAct = {
    id,
    at,
    length,
    prop: prop.id,
    act: FIRST_ACTS.find((one) => can.includes(one)) ?? 'carry',
    ...(whom && { who: [whom] }),
  }
  changeAll(session, `do something with ${prop.name}`, addAct(phrase, act))
  pickBeside(session, id)
}

/** Lets some parts dance what is selected, or all of them. */
export function giveSelected(session: Session, parts: readonly PartId[]): void {
  const state = session.getState()
  const ids = selectedEvents(state).map(({ id }) => id)
  if (ids.length === 0 || parts.length === 0) return
  changeAll(session, 'change who dances it', danceBy(ids, parts))
  const { selection } = session.getState()
  const isOfAll = parts.length === documentOf(state).parts?.length
  const whom = isOfAll ? undefined : (parts.find((id) => id === selection.whom) ?? parts[0])
  selectWhom(session, whom)
  const [event] = ids
  const { selection: now } = session.getState()
  select(session, { ...now, event })
}

export const keepSelected = (session: Session): void =>
  changeSelected(session, 'keep', (ids, events) =>
    edits.keep(ids, !events.every(({ kept }) => kept)),
  )

/** Moves what is selected in time, and the selection with it. */
export function moveSelected(session: Session, by: number, mark?: string): void {
  const before = selectedEvents(session.getState())[0]
  changeSelected(session, 'move', (ids) => edits.moveEvents(ids, by), mark)
  const after = before && edits.eventOf(documentOf(session.getState()), before.id)
  if (!after) return
  session.setState((state) => {
    const { selection } = state
    const at = tick(selection.at + after.at - before.at)
    return withSelectionInside({ ...state, selection: { ...selection, at } })
  })
}

/** Makes what is selected longer or shorter. */
export function stretchSelected(session: Session, by: number, mark?: string): void {
  changeSelected(
    session,
    'stretch',
    (ids) => edits.stretchEvents(ids, by, vocabularyOf(session.getState())),
    mark,
  )
  const [only] = selectedEvents(session.getState())
  if (only)
    session.setState((state) => ({
      ...state,
      selection: { ...state.selection, at: only.at, length: only.length, event: only.id },
    }))
}

/** Changes one shown event's own words or way of being danced. */
export function rewrite(
  session: Session,
  event: Event,
  changes: edits.EventChange,
  mark?: string,
): void {
  const flipped = isFlipped(session.getState()) && !event.kept
  const { what, cue, note, ...rest } = changes
  const written = (text: string) => (flipped ? mirrorWords(text) : text)
  change(
    session,
    `change ${nameOf(event, vocabularyOf(session.getState()))}`,
    edits.changeEvent(event.id, {
      ...rest,
      ...(what && { what: flipped ? mirrorWhat(what) : what }),
      ...('cue' in changes && { cue: cue && written(cue) }),
      ...('note' in changes && { note: note && written(note) }),
    }),
    mark,
  )
}
