import { type FootAction, factsOf } from '../body/feet'
import { LAYERS } from '../body/layers'
import { shippedFor, type Vocabulary } from '../moves/vocabulary'
import { remembered } from '../record/remembered'
import { stableText } from '../record/stable'
import { type Span, slotAt, TICKS_PER_COUNT, tick } from '../time/time'
import {
  ANY_OPTIONS,
  type Combination,
  type Event,
  type LeftOut,
  type Option,
  type Phrase,
} from './combination'
import { dancedIn } from './lengths'
import { pacedPhrase, singleSteps } from './paced'
import { stepsOf } from './steps'

type AnyOption = (typeof ANY_OPTIONS)[number]

const isAnyOption = (name: string): name is AnyOption => ANY_OPTIONS.includes(name as AnyOption)

/** What each of them says on a page. */
export const ANY_OPTION_WORDS: Readonly<Record<AnyOption, string>> = {
  'in-place': 'on the spot',
  front: 'to the front, no turns',
  double: 'twice, in half the time',
}

const varied = new WeakMap<Phrase, Map<string, Phrase>>()

/**
 * A phrase danced with some of its options, as a phrase of its own with the same id: its own options
 * first, in their order, then what may be done with any phrase. One that can't be done, twice as
 * fast where no tick is left between, is left out. The very same phrase each time.
 */
export function withOptions(
  phrase: Phrase,
  names: readonly string[],
  vocabulary: Vocabulary,
): Phrase {
  if (names.length === 0) return phrase
  const known = varied.get(phrase) ?? new Map<string, Phrase>()
  varied.set(phrase, known)
  const key = names.join('+')
  const made = known.get(key) ?? variedBy(phrase, names, vocabulary)
  known.set(key, made)
  return made
}

function variedBy(phrase: Phrase, names: readonly string[], vocabulary: Vocabulary): Phrase {
  let now = phrase
  for (const option of phrase.options ?? [])
    if (names.includes(option.name)) now = replaced(now, option)
  if (names.includes('in-place'))
    now = withActions(now, { change: onTheSpot, keepsTurns: true }, vocabulary)
  if (names.includes('front'))
    now = withActions(now, { change: withoutTurn, keepsTurns: false }, vocabulary)
  return names.includes('double') ? (twice(now, vocabulary) ?? now) : now
}

/** The counts an entry of an option stands for: what is written on its layer there is not danced. */
export const spanOf = ({ at, length }: Pick<LeftOut, 'at' | 'length'>): Span => ({
  at,
  length: length ?? slotAt(at),
})

const replaced = (phrase: Phrase, { events, without = [] }: Option): Phrase => {
  const spans = [...events, ...without].map((one) => ({ layer: one.layer, ...spanOf(one) }))
  const isReplaced = ({ layer, at }: Event) =>
    spans.some((span) => span.layer === layer && at >= span.at && at < span.at + span.length)
  return {
    ...phrase,
    events: [...phrase.events.filter((event) => !isReplaced(event)), ...events].sort(
      (a, b) => a.at - b.at,
    ),
  }
}

/** Nothing goes anywhere: every direction is the spot. */
function onTheSpot(action: FootAction): FootAction {
  if (action.direction === undefined || action.direction === 'in-place') return action
  const { direction: _, size: __, ...rest } = action
  return factsOf(action.primitive).direction ? { ...rest, direction: 'in-place' } : rest
}

/** The same facing the front: a pivot is no more than a turn. */
function withoutTurn({ turn: _, ...action }: FootAction): FootAction | undefined {
  return action.primitive === 'pivot' ? undefined : action
}

interface Change {
  readonly change: (action: FootAction) => FootAction | undefined
  readonly keepsTurns: boolean
}

/** The steps of a phrase changed, figures opened where that changes one of theirs; what was written of facings goes. */
function withActions(
  { facings: _, ...phrase }: Phrase,
  { change, keepsTurns }: Change,
  vocabulary: Vocabulary,
): Phrase {
  const isSame = (action: FootAction) => JSON.stringify(change(action)) === JSON.stringify(action)
  const danced = dancedIn(phrase, vocabulary)
  const events = phrase.events.flatMap((event, i): readonly Event[] => {
    const { what } = event
    if (event.layer !== 'feet') return [event]
    // A turn that the steps share goes with theirs.
    if (what.kind === 'share') return keepsTurns ? [event] : []
    if (what.kind === 'foot') {
      const action = change(what.action)
      return action ? [{ ...event, what: { ...what, action } }] : []
    }
    const known = danced[i]
    if (!known || stepsOf(known, vocabulary).every(({ action }) => isSame(action))) return [event]
    return singleSteps(known, vocabulary).flatMap((step): readonly Event[] => {
      const action = step.what.kind === 'foot' ? change(step.what.action) : undefined
      const {
        isCut: ___,
        putsDown: ____,
        until: _____,
        ways: ______,
        whole: _______,
        ...own
      } = step
      return action ? [{ ...own, what: { kind: 'foot', action } }] : []
    })
  })
  return { ...phrase, events }
}

/** All of it twice in its own time; undefined where it can't be halved. */
function twice(phrase: Phrase, vocabulary: Vocabulary): Phrase | undefined {
  const half = pacedPhrase(phrase, 2, vocabulary)
  if (!half) return undefined
  const { facings: _, ...rest } = phrase
  const by = half.counts * TICKS_PER_COUNT
  const both = <
    T extends { readonly id: string; readonly at: number; readonly for?: number | undefined },
  >(
    all: readonly T[],
  ): readonly T[] => [
    ...all,
    ...all
      .filter(({ at }) => at >= 0)
      .map((one) => ({
        ...one,
        id: `${one.id} again`,
        at: tick(one.at + by),
        ...(one.for !== undefined && { for: tick(one.for + by) }),
      })),
  ]
  return {
    ...rest,
    events: both(half.events),
    ...(half.remarks && { remarks: both(half.remarks) }),
    ...(half.between && { between: both(half.between) }),
    ...(half.props && { props: both(half.props) }),
  }
}

