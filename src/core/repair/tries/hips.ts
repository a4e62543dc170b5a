import { type FootAction, factsOf } from '../../body/feet'
import { otherSide } from '../../body/side'
import type { Edit } from '../../edits/edit'
import * as edits from '../../edits/edits'
import { COUNT } from '../../time/time'
import { type Case, footOf, stepAs, type Try } from './case'

/** The same move on the other side. */
export function* otherHip({ event }: Case): Generator<Try> {
  const side = event?.what.kind === 'move' ? event.what.side : undefined
  const way = event?.what.kind === 'move' ? event.what.way : undefined
  const now = side ?? (way && (way === 'cw' ? 'R' : 'L'))
  if (event && now)
    yield {
      label: `Use the ${otherSide[now] === 'R' ? 'right' : 'left'} side`,
      make: edits.changeSide([event.id], otherSide[now]),
    }
}

/** The feet's own part of a loaded hip: the step before on the ball, or a touch in its place. */
export function* onTheBall({ finding, checked, combination }: Case): Generator<Try> {
  const pass = checked.lead.passes[finding.spot.pass]
  const at = (pass?.at ?? 0) + finding.spot.at
  const step = checked.lead.danced.findLast(
    (danced) => danced.at <= at && danced.action.foot && factsOf(danced.action.primitive).lands,
  )
  const event = step && edits.eventOf(combination, step.event.id)
  const action = footOf(event)
  if (!event || !action) return
  yield { label: 'Step on the ball', make: stepAs(event, { ...action, contact: 'ball' }) }
  if (action.primitive === 'step' || action.primitive === 'close')
    yield {
      label: 'Touch instead of stepping',
      make: stepAs(event, {
        ...action,
        primitive: 'touch',
        direction: action.direction ?? 'together',
      }),
    }
}

/** What the feet must do first for a move: the weight shared, or the heel up. */
export function* ready({ finding, event, phrase, newId }: Case): Generator<Try> {
  if (finding.code !== 'move.needs' || !event || !phrase) return
  const put = (action: FootAction): Edit =>
    edits.placeEvent(phrase.id, {
      id: newId(),
      layer: 'feet',
      at: event.at,
      length: COUNT,
      what: { kind: 'foot', action },
    })
  const isTaken = phrase.events.some(({ layer, at }) => layer === 'feet' && at === event.at)
  if (isTaken) return
  if (finding.need === 'weight-both')
    yield { label: 'Share the weight first', make: put({ primitive: 'centre' }) }
  if (finding.need === 'flat-feet')
    yield { label: 'Lower first', make: put({ primitive: 'lower' }) }
  if (finding.need === 'weight-one' || finding.need === 'heel-up' || finding.need === 'free-leg') {
    const foot = finding.foot ?? 'R'
    yield {
      label: `Touch with the ${foot === 'R' ? 'right' : 'left'} foot first`,
      make: put({ primitive: 'touch', foot, direction: 'in-place' }),
    }
  }
}
