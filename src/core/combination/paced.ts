import { shippedFor, type Vocabulary } from '../moves/vocabulary'
import { type Tick, tick } from '../time/time'
import { repeatsOf } from '../what/repeats'
import type { Between } from './between'
import type { PropAct } from './carried'
import type { Combination, Phrase } from './combination'
import { type DancedEvent, dancedIn } from './lengths'
import type { Pace } from './pace'
import { stepsOf } from './steps'

/**
 * A phrase twice as fast, or half as fast, than it is written; undefined where that leaves no whole
 * counts, or a moment nobody can count.
 */
export function pacedPhrase(
  written: Phrase,
  pace: Pace,
  vocabulary: Vocabulary,
): Phrase | undefined {
  // How long a move lasts, and each time of it, is said: else it would be as it ever is.
  const events = dancedIn(written, vocabulary).flatMap((event) => {
    const { what, length } = event
    // A figure of the feet has its own times: it is danced step by step.
    if (event.layer === 'feet' && what.kind === 'move') return singleSteps(event, vocabulary)
    const move = what.kind === 'move' ? vocabulary.find(what.move) : undefined
    return move && what.kind === 'move'
      ? { ...event, what: { ...what, every: repeatsOf(what, length, move).every } }
      : event
  })
  const { remarks = [], between = [], voices = [], props = [] } = written
  const times = [
    written.counts,
    ...events.flatMap(({ at, length, what }) => [
      at,
      length,
      what.kind === 'move' ? what.every : 0,
    ]),
    ...remarks.flatMap(({ at, length = 0, for: due = 0 }) => [at, length, due]),
    ...[...between, ...props].flatMap(({ at, length }) => [at, length]),
    ...voices.map(({ by }) => by),
  ]
  if (!times.every((time) => Number.isInteger((time ?? 0) / pace))) return undefined
  const scaled = (ticks: number): Tick => tick(ticks / pace)
  const inPace = <T extends Between | PropAct>(one: T): T => ({
    ...one,
    at: scaled(one.at),
    length: scaled(one.length),
  })
  const { remarks: own, ...phrase } = written
  return {
    ...phrase,
    counts: written.counts / pace,
    events: events.map(
      ({ until: _, isCut: __, ways: ___, putsDown: ____, whole: _____, ...event }) => ({
        ...event,
        ...(event.held !== undefined && { held: tick(Math.max(1, Math.round(event.held / pace))) }),
        at: scaled(event.at),
        length: scaled(event.length),
        what:
          event.what.kind === 'move' && event.what.every !== undefined
            ? { ...event.what, every: scaled(event.what.every) }
            : event.what,
      }),
    ),
    ...(between.length > 0 && { between: between.map(inPace) }),
    ...(props.length > 0 && { props: props.map(inPace) }),
    ...(voices.length > 0 && {
      voices: voices.map((one) => ({ ...one, by: scaled(one.by) })),
    }),
    ...(own && {
      remarks: own.map((remark) => ({
        ...remark,
        at: scaled(remark.at),
        ...(remark.length !== undefined && { length: scaled(remark.length) }),
        ...(remark.for !== undefined && { for: scaled(remark.for) }),
      })),
    }),
  }
}

/** A figure as its single steps, each to the next one. */
export function singleSteps(event: DancedEvent, vocabulary: Vocabulary): readonly DancedEvent[] {
  const steps = stepsOf(event, vocabulary)
  // A step is small or large, and not so much of itself.
  const { size: _, ...figure } = event
  return steps.map(({ at, action }, i): DancedEvent => {
    const next = steps.find((one) => one.at > at)?.at ?? event.length
    const { cue: __, note: ___, words: ____, ...later } = figure
    return {
      // What is said of it is said once.
      ...(i === 0 ? figure : later),
      id: `${event.id} ${i}`,
      at: tick(event.at + at),
      length: tick(Math.max(1, next - at)),
      what: { kind: 'foot', action },
    }
  })
}

/** Whether all of a combination can be danced at a pace. */
export const canPace = (combination: Combination, pace: Pace): boolean =>
  combination.order.every(({ phrase }) => {
    const written = combination.phrases.find(({ id }) => id === phrase)
    return (
      written !== undefined && pacedPhrase(written, pace, shippedFor(combination)) !== undefined
    )
  })
