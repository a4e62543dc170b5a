import type { Layer } from '../../core/body/layers'
import { LAYERS } from '../../core/body/layers'
import { otherSide, type Side } from '../../core/body/side'
import type { Between } from '../../core/combination/between'
import type { PropAct } from '../../core/combination/carried'
import { type Combination, type Phrase, usesLayer } from '../../core/combination/combination'
import { bothOf, type Dancing, isLead, isSameDancing, leadOf } from '../../core/combination/dancing'
import type { DancedEvent } from '../../core/combination/lengths'
import { againId, withTried } from '../../core/combination/options'
import { partIds, partOf } from '../../core/combination/partOf'
import { leadingInto, type Pass, phraseDanced, pickupBefore } from '../../core/combination/passes'
import { voiceOf } from '../../core/combination/voice'
import { isOwnOf, isShared, ONLY_PART, type PartId } from '../../core/combination/whose'
import { betweenOf } from '../../core/edits/between'
import { ownId } from '../../core/edits/forPart'
import { actOf } from '../../core/edits/props'
import type { Vocabulary } from '../../core/moves/vocabulary'
import type { History } from '../../core/record/history'
import { footMeant } from '../../core/simulate/footMeant'
import { type Simulation, stateBefore } from '../../core/simulate/simulate'
import { hereIn } from '../../core/suggest/here'
import { TICKS_PER_COUNT, type Tick, tick } from '../../core/time/time'
import type { Here } from '../../core/writing/wanted'
import { checkedOf, simulationFrom } from './checked'

/** Which lines of the braid are shown: as led, the other side, or both count under count. */
export type LinesShown = 'lead' | 'other' | 'both'

/** Some counts of one layer or more, from a place of a line on; it may run on into the lines behind. */
export interface Selection {
  readonly dancing: Dancing
  /** The part whose own line it is in: what is changed there is hers; absent in the line of all. */
  readonly whom?: PartId | undefined
  readonly pass: number
  readonly layer: Layer
  /** The other end of a block of layers; absent for one layer. */
  readonly toLayer?: Layer | undefined
  readonly at: Tick
  readonly length: Tick
  /** One event was picked, not all that starts here. */
  readonly event?: string | undefined
}

/** An option of a phrase, by the phrase's id. */
export interface Trying {
  readonly phrase: string
  readonly option: string
}

export interface SessionState {
  readonly history: History<Combination>
  readonly shown: LinesShown
  readonly selection: Selection
  /** What stands beside the moves and was picked, by its id: what two do with each other, or what is done with a thing. */
  readonly beside?: string | undefined
  /** What was placed lately, the last first: it is offered before the rest. */
  readonly recent: readonly string[]
  /** What is being typed to find a move; absent while nothing is. */
  readonly query?: string | undefined
  /** The layer chosen on the standing body: only it and the feet are shown, heard and danced. */
  readonly only?: Layer | undefined
  /** What a repair or a proposal would make of it: drawn in the braid, not taken yet. */
  readonly preview?: Combination | undefined
  /** The option a phrase is shown with, danced with and changed in, wherever it stands in the order. */
  readonly trying?: Trying | undefined
  /** Said to screen readers, and shown for a while. */
  readonly message: string
}

/** The combination of a session as it is written: what is kept, exported and typed as a sheet. */
export const writtenOf = (state: SessionState): Combination => state.history.present

/** The combination of a session as it is looked at and changed: with the option that is tried. */
export const documentOf = ({ history, trying }: SessionState): Combination =>
  trying ? withTried(history.present, trying.phrase, [trying.option]) : history.present

/** The option that what is changed now belongs to: the one that is tried, or that is danced at the selection. */
export function optionChanged(state: SessionState): Trying | undefined {
  const { trying, history, selection } = state
  const { order, phrases } = history.present
  const hasIt = ({ phrase, option }: Trying) =>
    phrases.some(({ id, options }) => id === phrase && options?.some(({ name }) => name === option))
  if (trying) return hasIt(trying) ? trying : undefined
  const entry = order[selection.pass]
  const picked = entry?.options?.findLast((option) => hasIt({ phrase: entry.phrase, option }))
  return entry && picked !== undefined ? { phrase: entry.phrase, option: picked } : undefined
}

/** What the selected part dances, with its own start and lead side. */
export const danceOf = (state: SessionState): Combination =>
  partOf(documentOf(state), state.selection.dancing.part)

/** One line of the braid before it is drawn: a phrase as all dance it, or what a part has of her own there. */
interface LineShown {
  readonly pass: number
  readonly dancing: Dancing
  readonly whom: PartId | undefined
  readonly layers: ReadonlySet<Layer>
}

/** The part in whose dancing the line of all is shown: the first one that is nobody's image. */
export const shownPart = ({ parts }: Combination): PartId =>
  (parts?.find(({ mirrored }) => !mirrored) ?? parts?.[0])?.id ?? ONLY_PART