/** Whether a phrase can be danced with an option: its own, or one that works for it. */
export const hasOption = (phrase: Phrase, name: string, vocabulary: Vocabulary): boolean =>
  isAnyOption(name)
    ? name !== 'double' || twice(phrase, vocabulary) !== undefined
    : phrase.options?.some((option) => option.name === name) === true

/** What an option says on a page. */
export const optionWords = ({ options = [] }: Phrase, name: string): string =>
  isAnyOption(name)
    ? ANY_OPTION_WORDS[name]
    : (options.find((option) => option.name === name)?.words ?? name)

/**
 * What an option has to say so that one list of events becomes another one: what is changed, and
 * what stays as it was only because it begins within what is changed.
 */
function optionBetween(
  before: readonly Event[],
  after: readonly Event[],
): Pick<Option, 'events' | 'without'> {
  const known = new Set(before)
  const wanted = new Set(after)
  const events = new Set(after.filter((event) => !known.has(event)))
  const without: LeftOut[] = []
  const isWithin = ({ layer, at }: Event) =>
    [...events, ...without].some((one) => {
      const span = spanOf(one)
      return one.layer === layer && at >= span.at && at < span.at + span.length
    })
  for (const layer of LAYERS)
    for (const event of before.filter((one) => one.layer === layer && !wanted.has(one)))
      if (!isWithin(event)) without.push({ layer, at: event.at, ...shortest(event, before) })
  // What stays within a changed stretch has to be said again, and what that covers too.
  for (let grown = true; grown; ) {
    grown = false
    for (const event of after)
      if (known.has(event) && !events.has(event) && isWithin(event)) {
        events.add(event)
        grown = true
      }
  }
  return {
    events: after.filter((event) => events.has(event)),
    ...(without.length > 0 && { without }),
  }
}

/** A span that leaves out nothing but what begins on its tick. */
const shortest = ({ layer, at }: Event, events: readonly Event[]): Pick<LeftOut, 'length'> =>
  events.some((one) => one.layer === layer && one.at > at && one.at < at + slotAt(at))
    ? { length: tick(1) }
    : {}

/** A combination in which a phrase stands as it is danced with one of its options: to be looked at, and changed. */
export const withTried = (
  combination: Combination,
  id: string,
  names: readonly string[],
): Combination => tried(combination, { id, names })

interface Tried {
  readonly id: string
  readonly names: readonly string[]
}

const tried = remembered(triedIn, (a, b) => a.id === b.id && a.names.join() === b.names.join())

function triedIn(combination: Combination, { id, names }: Tried): Combination {
  const phrase = combination.phrases.find((one) => one.id === id)
  const made = phrase && withOptions(phrase, names, shippedFor(combination))
  return made === phrase
    ? combination
    : {
        ...combination,
        phrases: combination.phrases.map((one) => (one === phrase && made ? made : one)),
      }
}

/** An edit of a phrase as it is danced with an option: what it changes there belongs to the option. */
export const throughOption =
  (id: string, name: string, make: (combination: Combination) => Combination) =>
  (combination: Combination): Combination => {
    const phrase = combination.phrases.find((one) => one.id === id)
    const shownIn = withTried(combination, id, [name])
    const shown = shownIn.phrases.find((one) => one.id === id)
    const after = make(shownIn)
    const made = after.phrases.find((one) => one.id === id)
    if (after === shownIn) return combination
    // What makes it longer or takes it away is about the phrase itself.
    if (!phrase || !shown || !made || made.counts !== phrase.counts) return make(combination)
    if (made.events === shown.events)
      return {
        ...after,
        phrases: after.phrases.map((one) =>
          one === made ? { ...made, events: phrase.events } : one,
        ),
      }
    const { events, without } = optionBetween(phrase.events, asBefore(made.events, phrase, name))
    const options = (made.options ?? []).map(({ without: _, ...option }) =>
      option.name === name
        ? { ...option, events: withOwnIds(events, phrase, name), ...(without && { without }) }
        : option,
    )
    return {
      ...after,
      phrases: after.phrases.map((one) =>
        one === made
          ? { ...made, events: phrase.events, options }
          : // What was moved out of the option is in its phrase as well.
            withOthersIds(one, phrase, name),
      ),
    }
  }

/** What an option says again of its phrase is the phrase's own, as long as it is the same. */
function asBefore(events: readonly Event[], phrase: Phrase, name: string): readonly Event[] {
  const own = new Map(phrase.events.map((event) => [againId(event.id, name), event]))
  const plain = ({ id: _, ...event }: Event) => stableText(event)
  return events.map((event) => {
    const known = own.get(event.id)
    return known && plain(known) === plain(event) ? known : event
  })
}

function withOthersIds(other: Phrase, phrase: Phrase, name: string): Phrase {
  const events = withOwnIds(other.events, phrase, `${name} of ${phrase.name}`)
  return events === other.events ? other : { ...other, events }
}

export const againId = (id: string, name: string): string => `${id}[${name}]`

/** Events of an option: none has the id of one of its phrase. */
function withOwnIds(
  events: readonly Event[],
  { events: written }: Phrase,
  name: string,
): readonly Event[] {
  const ids = new Set(written.map(({ id }) => id))
  if (!events.some(({ id }) => ids.has(id))) return events
  return events.map((event) =>
    ids.has(event.id) ? { ...event, id: againId(event.id, name) } : event,
  )
}
