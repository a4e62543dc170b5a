import { removeRemark } from '../../edits/edits'
import { type Case, changeOf, putStep, type Try } from './case'

/** The knees bend where the hand goes down; or it goes as low as it gets. */
export function* downFirst(one: Case): Generator<Try> {
  const { event, finding, phrase } = one
  if (finding.code !== 'arms.low' || !event || !phrase || event.what.kind !== 'arms') return
  yield {
    label: 'Bend deep there',
    make: putStep(one, phrase, event.at, { primitive: 'bend', size: 'large' }),
  }
  const { R, L } = event.what
  const low = (place: typeof R) => (place === finding.place ? 'low' : place)
  yield {
    label: 'Take it to low',
    make: changeOf(event, {
      what: { ...event.what, ...(R && { R: low(R) }), ...(L && { L: low(L) }) },
    }),
  }
}

/** Over the shoulder that is nearer to what is behind one. */
export function* lookBack({ event, finding }: Case): Generator<Try> {
  if (finding.code !== 'look.behind' || !event) return
  const side = finding.degrees < 0 ? 'L' : 'R'
  yield {
    label: `Look back over the ${side === 'R' ? 'right' : 'left'} shoulder`,
    make: changeOf(event, { what: { kind: 'look', gaze: `back-${side}` } }),
  }
}

/** The word that prepares for nothing goes. */
export function* withoutPreparing({ finding, combination }: Case): Generator<Try> {
  const phrase = combination.phrases.find(({ name }) => name === finding.spot.phrase)
  const remark = phrase?.remarks?.find(
    ({ kind, at }) => kind === 'prepare' && at === finding.spot.at,
  )
  if (phrase && remark)
    yield { label: `Leave “${remark.text}” out`, make: removeRemark(phrase.id, remark.id) }
}
