import type { Direction } from '../body/feet'
import { otherWay } from '../body/side'
import type { Combination, Event, Phrase } from '../combination/combination'
import { dancedIn } from '../combination/lengths'
import { mirrorEvent } from '../combination/mirror'
import type { Edit } from '../edits/edit'
import { repeatPass, turnPass } from '../edits/phrases'
import { checkCombination } from '../findings/check'
import { severityOf } from '../findings/finding'
import type { House } from '../house/house'
import { type Vocabulary, vocabularyFor } from '../moves/vocabulary'
import { COUNT, tick } from '../time/time'
import type { What } from '../what/kinds'
import { fillPhrase } from './fill'
import { newFindings } from './suggest'

/** A phrase otherwise, or what answers it: in the words of a teacher. */
export interface Variation {
  readonly words: string
  readonly combination: Combination
}

export interface VaryWish {
  readonly pass: number
  /** The same number gives the same ones. */
  readonly seed: number
}

/** The layers a variation may add, the plainest first. */
const ADDED = ['hips', 'torso', 'arms'] as const

/**
 * Variations of the phrase a pass dances, and what answers it behind it: those that bring no fault,
 * no snag and no caution which was not there, and that are not what there is already.
 */
export function variationsOf(
  combination: Combination,
  { pass, seed }: VaryWish,
  base: Vocabulary,
  house: House,
): readonly Variation[] {
  const vocabulary = vocabularyFor(combination, base)
  const phrase = combination.phrases.find(({ id }) => id === combination.order[pass]?.phrase)
  if (!phrase || phrase.events.length === 0) return []
  // What else is written to a count would stay where it is while the moves go elsewhere.
  const { remarks, facings, options, between, props, voices } = phrase
  const isAlone = ![remarks, facings, options, between, props, voices].some((one) => one?.length)
  const moved = (make: () => Combination | undefined) => (isAlone ? make() : undefined)
  const written: readonly (readonly [string, Combination | undefined])[] = [
    ['its second half to the other side', moved(() => halfTurned(combination, phrase, vocabulary))],
    ['its halves the other way round', moved(() => halvesSwapped(combination, phrase, vocabulary))],
    ['twice as fast, and once more', moved(() => doubled(combination, phrase, vocabulary))],
    ['in the other direction', changed(combination, phrase, elsewhere)],
    ['on the spot', changed(combination, phrase, onTheSpot)],
    ['circles the other way', changed(combination, phrase, otherWayRound)],
    ['small throughout', changed(combination, phrase, small)],
    ...ADDED.map(
      (layer) =>
        [
          `with the ${layer} too`,
          phrase.events.some((event) => event.layer === layer)
            ? undefined
            : fillPhrase(combination, { pass, layer, seed }, base, house)[0]?.combination,
        ] as const,
    ),
    ['answered by itself from the other side', answered(combination, pass)],
  ]
  const before = checkCombination(combination, base, house)
  return written.flatMap(([words, made]): readonly Variation[] => {
    if (!made || JSON.stringify(made) === JSON.stringify(combination)) return []
    const fresh = newFindings(before, checkCombination(made, base, house))
    const isClean = fresh.every((finding) => severityOf(finding) === 'note')
    return isClean ? [{ words, combination: made }] : []
  })
}

const withEvents = (
  combination: Combination,
  { id }: Phrase,
  events: readonly Event[],
): Combination => ({
  ...combination,
  phrases: combination.phrases.map((one) =>
    one.id === id ? { ...one, events: [...events].sort((a, b) => a.at - b.at) } : one,
  ),
})

/** Half of a phrase in ticks, where it has one that nothing lies over for as long as it is danced. */
function halfOf(phrase: Phrase, vocabulary: Vocabulary): number | undefined {
  const half = (phrase.counts * COUNT) / 2
  const lies = dancedIn(phrase, vocabulary).some(
    ({ at, length }) => at < 0 || (at < half && at + length > half),
  )
  return Number.isInteger(phrase.counts / 2) && !lies ? half : undefined
}

