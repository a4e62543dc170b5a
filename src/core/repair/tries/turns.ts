import { shorterWay } from '../../body/facing'
import { factsOf } from '../../body/feet'
import { negated } from '../../body/side'
import type { Event, Phrase } from '../../combination/combination'
import { changePhrase, type Edit } from '../../edits/edit'
import * as edits from '../../edits/edits'
import { shareTurn } from '../../edits/turns'
import { HALF_COUNT, tick } from '../../time/time'
import { type Case, footOf, putStep, stepAs, type Try } from './case'

/** Half of the turn goes to the next step. */
export function* shared({ event }: Case): Generator<Try> {
  if (event) yield { label: 'Share the turn with the next step', make: shareTurn(event.id) }
}

/** Onto the toes for the turn: with it, or half a count before. */
export function* rises(one: Case): Generator<Try> {
  const { event, phrase } = one
  const action = footOf(event)
  if (!event || !phrase || !action) return
  const at = action.primitive === 'pivot' ? event.at : tick(event.at - HALF_COUNT)
  if (at >= 0) yield { label: 'Rise for it', make: putStep(one, phrase, at, { primitive: 'rise' }) }
}

/** The same turn to the other side. */
export function* otherWayRound({ event }: Case): Generator<Try> {
  const action = footOf(event)
  if (!event || !action?.turn) return
  const turn = negated(action.turn)
  yield {
    label: `Turn to the ${turn > 0 ? 'right' : 'left'}`,
    make: stepAs(event, { ...action, turn }),
  }
}

/** The written facing as the turns add up, or none. */
export function* facings({ finding, phrase, combination }: Case): Generator<Try> {
  if (!phrase || finding.code !== 'turn.sum') return
  const { at, pass } = finding.spot
  const mirrored = combination.order[pass]?.mirrored ?? false
  const degrees = mirrored ? negated(finding.facing) : finding.facing
  const written = (change: NonNullable<Phrase['facings']>): Edit =>
    changePhrase(phrase.id, ({ facings: _, ...rest }) => ({
      ...rest,
      ...(change.length > 0 && { facings: change }),
    }))
  const others = (phrase.facings ?? []).filter((one) => one.at !== at)
  yield {
    label: `Write ${degrees}°`,
    make: written([...others, { at, degrees }].sort((a, b) => a.at - b.at)),
  }
  yield { label: 'Leave the written facing out', make: written(others) }
}

/** The last step turns what is missing to front; or the other wall is written down as meant. */
export function* faceFront(one: Case): Generator<Try> {
  const { finding, combination } = one
  if (finding.code !== 'join.facing') return
  const last = lastStep(one)
  const action = footOf(last)
  if (last && action && action.primitive !== 'hold') {
    const rest = shorterWay(negated(finding.turned))
    const turn = (action.turn ?? 0) + rest
    const { turn: _, ...plain } = action
    yield {
      label: `Turn ${Math.abs(rest)}° more to the ${rest > 0 ? 'right' : 'left'} on the last step`,
      make: stepAs(last, turn === 0 ? plain : { ...action, turn }),
    }
  }
  const phrase = combination.phrases.find(({ id }) => id === combination.order.at(-1)?.phrase)
  if (phrase && finding.severity === 'snag')
    yield {
      label: 'Write the facing: it is meant',
      make: changePhrase(phrase.id, (now) => ({
        ...now,
        facings: [...(now.facings ?? []), { at: finding.spot.at, degrees: finding.facing }],
      })),
    }
}

const lastStep = ({ checked, combination }: Case): Event | undefined => {
  const last = checked.lead.danced.findLast(({ action }) => factsOf(action.primitive).lands)
  return last && edits.eventOf(combination, last.event.id)
}
