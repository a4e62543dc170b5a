import { dequal } from 'dequal'
import { otherSide, type Side } from '../body/side'
import { remembered } from '../record/remembered'
import { TICKS_PER_COUNT, type Tick, tick } from '../time/time'
import type { Carried, Prop, PropAct } from './carried'
import type { Combination, Event, OneSide, Option, Phrase } from './combination'
import { mirrorEvent, mirrorFacing, mirrorPhrase, mirrorRemark, mirrorStart } from './mirror'
import { mirrorAct, mirrorProp } from './mirrorProps'
import { optionWith } from './optionWith'
import type { Part } from './part'
import type { Remark } from './remark'
import { mirrorRule } from './rules'
import type { Start } from './start'
import { type Voice, voiceOf } from './voice'
import { isDancedBy, isOwnOf, isShared, ONLY_PART, type PartId, type Who } from './whose'

/** The ids of the parts of a combination, in their order; of one for a dancer alone her only one. */
export const partIds = ({ parts }: Pick<Combination, 'parts'>): readonly PartId[] =>
  parts ? parts.map(({ id }) => id) : [ONLY_PART]

/** A part by its id; where there is no such part the first one, and none for a dancer alone. */
export const partWith = ({ parts }: Pick<Combination, 'parts'>, id: PartId): Part | undefined =>
  parts?.find((one) => one.id === id) ?? parts?.[0]

/**
 * What a part dances, as a combination for one dancer, with her own start and lead side: who judges,
 * plans or draws a dance reads it from here. A combination for one dancer is its own only part, and
 * an unknown part is the first one.
 *
 * The very same as the last time where nothing of hers changed, so that what another part dances
 * is not danced again for an edit of hers.
 */
export function partOf<T extends OneSide>(combination: T, id: PartId): T {
  const part = partWith(combination, id)
  if (!part) return combination
  const known = projections.get(combination) ?? new Map<PartId, OneSide>()
  projections.set(combination, known)
  const made = known.get(part.id) ?? asBefore(combination, part)
  known.set(part.id, made)
  return made as T
}

const projections = new WeakMap<OneSide, Map<PartId, OneSide>>()

/** The last projection of each part and side, by the order of the phrases: most edits leave that alone. */
const lastOf = new WeakMap<Combination['order'], Map<string, OneSide>>()

function asBefore(combination: OneSide, part: Part): OneSide {
  const last = lastOf.get(combination.order) ?? new Map<string, OneSide>()
  lastOf.set(combination.order, last)
  const key = `${part.id} ${combination.lead} ${combination.otherTurns === true}`
  const before = last.get(key)
  const known = new Map(before?.phrases.map((phrase) => [phrase.id, phrase]))
  const made = projected(combination, part, known)
  const same = before && isSame(made, before) ? before : made
  last.set(key, same)
  return same
}

function projected(
  { parts = [], swapRoles: _, carried: all, ...combination }: OneSide,
  part: Part,
  known: ReadonlyMap<string, Phrase>,
): OneSide {
  const carried = all && carriedBy(all, { part, handed: handedTo(combination.phrases, part) })
  const phrases = combination.phrases.map((phrase) => {
    const made = withOwnThings(phraseOf(phrase, part, parts), carried ?? NOTHING)
    const before = known.get(phrase.id)
    return before && isSame(made, before) ? before : made
  })
  return {
    ...combination,
    lead: part.lead ?? (part.mirrored ? otherSide[combination.lead] : combination.lead),
    start:
      part.start ??
      (part.mirrored ? imageOfStart(combination.start, undefined) : combination.start),
    phrases,
    ...(carried && carried.length > 0 && { carried }),
    ...(combination.rules &&
      part.mirrored && { rules: imageOfRules(combination.rules, undefined) }),
  }
}

interface Carrier {
  readonly part: Part
  /** What partners pass to her. */
  readonly handed: readonly string[]
}

/** What a part carries: her own things, of what each has, hers, and what she is handed, at first in no hand of hers. */
const carriedBy = remembered(
  (carried: readonly Prop[], { part: { id, mirrored }, handed }: Carrier): readonly Prop[] =>
    carried.flatMap(({ part: whose, ...prop }) => {
      if (whose !== undefined && whose !== id)
        return handed.includes(prop.id) ? [{ ...prop, start: NOT_HERE }] : []
      return [mirrored && whose === undefined ? mirrorProp(prop) : prop]
    }),
  (a, b) =>
    a.part.id === b.part.id && a.part.mirrored === b.part.mirrored && dequal(a.handed, b.handed),
)

/** How a thing is held by who does not have it. */
const NOT_HERE: Carried = { hands: {}, drape: 'none', open: true, wound: 0, ready: [] }

/** The things others pass to a part. */
const handedTo = (phrases: readonly Phrase[], { id }: Part): readonly string[] => [
  ...new Set(
    phrases.flatMap(({ between = [] }) =>
      between.flatMap(({ what }) =>
        what.kind === 'pass' && what.to.part === id ? [what.prop] : [],
      ),
    ),
  ),
]