function halfTurned(
  combination: Combination,
  phrase: Phrase,
  vocabulary: Vocabulary,
): Combination | undefined {
  const half = halfOf(phrase, vocabulary)
  if (half === undefined) return undefined
  const events = phrase.events.map((event) => (event.at >= half ? mirrorEvent(event) : event))
  return withEvents(combination, phrase, events)
}

function halvesSwapped(
  combination: Combination,
  phrase: Phrase,
  vocabulary: Vocabulary,
): Combination | undefined {
  const half = halfOf(phrase, vocabulary)
  if (half === undefined) return undefined
  const events = phrase.events.map((event) => ({
    ...event,
    at: tick(event.at < half ? event.at + half : event.at - half),
  }))
  return withEvents(combination, phrase, events)
}

/** In half the counts, and then again; undefined where something would fall between the halves of counts. */
function doubled(
  combination: Combination,
  phrase: Phrase,
  vocabulary: Vocabulary,
): Combination | undefined {
  const half = (phrase.counts * COUNT) / 2
  const quick = dancedIn(phrase, vocabulary).map((event): Event | undefined => {
    const { id } = event
    const own = phrase.events.find((one) => one.id === id)
    const [at, length] = [event.at / 2, event.length / 2]
    if (!own || !Number.isInteger(at) || !Number.isInteger(length) || at < 0) return undefined
    return { ...own, at: tick(at), ...(own.what.kind !== 'foot' && { length: tick(length) }) }
  })
  if (!Number.isInteger(half) || quick.some((one) => one === undefined)) return undefined
  const once = quick as readonly Event[]
  const again = once.map((event) => ({
    ...event,
    id: `${event.id}-again`,
    at: tick(event.at + half),
  }))
  return withEvents(combination, phrase, [...once, ...again])
}

/** The phrase with what each of its events does changed; undefined where nothing of it changes. */
function changed(
  combination: Combination,
  phrase: Phrase,
  change: (what: What) => What,
): Combination | undefined {
  const events = phrase.events.map((event) => ({ ...event, what: change(event.what) }))
  const isOther = events.some(({ what }, i) => what !== phrase.events[i]?.what)
  return isOther ? withEvents(combination, phrase, events) : undefined
}

const OPPOSITE: Readonly<Partial<Record<Direction, Direction>>> = {
  forward: 'back',
  back: 'forward',
  'diag-forward': 'diag-back',
  'diag-back': 'diag-forward',
  'cross-front': 'cross-behind',
  'cross-behind': 'cross-front',
}

function elsewhere(what: What): What {
  const to =
    what.kind === 'foot' && what.action.direction ? OPPOSITE[what.action.direction] : undefined
  return what.kind === 'foot' && to ? { ...what, action: { ...what.action, direction: to } } : what
}

/** Steps that go somewhere, and those that come back, fall on their own place. */
const onTheSpot = (what: What): What =>
  what.kind === 'foot' &&
  what.action.primitive === 'step' &&
  what.action.direction !== undefined &&
  what.action.direction !== 'in-place'
    ? { ...what, action: { ...what.action, direction: 'in-place' } }
    : what

const otherWayRound = (what: What): What =>
  what.kind === 'move' && what.way ? { ...what, way: otherWay[what.way] } : what

const small = (what: What): What =>
  what.kind === 'foot' && what.action.size === undefined && onTheSpot(what) !== what
    ? { ...what, action: { ...what.action, size: 'small' } }
    : what

/** The phrase once more behind itself, from the other side; undefined where there is no room. */
function answered(combination: Combination, pass: number): Combination | undefined {
  const edits: readonly Edit[] = [repeatPass(pass), turnPass(pass + 1)]
  try {
    return edits.reduce((now, edit) => edit(now), combination)
  } catch {
    return undefined
  }
}
