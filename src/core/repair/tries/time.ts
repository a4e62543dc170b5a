import { dancedIn } from '../../combination/lengths'
import * as edits from '../../edits/edits'
import { COUNT, endOf, tick } from '../../time/time'
import { type Case, changeOf, named, type Try } from './case'

/** Repeats R L R L, so that each begins where the one before ended. */
export function* takeTurns({ event }: Case): Generator<Try> {
  if (event?.what.kind === 'move' && event.what.every && !event.what.alt)
    yield {
      label: 'Let the repeats take turns',
      make: changeOf(event, { what: { ...event.what, alt: true } }),
    }
}

/** What comes before on the layer ends sooner, so that there is time for the way. */
export function* endEarlier(one: Case): Generator<Try> {
  const { event, phrase, vocabulary } = one
  if (!event || !phrase) return
  const before = dancedIn(phrase, vocabulary).findLast(
    (other) =>
      other.layer === event.layer && other.at < event.at && endOf(other) > event.at - COUNT,
  )
  if (!before) return
  for (const by of [3, 6, 12]) {
    const length = event.at - by - before.at
    if (length > 0)
      yield {
        label: `End ${named(one, before)} ${by === 12 ? 'a count' : by === 6 ? 'half a count' : 'a quarter'} sooner`,
        make: changeOf(before, { length: tick(length) }),
      }
  }
}

/** Longer by half a count or more, as far as the layer is free behind. */
export function* longer(one: Case): Generator<Try> {
  const { event, phrase } = one
  if (!event || !phrase) return
  const next = Math.min(
    phrase.counts * COUNT,
    ...phrase.events
      .filter((other) => other.layer === event.layer && other.at > event.at)
      .map(({ at }) => at),
  )
  for (const by of [6, 12, 24, 36, 48])
    if (endOf(event) + by <= next)
      yield {
        label: `Give it ${by === 6 ? 'half a count' : by === 12 ? 'a count' : `${by / 12} counts`} more`,
        make: changeOf(event, { length: tick(event.length + by) }),
      }
}

/** Without the way through another place. */
export function* noDetour({ event }: Case): Generator<Try> {
  if (event?.what.kind !== 'arms' || !event.what.via) return
  const { via: _, ...what } = event.what
  yield { label: 'Take the straight way', make: changeOf(event, { what }) }
}

/** Repeats further apart, or fewer swings a count. */
export function* lessOften({ event, vocabulary }: Case): Generator<Try> {
  const { what, rate } = event ?? {}
  const move = what?.kind === 'move' ? vocabulary.find(what.move) : undefined
  if (!event || what?.kind !== 'move' || !move) return
  for (const by of [1.5, 2, 3, 4]) {
    const every = (what.every ?? move.length) * by
    if (what.every && Number.isInteger(every) && every <= event.length)
      yield {
        label: `Every ${every / COUNT} counts`,
        make: changeOf(event, { what: { ...what, every: tick(every) } }),
      }
    if (rate !== undefined)
      yield {
        label: `${Math.round((rate / by) * 100) / 100} times a count`,
        make: changeOf(event, { rate: rate / by }),
      }
  }
}

/** A place that is nearer to the body. */
export function* nearerArms({ event }: Case): Generator<Try> {
  if (!event) return
  for (const place of ['demi-second', 'level', 'low'] as const)
    yield {
      label: `Arms ${place} instead`,
      make: changeOf(event, { what: { kind: 'arms', R: place, L: place } }),
    }
}

/** As long as the figure needs, once or more. */
export function* fillRange(one: Case): Generator<Try> {
  const { event, vocabulary } = one
  const move = event?.what.kind === 'move' ? vocabulary.find(event.what.move) : undefined
  if (!event || !move || event.what.kind !== 'move') return
  const every = event.what.every ?? move.length
  const times = Math.floor(event.length / every)
  for (const count of [times, times + 1])
    if (count > 0)
      yield {
        label: `${count === 1 ? 'Once' : `${count} times`}, ${(count * every) / COUNT} counts`,
        make: changeOf(event, { length: tick(count * every) }),
      }
}

/** The second of two that clash begins where the first ends. */
export function* after(one: Case): Generator<Try> {
  const { finding, event, phrase, vocabulary } = one
  const first = phrase && dancedIn(phrase, vocabulary).find(({ id }) => id === finding.events[1])
  if (!event || !first || !phrase) return
  const at = endOf(first)
  if (at + event.length <= phrase.counts * COUNT)
    yield {
      label: `Start ${named(one, event)} when ${named(one, first)} is over`,
      make: edits.moveEvents([event.id], at - event.at),
    }
  const length = event.at - first.at
  if (length > 0)
    yield {
      label: `End ${named(one, first)} there`,
      make: changeOf(first, { length: tick(length) }),
    }
}