/** The lines of the braid, from the top: of several dancers what all dance, and under it what some do. */
export function linesShown(state: SessionState): readonly LineShown[] {
  const combination = documentOf(state)
  const layers = layersShown(state)
  const sidesOf = (part: PartId) => {
    const both = bothOf(combination, part)
    return state.shown === 'both' ? both : both.slice(state.shown === 'lead' ? 0 : 1).slice(0, 1)
  }
  const all = sidesOf(shownPart(combination))
  return combination.order.flatMap((_, pass) =>
    all.flatMap((dancing, side): readonly LineShown[] => [
      { pass, dancing, whom: undefined, layers },
      ...(combination.parts ?? []).flatMap(({ id }): readonly LineShown[] => {
        const own = ownLayers(state, pass, id)
        const hers = sidesOf(id)[side]
        return own.size > 0 && hers
          ? [
              {
                pass,
                dancing: hers,
                whom: id,
                layers: new Set([...layers].filter((one) => own.has(one))),
              },
            ]
          : []
      }),
    ]),
  )
}

/** The layers of which a part has anything of her own in a dancing of a phrase, or is being given it. */
function ownLayers(state: SessionState, pass: number, part: PartId): ReadonlySet<Layer> {
  const phrase = phraseAt(state, pass)
  const { selection } = state
  const waits = phrase?.between?.some(({ what }) => what.kind === 'wait' && what.of.includes(part))
  return new Set([
    ...(phrase?.events.filter((event) => isOwnOf(event, part)).map(({ layer }) => layer) ?? []),
    ...(phrase && voiceOf(phrase, part) ? ledLayers(documentOf(state), phrase.id, part) : []),
    ...(waits ? (['feet'] as const) : []),
    ...(selection.whom === part && selection.pass === pass ? layersSelected(selection) : []),
  ])
}

/** The layers on which a part dances what she has from another one. */
const ledLayers = (combination: Combination, phrase: string, part: PartId): readonly Layer[] =>
  partOf(combination, part).phrases.flatMap(({ id, events }) =>
    id === phrase ? events.map(({ layer }) => layer) : [],
  )

/** Whether a line is the one a selection stands in. */
export const isLineOf = (
  {
    dancing,
    whom,
    pass,
  }: { readonly dancing: Dancing; readonly whom?: PartId | undefined; readonly pass: number },
  selection: Selection,
): boolean =>
  pass === selection.pass && whom === selection.whom && isSameDancing(dancing, selection.dancing)

/** The layers that are shown, heard and danced: all, or the feet and a chosen one. */
export const layersOf = (only: Layer | undefined): ReadonlySet<Layer> =>
  new Set(only ? ['feet', only] : LAYERS)

/** What is shown in the braid: the legs only where they do something, or are looked at. */
export function layersShown(state: SessionState): ReadonlySet<Layer> {
  const { only, selection } = state
  const shown = layersOf(only)
  if (only !== undefined || selection.layer === 'legs' || usesLayer(documentOf(state), 'legs'))
    return shown
  return WITHOUT_LEGS
}

const WITHOUT_LEGS: ReadonlySet<Layer> = new Set(LAYERS.filter((layer) => layer !== 'legs'))

/** The phrase a pass dances, as it is written. */
export const phraseAt = (state: SessionState, pass: number): Phrase | undefined =>
  phraseDanced(documentOf(state), pass)

export const passOf = (state: SessionState, { dancing, pass }: Selection): Pass | undefined =>
  simulationFrom(documentOf(state), dancing).passes[pass]

/** The layers of a block selection, from head to feet or the other way round. */
export function layersSelected({ layer, toLayer = layer }: Selection): readonly Layer[] {
  const [from, to] = [LAYERS.indexOf(layer), LAYERS.indexOf(toLayer)].sort((a, b) => a - b)
  return LAYERS.slice(from, (to ?? 0) + 1)
}

/** An event as it is danced in a pass of a side. */
interface EventInPass {
  readonly pass: Pass
  readonly event: DancedEvent
}

/** The events a selection means, each with its pass; a phrase danced twice has its events twice. */
export function selectedInPasses(state: SessionState): readonly EventInPass[] {
  const { selection } = state
  const first = passOf(state, selection)
  if (!first) return []
  const { passes } = simulationFrom(documentOf(state), selection.dancing)
  const early = leadingInto(passes, first).events
  const hasParts = documentOf(state).parts !== undefined
  // In the line of all stands what all dance; in a part's own line all that she does.
  const isThere = (event: DancedEvent) =>
    !hasParts || selection.whom !== undefined || isShared(event)
  if (selection.event)
    return [...early, ...first.events]
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
        : (pass === first ? [...early, ...pass.events] : pass.events)
            .filter(
              (event) =>
                layers.includes(event.layer) &&
                pass.at + event.at >= from &&
                pass.at + event.at < to &&
                isThere(event),
            )
            .map((event) => ({ pass, event })),
    )
}

