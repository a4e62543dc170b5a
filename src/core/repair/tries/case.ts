import type { FootAction } from '../../body/feet'
import type { Combination, Event, Phrase } from '../../combination/combination'
import { formName, nearestForm } from '../../combination/forms'
import type { DancedEvent } from '../../combination/lengths'
import { nameOf } from '../../combination/names'
import type { Edit } from '../../edits/edit'
import * as edits from '../../edits/edits'
import { danceablesOf, tempoLimitsOf } from '../../findings/check'
import type { Checked } from '../../findings/checked'
import type { Finding } from '../../findings/finding'
import { formOf } from '../../forms/easier'
import { sameSide } from '../../forms/sameSide'
import type { House } from '../../house/house'
import { safeForm } from '../../moves/easing'
import type { Vocabulary } from '../../moves/vocabulary'
import type { Tick } from '../../time/time'

/** A change that may help; it is only offered when it does. */
export interface Try {
  readonly label: string
  readonly make: Edit
}

export interface Case {
  readonly combination: Combination
  readonly checked: Checked
  readonly finding: Finding
  /** As it is danced: a change of it says only what changes. */
  readonly event: DancedEvent | undefined
  readonly phrase: Phrase | undefined
  readonly vocabulary: Vocabulary
  readonly house: House
  readonly newId: () => string
}

/** What the class calls an event. */
export const named = ({ vocabulary }: Case, event: Event): string => nameOf(event, vocabulary)

/** Without one of the events it is about. */
export function* drop(one: Case, which: number): Generator<Try> {
  const id = one.finding.events[which]
  const event = id === undefined ? undefined : edits.eventOf(one.combination, id)
  if (event && id !== undefined)
    yield { label: `Leave ${named(one, event)} out`, make: edits.removeEvents([id]) }
}

/** A change of one event. */
export const changeOf = (event: Event, change: edits.EventChange): Edit =>
  edits.changeEvent(event.id, change)

/** The easier form, on the same side. */
export function* easier(one: Case): Generator<Try> {
  const { event, vocabulary } = one
  const form = event && nearestForm(event, 'easier', vocabulary)
  const what = form && formOf(form, event.what, vocabulary)
  if (!event || !what) return
  yield {
    label: `Dance ${formName(form, event.layer, vocabulary)} instead`,
    make: changeOf(event, { what, easier: undefined }),
  }
}

/** The first easier form that spares neck and back, on the same side. */
export function* safer({ event, vocabulary }: Case): Generator<Try> {
  const move = event?.what.kind === 'move' ? vocabulary.find(event.what.move) : undefined
  const form = move && safeForm(move, vocabulary)
  if (!event || !form) return
  yield {
    label: `Dance ${form.name.toLowerCase()} instead`,
    make: changeOf(event, { what: sameSide(form, event.what, vocabulary), easier: undefined }),
  }
}

/** The tempo at which there is time enough. */
export function* slower({ checked, finding }: Case): Generator<Try> {
  const limits = danceablesOf(checked)
    .filter(({ side }) => side === finding.side)
    .flatMap((danceable) => {
      const { tempoAt } = danceable.simulation.time
      return tempoLimitsOf(danceable, tempoAt).map((limit) => ({
        ...limit,
        now: limit.found(tempoAt(limit.at)),
      }))
    })
    .filter(({ now }) => {
      const { code, events } = now
      return code === finding.code && events[0] === finding.events[0]
    })
  const tempo = Math.floor(Math.min(...limits.map(({ most }) => most)))
  if (limits.length > 0 && tempo >= 40)
    yield { label: `Dance it at ${tempo}`, make: edits.describe({ tempo }) }
}

/** What the feet do, where it is a single step. */
export const footOf = (event: Event | undefined): FootAction | undefined =>
  event?.what.kind === 'foot' ? event.what.action : undefined

/** One more thing the feet do, on a tick of the phrase. */
export const putStep = ({ newId }: Case, phrase: Phrase, at: Tick, action: FootAction): Edit =>
  edits.placeEvent(phrase.id, { id: newId(), layer: 'feet', at, what: { kind: 'foot', action } })

/** A step danced as another one. */
export const stepAs = (event: Event, action: FootAction): Edit =>
  changeOf(event, { what: { kind: 'foot', action } })
