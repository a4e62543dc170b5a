import type { Combination, Event, Phrase } from '../combination/combination'
import { withoutLost } from '../combination/like'
import { freeName } from '../combination/names'
import { changePhrase, inOrder } from '../edits/edit'
import { openFigure } from '../edits/edits'
import type { Vocabulary } from '../moves/vocabulary'
import { HALF_COUNT, tick } from '../time/time'
import type { FeetEdit, OrderEdit, StepEdit } from './feetEdit'
import { linkSteps } from './link'

type PhraseEdit = Extract<FeetEdit, { phrase: string }>

/** Takes on the edits of a repair: phrases of their own first, then the steps, then the link. */
export function applyRepair(
  combination: Combination,
  edits: readonly FeetEdit[],
  vocabulary: Vocabulary,
  newId: () => string,
): Combination {
  const steps = edits.filter((edit): edit is PhraseEdit => 'phrase' in edit)
  const orders = edits.filter((edit): edit is OrderEdit => !('phrase' in edit))
  let changed = combination
  for (const edit of orders) if (edit.kind === 'other-side') changed = turned(changed, edit.pass)
  for (const edit of orders)
    if (edit.kind === 'own-phrase') {
      const own = steps.filter(({ pass }) => pass === edit.pass)
      changed = withOwnPhrase(changed, edit, own, vocabulary, newId)
    }
  const shared = steps.filter(({ pass }) => pass === undefined)
  for (const phrase of new Set(shared.map((edit) => edit.phrase)))
    changed = inPhrase(
      changed,
      phrase,
      shared.filter((edit) => edit.phrase === phrase),
      vocabulary,
      newId,
    )
  for (const edit of orders) if (edit.kind === 'link') changed = withLink(changed, edit, newId)
  return changed
}

const turned = (combination: Combination, pass: number): Combination => ({
  ...combination,
  order: combination.order.map((entry, i) =>
    i === pass ? { ...entry, mirrored: !entry.mirrored } : entry,
  ),
})

function withOwnPhrase(
  combination: Combination,
  { pass, twin }: { readonly pass: number; readonly twin?: number | undefined },
  edits: readonly StepEdit[],
  vocabulary: Vocabulary,
  newId: () => string,
): Combination {
  const entry = combination.order[pass]
  const phrase = combination.phrases.find(({ id }) => id === entry?.phrase)
  if (!entry || !phrase) return combination
  const ids = new Map(phrase.events.map(({ id }) => [id, newId()]))
  const { options: _, ...written } = phrase
  const own: Phrase = {
    ...written,
    id: newId(),
    name: freeName(combination.phrases, phrase.name),
    // The same but for what is mended: it goes on as the other one does.
    like: { phrase: phrase.id },
    events: phrase.events
      .filter(({ at }) => at >= 0 || pass === 0)
      .map((event) => ({ ...event, id: ids.get(event.id) ?? newId() })),
    ...(phrase.remarks && {
      remarks: phrase.remarks.map((remark) => ({ ...remark, id: newId() })),
    }),
    ...(phrase.between && {
      between: phrase.between.map((one) => ({ ...one, id: newId() })),
    }),
    ...(phrase.props && { props: phrase.props.map((one) => ({ ...one, id: newId() })) }),
  }
  const order = combination.order.map((one, i) =>
    i === pass || i === twin ? { ...one, phrase: own.id } : one,
  )
  const danced = new Set(order.map((one) => one.phrase))
  const added = {
    ...combination,
    phrases: withoutLost([...combination.phrases, own].filter(({ id }) => danced.has(id))),
    order,
  }
  const moved = edits.map((edit) => {
    const event = edit.event && ids.get(edit.event)
    return event ? { ...edit, event } : edit
  })
  return inPhrase(added, own.id, moved, vocabulary, newId)
}

function inPhrase(
  combination: Combination,
  phrase: string,
  edits: readonly StepEdit[],
  vocabulary: Vocabulary,
  newId: () => string,
): Combination {
  let changed = combination
  // A figure is opened before a step of it is changed.
  const opened = new Map<string, readonly string[]>()
  for (const { event, step } of edits) {
    if (event === undefined || step === undefined || opened.has(event)) continue
    const ids: string[] = []
    changed = openFigure(event, vocabulary, () => {
      const id = newId()
      ids.push(id)
      return id
    })(changed)
    opened.set(event, ids)
  }
  const idOf = ({ event = '', step }: StepEdit) =>
    step === undefined ? event : (opened.get(event)?.[step] ?? event)
  return changePhrase(phrase, (one) =>
    edits.reduce((now, edit) => withEdit(now, edit, idOf(edit), newId), one),
  )(changed)
}

function withEdit(phrase: Phrase, edit: StepEdit, id: string, newId: () => string): Phrase {
  const [first, second] = edit.to
  if (!first) return phrase
  if (edit.event === undefined)
    return withStep(phrase, {
      id: newId(),
      layer: 'feet',
      at: edit.at,
      what: { kind: 'foot', action: first },
    })
  const now = second ?? first
  const changed = {
    ...phrase,
    events: phrase.events.map((event) =>
      event.id === id ? { ...event, what: { kind: 'foot' as const, action: now } } : event,
    ),
  }
  if (!second) return changed
  return withStep(changed, {
    id: newId(),
    layer: 'feet',
    at: tick(edit.at - HALF_COUNT),
    what: { kind: 'foot', action: first },
  })
}

/** Puts a step in; what was written over its place ends there. */
const withStep = (phrase: Phrase, step: Event): Phrase => ({
  ...phrase,
  events: inOrder([
    ...phrase.events.map((event) =>
      event.layer === 'feet' &&
      event.length !== undefined &&
      event.at < step.at &&
      event.at + event.length > step.at
        ? { ...event, length: tick(step.at - event.at) }
        : event,
    ),
    step,
  ]),
})

function withLink(
  combination: Combination,
  { counts, foot }: Extract<OrderEdit, { kind: 'link' }>,
  newId: () => string,
): Combination {
  const id = newId()
  const events = linkSteps(counts, foot).map(
    ({ at, action }): Event => ({
      id: newId(),
      layer: 'feet',
      at,
      what: { kind: 'foot', action },
    }),
  )
  const link = { id, name: freeName(combination.phrases, 'link'), title: '', counts, events }
  return {
    ...combination,
    phrases: [...combination.phrases, link],
    order: [...combination.order, { phrase: id, mirrored: false }],
  }
}