/** The events a selection means, as they are danced on its side, each once. */
export function selectedEvents(state: SessionState): readonly DancedEvent[] {
  const seen = new Map(selectedInPasses(state).map(({ event }) => [event.id, event]))
  return [...seen.values()]
}

/** What two do with each other that was picked, as it is danced where the selection stands. */
export function meetingPicked(state: SessionState): Between | undefined {
  const { beside } = state
  return beside === undefined ? undefined : betweenOf(documentOf(state), beside)
}

/** What is done with a thing that was picked. */
export function actPicked(state: SessionState): PropAct | undefined {
  const { beside } = state
  return beside === undefined ? undefined : actOf(documentOf(state), beside)
}

/** The vocabulary an open combination is read by. */
export const vocabularyOf = (state: SessionState): Vocabulary =>
  checkedOf(documentOf(state)).lead.vocabulary

/** Whether what is shown in the selected line is the mirror image of what is stored. */
export function isFlipped(state: SessionState): boolean {
  const { history, selection } = state
  const mirrored = history.present.order[selection.pass]?.mirrored ?? false
  const isTurned = !isLead(history.present, selection.dancing) !== mirrored
  // What all dance is stored as they do, also where nobody but their image is there to show it.
  const part = history.present.parts?.find(({ id }) => id === selection.dancing.part)
  return isTurned !== (selection.whom === undefined && part?.mirrored === true)
}

/** Keeps the selection inside what there is. */
/** An event that is there still, under its own id or the one it has in an option. */
function eventThere(state: SessionState, id: string): string | undefined {
  const { phrases } = writtenOf(state)
  const ids = new Set(
    phrases.flatMap(({ events, options = [] }) =>
      [...events, ...options.flatMap((option) => option.events)].map((one) => one.id),
    ),
  )
  const changed = optionChanged(state)
  const own = state.selection.whom && ownId(id, state.selection.whom)
  if (own && ids.has(own)) return own
  const again = changed && againId(id, changed.option)
  return again && ids.has(again) ? again : ids.has(id) ? id : undefined
}

export function withSelectionInside(state: SessionState): SessionState {
  const { selection, history } = state
  const pass = Math.min(selection.pass, history.present.order.length - 1)
  const phrase = history.present.phrases.find(
    ({ id }) => id === history.present.order[pass]?.phrase,
  )
  const end = (phrase?.counts ?? 1) * TICKS_PER_COUNT
  const first = 0 - pickupBefore(history.present, pass)
  const at = Math.max(first, Math.min(selection.at, end - 1))
  const behind = history.present.order
    .slice(pass + 1)
    .reduce((sum, entry) => sum + (countsOf(history.present, entry.phrase) ?? 0), 0)
  const length = Math.min(selection.length, end + behind * TICKS_PER_COUNT - at)
  const event = selection.event && eventThere(state, selection.event)
  return {
    ...state,
    selection: {
      ...withPartThere(selection, history.present),
      pass,
      at: tick(at),
      length: tick(length),
      event,
    },
  }
}

/** A part that is gone takes the selection to what all dance. */
function withPartThere(selection: Selection, combination: Combination): Selection {
  const { dancing, whom } = selection
  const known = partIds(combination)
  const part = known.includes(dancing.part) ? dancing.part : shownPart(combination)
  if (part === dancing.part && (whom === undefined || known.includes(whom))) return selection
  const lead = leadOf(combination, part)
  return { ...selection, dancing: lead, whom: undefined }
}

const countsOf = ({ phrases }: Combination, id: string): number | undefined =>
  phrases.find((phrase) => phrase.id === id)?.counts

/** What is drawn: the combination, or what it would become by what is being looked at. */
export const drawnState = (state: SessionState): SessionState =>
  state.preview
    ? withSelectionInside({
        ...state,
        trying: undefined,
        history: { ...state.history, present: state.preview },
      })
    : state

/** Events that are not as they were: new, changed, or moved. */
export function changedEvents(before: Combination, after: Combination): ReadonlySet<string> {
  const known = new Map(before.phrases.flatMap(({ events }) => events.map((one) => [one.id, one])))
  return new Set(
    after.phrases.flatMap(({ events }) =>
      events.filter((event) => known.get(event.id) !== event).map(({ id }) => id),
    ),
  )
}

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
  if (selection.layer === 'feet') return footMeant(weightAt(state), led, mirrored)
  return mirrored ? otherSide[led] : led
}

/** What decides what fits at the selection. */
export function hereAt(state: SessionState): Here {
  const { selection, recent } = state
  const simulation = simulationFrom(documentOf(state), selection.dancing)
  return hereIn(simulation, selection.pass, selection.layer, selection.at, recent)
}
