import { capital } from '../../capital'
import type { Event, Phrase } from '../../combination/combination'
import { dancedIn } from '../../combination/lengths'
import { changePhrase, type Edit, inOrder } from '../../edits/edit'
import * as edits from '../../edits/edits'
import { setPickup } from '../../edits/phrases'
import { mirrorPlaces, placesAtEnds } from '../../joins/meets'
import { COUNT, endOf, HALF_COUNT, type Tick, tick } from '../../time/time'
import type { What } from '../../what/kinds'
import { comeBack } from '../comeBack'
import { type Case, named, type Try } from './case'

/** Some steps turned round or made smaller, so that it ends nearer to where it began. */
export function* walkBack({ combination, vocabulary, house }: Case): Generator<Try> {
  for (const { label, changed } of comeBack(combination, vocabulary, house))
    yield { label, make: () => changed }
}

const PLACE_OF = {
  'join.arms': 'arms',
  'join.hips': 'hips',
  'join.ribs': 'torso',
  'join.trunk': 'torso',
  'join.legs': 'legs',
  'join.gaze': 'head',
} as const

/** Back to where the round begins, on the last count or its half; or there again on count 1. */
export function* returns({
  finding,
  combination,
  checked,
  vocabulary,
  newId,
}: Case): Generator<Try> {
  const layer = PLACE_OF[finding.code as keyof typeof PLACE_OF]
  if (!('into' in finding) || !layer) return
  const { begins } = placesAtEnds(checked.lead)
  const places = finding.into === 'switch' ? mirrorPlaces(begins) : begins
  const what: What =
    layer === 'arms'
      ? { kind: 'arms', ...places.arms }
      : layer === 'legs'
        ? { kind: 'legs', ...places.legs }
        : layer === 'head'
          ? { kind: 'look', gaze: places.gaze }
          : finding.code === 'join.trunk'
            ? { kind: 'trunk', place: places.trunk }
            : { kind: 'at', place: layer === 'hips' ? places.hips : places.ribs }
  const put = (pass: number, at: (phrase: Phrase) => Tick): Edit | undefined => {
    const entry = combination.order.at(pass)
    const phrase = combination.phrases.find(({ id }) => id === entry?.phrase)
    if (!phrase || entry?.mirrored) return undefined
    const event: Event = { id: newId(), layer, at: at(phrase), what }
    const isTaken = dancedIn(phrase, vocabulary).some(
      (other) => other.layer === layer && other.at < event.at + COUNT && endOf(other) > event.at,
    )
    const cut = changePhrase(phrase.id, (now) => ({
      ...now,
      events: inOrder([
        ...now.events
          .filter((other) => !(other.layer === layer && other.at >= event.at && pass !== 0))
          .map((other) =>
            other.layer === layer &&
            other.at < event.at &&
            other.length !== undefined &&
            other.at + other.length > event.at
              ? { ...other, length: tick(event.at - other.at) }
              : other,
          ),
        event,
      ]),
    }))
    return isTaken && pass === 0 ? undefined : cut
  }
  const word = finding.starts
  const endOn = (length: Tick) => put(-1, ({ counts }) => tick(counts * COUNT - length))
  const tries: readonly [string, Edit | undefined][] = [
    [`${word} on the last count`, endOn(COUNT)],
    [`${word} on the last half count`, endOn(HALF_COUNT)],
    [`${word} again on count 1`, finding.into === 'repeat' ? put(0, () => tick(0)) : undefined],
  ]
  for (const [label, make] of tries) if (make) yield { label: capital(label), make }
}

/** The pickup before the first round only; or what it takes the place of is no longer written. */
export function* leadInOnce({ combination, finding, phrase }: Case): Generator<Try> {
  const { pickup } = combination
  if (!pickup) return
  yield { label: 'Dance the pickup only once', make: setPickup(pickup.counts, false) }
  // Where the phrase is danced elsewhere too, it needs its end there.
  if (combination.order.filter((entry) => entry.phrase === phrase?.id).length === 1)
    yield { label: 'Leave out what is not danced', make: edits.removeEvents(finding.events) }
}

/** A round that lasts at one height does not leave it. */
export function* levelOut(one: Case): Generator<Try> {
  const { combination } = one
  const lower = combination.phrases
    .flatMap(({ events }) => events)
    .findLast(({ what }) => what.kind === 'foot' && what.action.primitive === 'lower')
  if (lower) yield { label: `Leave ${named(one, lower)} out`, make: edits.removeEvents([lower.id]) }
}