/** What is passed on is let go by one, and taken by the other. */
const passedBy = ({ between = [] }: Phrase, { id: part }: Part): readonly PropAct[] =>
  between.flatMap(({ id, at, length, what, kept }): readonly PropAct[] => {
    if (what.kind !== 'pass') return []
    const passed = { id, at, length, prop: what.prop, ...(kept && { kept }) }
    return what.from.part === part
      ? [{ ...passed, act: 'let-go', hand: what.from.side, to: 'none' }]
      : what.to.part === part
        ? [{ ...passed, act: 'take', hand: what.to.side }]
        : []
  })

const NOTHING: readonly Prop[] = []

/** A phrase without what is done with things that she does not carry. */
const withOwnThings = remembered((phrase: Phrase, carried: readonly Prop[]): Phrase => {
  const { props, ...rest } = phrase
  const own = props?.filter((one) => carried.some(({ id }) => id === one.prop))
  if (own?.length === props?.length) return phrase
  return { ...rest, ...(own && own.length > 0 && { props: own }) }
})

const imageOfStart = remembered((start: Start, _: undefined) => mirrorStart(start))
const imageOfRules = remembered((rules: NonNullable<Combination['rules']>, _: undefined) =>
  rules.map(mirrorRule),
)

/** Whether two are the same in all they have, lists one by one. */
function isSame<T extends object>(one: T, other: T): boolean {
  const [a, b] = [Object.entries(one), other as Record<string, unknown>]
  return (
    a.length === Object.keys(b).length &&
    a.every(([key, value]) => {
      const there = b[key]
      if (value === there) return true
      if (!Array.isArray(value) || !Array.isArray(there))
        return key === 'start' && dequal(value, there)
      return value.length === there.length && value.every((each, i) => each === there[i])
    })
  )
}

const ofPhrase = new WeakMap<Phrase, Map<string, Phrase>>()

/**
 * A phrase as a part dances it: the phrase itself where nothing in it hangs on who dances it.
 * @param parts all of them: whom a voice follows is among them
 */
export function phraseOf(phrase: Phrase, part: Part, parts: readonly Part[]): Phrase {
  const known = ofPhrase.get(phrase) ?? new Map<string, Phrase>()
  ofPhrase.set(phrase, known)
  // What is nobody's own is the same phrase for all of them.
  const isPlain = !part.mirrored && !hangsOnWho(phrase)
  const key = isPlain ? '' : keyOf(phrase, part, parts)
  const made = known.get(key) ?? (isPlain ? withoutMeetings(phrase) : filtered(phrase, part, parts))
  known.set(key, made)
  return made
}

/** All that a part's phrase hangs on besides the phrase: whose image she is, and whom she follows. */
function keyOf(phrase: Phrase, part: Part, parts: readonly Part[]): string {
  const own = `${part.mirrored ? '~' : ''}${part.id}`
  const leader = leaderIn(phrase, part, parts)
  return leader ? `${own}<${keyOf(phrase, leader, parts)}` : own
}

/** Whom a part follows in a phrase. */
const leaderIn = (phrase: Phrase, part: Part, parts: readonly Part[]): Part | undefined => {
  const of = voiceOf(phrase, part.id)?.of
  return of === undefined ? undefined : parts.find(({ id }) => id === of)
}

function hangsOnWho({
  events,
  remarks = [],
  facings = [],
  options = [],
  between = [],
  voices,
  props = [],
}: Phrase): boolean {
  return (
    voices !== undefined ||
    between.some(({ what }) => what.kind === 'wait' || what.kind === 'pass') ||
    [...events, ...remarks, ...facings, ...props, ...options.flatMap((one) => one.events)].some(
      ({ who }) => who !== undefined,
    )
  )
}

function withoutMeetings(phrase: Phrase): Phrase {
  if (!phrase.between) return phrase
  const { between: _, ...plain } = phrase
  return plain
}

type OfPhrase = Pick<Phrase, 'events' | 'remarks' | 'facings' | 'props' | 'options'>

/** What a part dances of a phrase: what is written for her, or what the one she follows dances, later. */
function filtered(phrase: Phrase, part: Part, parts: readonly Part[]): Phrase {
  const { between = [], voices: _, remarks: __, facings: ___, props: ____, ...rest } = phrase
  const waits = between.filter(({ what }) => what.kind === 'wait' && what.of.includes(part.id))
  const isWaiting = ({ at }: { readonly at: Tick }) =>
    waits.some((one) => at >= one.at && at < one.at + one.length)
  const voice = voiceOf(phrase, part.id)
  const leader = leaderIn(phrase, part, parts)
  const made =
    voice && leader
      ? followed(phrase, { voice, led: phraseOf(phrase, leader, parts), isWaiting })
      : hersIn(phrase, part, isWaiting)
  const { events, remarks, facings, options } = made
  const props = [...(made.props ?? []), ...passedBy(phrase, part)].sort((a, b) => a.at - b.at)
  return {
    ...rest,
    events,
    ...(remarks && remarks.length > 0 && { remarks }),
    ...(facings && facings.length > 0 && { facings }),
    ...(props.length > 0 && { props }),
    ...(options && { options }),
  }
}

