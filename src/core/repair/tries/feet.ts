import { type FootAction, factsOf } from '../../body/feet'
import { otherSide, sideWord } from '../../body/side'
import { changeEvents } from '../../edits/edit'
import * as edits from '../../edits/edits'
import { applyRepair } from '../../repair/apply'
import { editWords, repairFeet } from '../../repair/feet'
import type { RepairGoal } from '../../repair/feetEdit'
import { COUNT, HALF_COUNT, tick } from '../../time/time'
import { type Case, footOf, putStep, stepAs, type Try } from './case'

/** The cheapest ways to put the feet right for a goal, each as one change. */
export function* feetTries(
  { combination, vocabulary, house, newId }: Case,
  goal: RepairGoal,
): Generator<Try> {
  for (const { edits: found } of repairFeet(combination, goal, vocabulary, house)) {
    const words = found.map((edit) => {
      const { at, from, to } = editWords(edit, combination)
      return from ? `${at}: ${to} for ${from}` : `${at}: ${to}`
    })
    if (found.length > 0)
      yield {
        label: words.join('; '),
        make: (now) => applyRepair(now, found, vocabulary, newId),
      }
  }
}

/** The foot that hangs in the air comes down where it was lifted. */
export function* touchBefore({ finding, checked, combination }: Case): Generator<Try> {
  const pass = checked.lead.passes[finding.spot.pass]
  const until = (pass?.at ?? 0) + finding.spot.at
  const lifted = checked.lead.danced.findLast(
    ({ at, action }) => at < until && factsOf(action.primitive).contact === 'air',
  )
  const event = lifted && edits.eventOf(combination, lifted.event.id)
  const action = footOf(event)
  if (event && action)
    yield {
      label: `Touch instead of the ${action.primitive}`,
      make: stepAs(event, { ...action, primitive: 'touch' }),
    }
}

/** The same on the other foot. */
export function* otherFoot({ event }: Case): Generator<Try> {
  const action = footOf(event)
  if (event && action?.foot)
    yield {
      label: `On the ${sideWord[otherSide[action.foot]]} foot`,
      make: stepAs(event, { ...action, foot: otherSide[action.foot] }),
    }
}

/** A foot that was left out comes home half a count before. */
export function* comesHome(one: Case): Generator<Try> {
  const { event, finding, phrase } = one
  if (!event || !phrase || finding.code !== 'feet.left-out') return
  const at = tick(event.at - HALF_COUNT)
  if (at < 0 || phrase.events.some((other) => other.layer === 'feet' && other.at === at)) return
  const touch: FootAction = { primitive: 'touch', foot: finding.foot, direction: 'together' }
  yield { label: 'Touch home before it', make: putStep(one, phrase, at, touch) }
}

/** A step in place of a hop, a leap or a jump. */
export function* stepped({ event }: Case): Generator<Try> {
  const action = footOf(event)
  if (event && action?.primitive === 'leap')
    yield { label: 'Step it', make: stepAs(event, { ...action, primitive: 'step' }) }
}

/** The step itself, smaller. */
export function* small({ event }: Case): Generator<Try> {
  const action = footOf(event)
  if (event && action)
    yield { label: 'Make it small', make: stepAs(event, { ...action, size: 'small' }) }
}

/** Takes out the level words that stand before. */
export function* without({ finding, checked }: Case, words: readonly string[]): Generator<Try> {
  const pass = checked.lead.passes[finding.spot.pass]
  const until = (pass?.at ?? 0) + finding.spot.at
  const word = checked.lead.danced.findLast(
    ({ at, action }) => at <= until + COUNT * 4 && words.includes(action.primitive),
  )
  if (word && word.event.what.kind === 'foot')
    yield {
      label: `Leave the ${word.action.primitive} out`,
      make: edits.removeEvents([word.event.id]),
    }
}

/** Every step that travels, one size smaller. */
export function* smallSteps({ combination }: Case): Generator<Try> {
  const travelling = combination.phrases.flatMap(({ events }) =>
    events.filter((event) => {
      const action = footOf(event)
      return action?.direction && action.direction !== 'in-place' && !event.kept
    }),
  )
  const ids = new Set(travelling.map(({ id }) => id))
  const smaller = (action: FootAction): FootAction => {
    const { size, ...rest } = action
    return size === 'large' ? rest : { ...rest, size: 'small' }
  }
  if (ids.size > 0)
    yield {
      label: 'Make all steps one size smaller',
      make: changeEvents(ids, (event) =>
        event.what.kind === 'foot'
          ? { ...event, what: { kind: 'foot', action: smaller(event.what.action) } }
          : event,
      ),
    }
}

/** A foot that hangs comes down, and who stands on the toes or deep comes out of it in between. */
export function* putDown(one: Case): Generator<Try> {
  const { finding, event, phrase } = one
  if ((finding.code !== 'balance.long' && finding.code !== 'legs.long') || !event || !phrase) return
  const isDown = finding.code === 'legs.long'
  const isAir = !isDown && finding.what === 'air'
  const taken = phrase.events.filter(({ layer }) => layer === 'feet')
  const later = isDown ? [8, 4, 2].map((counts) => counts * COUNT) : [COUNT, HALF_COUNT, 2 * COUNT]
  for (const by of later) {
    const at = tick(finding.spot.at + by)
    if (
      at + HALF_COUNT > phrase.counts * COUNT ||
      (!isDown && taken.some((other) => other.at === at))
    )
      continue
    const action: FootAction = isAir
      ? { primitive: 'touch', foot: finding.foot ?? 'R', direction: 'in-place' }
      : { primitive: isDown ? 'up' : 'lower' }
    yield {
      label: isAir
        ? 'Put the foot down with a touch'
        : isDown
          ? 'Come up in between'
          : 'Come down in between',
      make: putStep(one, phrase, at, action),
    }
  }
}
