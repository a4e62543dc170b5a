import type { Layer } from '../body/layers'
import { claimOf } from '../combination/claims'
import type { Combination, Event, Phrase } from '../combination/combination'
import { type DancedEvent, dancedIn } from '../combination/lengths'
import { changeEvents, changePhrase, type Edit, inOrder } from '../edits/edit'
import type { Vocabulary } from '../moves/vocabulary'
import { COUNT, endOf, HALF_COUNT, overlap, type Span, tick } from '../time/time'

/** A flourish is laid over so many counts, no fewer. */
const LEAST = 4 * COUNT
/** A level adds so much, and no more. */
const MOST = 2

/**
 * What a higher level may add where nothing is written for it, at most two things: a shimmy over
 * hips that run through or are held, over a trunk that is free, accents twice as often. Each is a
 * flourish, on every place that is alike.
 */
export function additionsTo(combination: Combination, vocabulary: Vocabulary): readonly Edit[] {
  const { families } = combination
  const isOfFamily = (id: string) =>
    families.length === 0 ||
    vocabulary.find(id)?.families.some((family) => families.includes(family)) === true
  const over = (layer: Layer, move: string, spans: (phrase: Phrase) => readonly Span[]) =>
    isOfFamily(move) && combination.phrases.some((phrase) => spans(phrase).length > 0)
      ? [laidOver(combination, layer, move, spans)]
      : []
  const hips = (phrase: Phrase) =>
    dancedIn(phrase, vocabulary).filter((event) => isLongHips(event, phrase, vocabulary))
  const torso = (phrase: Phrase) => freeSpans(phrase, 'torso', vocabulary)
  return [
    ...over('hips', 'knee-shimmy', hips),
    ...over('torso', 'shoulder-shimmy', torso),
    ...twiceAsOften(combination),
  ].slice(0, MOST)
}

/** Hips that run through, or are held, for four counts or more, with no shimmy on them yet. */
function isLongHips(event: DancedEvent, phrase: Phrase, vocabulary: Vocabulary): boolean {
  if (event.layer !== 'hips' || event.length < LEAST) return false
  const { kind } = claimOf(event, vocabulary)
  if (kind !== 'path' && kind !== 'place') return false
  return !dancedIn(phrase, vocabulary).some(
    (other) =>
      other.layer === 'hips' &&
      claimOf(other, vocabulary).kind === 'texture' &&
      overlap(other, event),
  )
}

/** The last four counts of a phrase, where a layer has nothing in them. */
function freeSpans(phrase: Phrase, layer: Layer, vocabulary: Vocabulary): readonly Span[] {
  const end = phrase.counts * COUNT
  const from = end - LEAST
  const isFree =
    from >= 0 &&
    phrase.events.length > 0 &&
    !dancedIn(phrase, vocabulary).some((event) => event.layer === layer && endOf(event) > from)
  return isFree ? [{ at: tick(from), length: tick(LEAST) }] : []
}

/** A texture over spans of every phrase, as a flourish. */
const laidOver =
  (
    combination: Combination,
    layer: Layer,
    move: string,
    spans: (phrase: Phrase) => readonly Span[],
  ): Edit =>
  (now) =>
    combination.phrases.reduce((made, phrase) => {
      const added = spans(phrase).map(
        ({ at, length }): Event => ({
          id: `${move}-${phrase.id}-${at}`,
          layer,
          at,
          length,
          what: { kind: 'move', move },
          optional: true,
        }),
      )
      if (added.length === 0) return made
      return changePhrase(phrase.id, (one) => ({
        ...one,
        events: inOrder([...one.events, ...added]),
      }))(made)
    }, now)

/** Accents on every count, on every half count: all of one move together. */
function twiceAsOften({ phrases }: Combination): readonly Edit[] {
  const every = phrases
    .flatMap(({ events }) => events)
    .filter(({ what, kept }) => what.kind === 'move' && what.every === COUNT && !kept)
  const moves = new Set(every.map(({ what }) => (what.kind === 'move' ? what.move : '')))
  return [...moves].map((move) => {
    const ids = every.filter(({ what }) => what.kind === 'move' && what.move === move)
    return changeEvents(new Set(ids.map(({ id }) => id)), (event) =>
      event.what.kind === 'move' ? { ...event, what: { ...event.what, every: HALF_COUNT } } : event,
    )
  })
}