interface Following {
  readonly voice: Voice
  /** The phrase as the one dances it whom she follows. */
  readonly led: Phrase
  readonly isWaiting: (one: { readonly at: Tick }) => boolean
}

/** What the other one dances, later or from the other side, and then what is her own. */
function followed(phrase: Phrase, { voice, led, isWaiting }: Following): OfPhrase {
  const side = voice.mirrored ? mirrorPhrase(led) : led
  const isOwn = (one: { readonly who?: Who | undefined }) => isOwnOf(one, voice.part)
  /** What is the other one's own is hers here. */
  const hersNow = <T extends { readonly who?: Who | undefined }>(one: T): T =>
    one.who ? { ...one, who: [voice.part] } : one
  const later = <T extends Timed>(list: readonly T[]): readonly T[] =>
    laterBy(voice.by, phrase, list).filter((one) => !isWaiting(one))
  const both = <T extends Timed & { readonly who?: Who | undefined; readonly id?: string }>(
    theirs: readonly T[] = [],
    all: readonly T[] = [],
  ): readonly T[] => {
    // What both have is danced once, as the other one dances it.
    const led = new Set(theirs.map(({ id }) => id))
    const own = all.filter((one) => isOwn(one) && !(one.id !== undefined && led.has(one.id)))
    return [...later(theirs).map(hersNow), ...own]
  }
  return {
    events: both(side.events, phrase.events).toSorted((a, b) => a.at - b.at),
    remarks: both(side.remarks, phrase.remarks).map((remark) =>
      dueWithin(remark, phrase, voice.by),
    ),
    facings: both(side.facings, phrase.facings),
    // What the other one passes on is her own to do.
    props: both(
      side.props?.filter(({ id }) => !phrase.between?.some((one) => one.id === id)),
      phrase.props,
    ),
    ...(side.options && {
      options: side.options.map((option): Option => {
        const made = optionWith(option, later)
        return { ...made, events: made.events.map(hersNow) }
      }),
    }),
  }
}

interface Timed {
  readonly at: Tick
  readonly length?: Tick | undefined
}

/** Some things of a phrase so much later; what would begin behind its end is lost, what runs over it is cut. */
function laterBy<T extends Timed>(
  by: Tick,
  phrase: Pick<Phrase, 'counts'>,
  list: readonly T[],
): readonly T[] {
  const end = phrase.counts * TICKS_PER_COUNT
  return list.flatMap((one) => {
    const at = one.at + by
    if (at >= end) return []
    const length = one.length === undefined ? undefined : tick(Math.min(one.length, end - at))
    return [{ ...one, at: tick(at), ...(length !== undefined && { length }) }]
  })
}

/** What prepares for something that is later too; where that is lost it is said, and no more. */
function dueWithin(remark: Remark, { counts }: Phrase, by: Tick): Remark {
  const { for: due, ...rest } = remark
  if (due === undefined) return remark
  return due + by < counts * TICKS_PER_COUNT
    ? { ...remark, for: tick(due + by) }
    : { ...rest, kind: 'say' }
}

/** What is written for a part: her own, and what all dance, as their image where she is that. */
function hersIn(
  phrase: Phrase,
  part: Part,
  isWaiting: (one: { readonly at: Tick }) => boolean,
): OfPhrase {
  const { remarks, facings, options, props } = phrase
  const hers = (event: Event): readonly Event[] => {
    if (!isDancedBy(event, part.id)) return []
    if (!isShared(event)) return [event]
    if (isWaiting(event)) return []
    return [part.mirrored ? mirrorEvent(event) : event]
  }
  const said = remarks
    ?.filter((one) => isDancedBy(one, part.id))
    .map((one) => (part.mirrored && isShared(one) ? mirrorRemark(one) : one))
  const faced = facings
    ?.filter((one) => isDancedBy(one, part.id))
    .map((one) => (part.mirrored && isShared(one) ? mirrorFacing(one) : one))
  const done = props
    ?.filter((one) => isDancedBy(one, part.id) && !(isShared(one) && isWaiting(one)))
    .map((one) => (part.mirrored && isShared(one) ? mirrorAct(one) : one))
  return {
    events: phrase.events.flatMap(hers),
    remarks: said,
    facings: faced,
    props: done,
    ...(options && {
      options: options.map(
        (option): Option => ({ ...option, events: option.events.flatMap(hers) }),
      ),
    }),
  }
}

/** Whether what a part is shown of an event is its mirror image: all dance it, and she is the others' image. */
export const isImage = (part: Part | undefined, event: Pick<Event, 'who' | 'kept'>): boolean =>
  part?.mirrored === true && isShared(event) && !event.kept

/** Whether a part has anything of her own in a phrase, follows another one, or waits in it. */
export const isOwnIn = ({ events, between = [], voices }: Phrase, part: PartId): boolean =>
  voiceOf({ voices }, part) !== undefined ||
  events.some((event) => isOwnOf(event, part)) ||
  between.some(({ what }) => what.kind === 'wait' && what.of.includes(part))

/** The side a part leads with on the side that is written. */
export const leadOfPart = (combination: Combination, id: PartId): Side =>
  partOf(combination, id).lead
