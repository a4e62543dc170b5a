import { dequal } from 'dequal'
import type { Combination, Event, OneSide, Option, Phrase } from '../combination/combination'
import { mirrorEvent, mirrorFacing, mirrorRemark } from '../combination/mirror'
import { mirrorAct } from '../combination/mirrorProps'
import type { Part } from '../combination/part'
import { partOf, partWith, phraseOf } from '../combination/partOf'
import { type Voice, voiceOf } from '../combination/voice'
import { isDancedBy, isShared, type PartId, type Who } from '../combination/whose'
import { type Tick, tick } from '../time/time'
import type { Edit } from './edit'

/** Who an edit of what one part dances is for: for her alone, or for all that dance the same. */
export type ForWhom = 'own' | 'all'

/**
 * An edit as it is made in what a part dances. What it changes of what all dance becomes her own,
 * and the others go on as they were; counts, phrases and their order are everybody's.
 */
export const forPart =
  (part: PartId, make: Edit): Edit =>
  (combination) => {
    const before = partOf(combination, part)
    if (before === combination) return make(combination)
    const after = make(before)
    return isOfAll(before, after)
      ? make(combination)
      : lifted(combination, part, { before, after, whom: 'own' })
  }

/** Whether phrases come, go, change places or get other counts: no part has phrases of her own. */
function isOfAll(before: Combination, after: Combination): boolean {
  return (
    before.order !== after.order ||
    before.phrases.length !== after.phrases.length ||
    before.phrases.some((phrase, i) => {
      const now = after.phrases[i]
      return (
        !now ||
        now.id !== phrase.id ||
        (['counts', 'name', 'from', 'pickup', 'title', 'like', 'call'] as const).some(
          (key) => !dequal(now[key], phrase[key]),
        )
      )
    })
  )
}

interface Change {
  /** What the part danced, and what she is to dance. */
  readonly before: OneSide
  readonly after: OneSide
  readonly whom: ForWhom
}

/** A combination of several in which a part dances something else than before. */
export function lifted(combination: Combination, id: PartId, change: Change): Combination {
  const part = partWith(combination, id)
  const { before, after } = change
  if (!part || before === after) return combination
  const { start, lead, phrases: _, order, parts: __, carried: ___, ...rest } = after
  const known = new Map(before.phrases.map((phrase) => [phrase.id, phrase]))
  const taken = new Set(idsIn(combination))
  const { parts: all = [] } = combination
  const liftFor = (of: Part) => liftOf(combination, of, change.whom, taken)
  const lift = liftFor(part)
  const written = new Map(combination.phrases.map((phrase) => [phrase.id, phrase]))
  const phrases = after.phrases.map((now): Phrase => {
    const [was, stored] = [known.get(now.id), written.get(now.id)]
    if (!was || !stored) return { ...now, events: now.events.map((one) => lift.back(one)) }
    return was === now ? stored : throughVoice(stored, { was, now, part }, { all, liftFor })
  })
  const own = {
    ...(!dequal(start, before.start) && { start }),
    ...(lead !== before.lead && { lead }),
  }
  const hasOwn = Object.keys(own).length > 0
  return {
    ...combination,
    ...rest,
    order,
    phrases: phrases.every((one, i) => one === combination.phrases[i])
      ? combination.phrases
      : phrases,
    ...(combination.parts && {
      parts: hasOwn
        ? combination.parts.map((one) => (one.id === part.id ? { ...one, ...own } : one))
        : combination.parts,
    }),
  }
}

const idsIn = ({ phrases }: Combination): readonly string[] =>
  phrases.flatMap(({ events, remarks = [], between = [], props = [], options = [] }) =>
    [...events, ...remarks, ...between, ...props, ...options.flatMap((one) => one.events)].map(
      ({ id }) => id,
    ),
  )

/** The id of what a part has of her own in place of something all dance. */
export const ownId = (id: string, part: PartId): string => `${id}@${part}`

/** Something that may be for some dancers only. */
interface Owned {
  readonly id: string
  readonly who?: Who | undefined
}

/** Whether a part waits while all others dance something. */
type IsWaiting<T> = (part: PartId, one: T) => boolean

const nobodyWaits = () => false

/** How things go back from what a part dances into what is stored. */
interface Lift {
  readonly part: Part
  /** As it is stored where all dance it: the others' side of what their image is shown. */
  readonly back: (event: Event) => Event
  readonly list: <T extends Owned>(
    stored: readonly T[],
    was: readonly T[],
    now: readonly T[],
    mirror: (one: T) => T,
    isWaiting?: IsWaiting<T>,
  ) => readonly T[]
}

function liftOf(
  { parts = [], phrases }: Combination,
  part: Part,
  whom: ForWhom,
  taken: Set<string>,
): Lift {
  const onlyHers = new Set(
    whom === 'all'
      ? taken
      : phrases.flatMap(({ events }) =>
          events.filter(({ who }) => who?.length === 1 && who[0] === part.id).map(({ id }) => id),
        ),
  )
  const fresh = (id: string, of: PartId): string => {
    let own = ownId(id, of)
    while (taken.has(own)) own = `${own}+`
    taken.add(own)
    return own
  }
  const asShared = <T extends Owned>(one: T, mirror: (one: T) => T): T =>
    part.mirrored && isShared(one) ? mirror(one) : one
  /** The same for all that danced it but the part; those who dance the image have it of their own. */
  const withoutHer = <T extends Owned>(
    stored: T,
    mirror: (one: T) => T,
    isWaiting: IsWaiting<T>,
  ): readonly T[] => {
    if (!isShared(stored)) {
      const who = stored.who?.filter((id) => id !== part.id) ?? []
      return who.length > 0 ? [{ ...stored, who }] : []
    }
    // Who waits then does not dance it now either.
    const others = parts.filter(({ id }) => id !== part.id && !isWaiting(id, stored))
    const plain = others.filter(({ mirrored }) => !mirrored).map(({ id }) => id)
    const images = others.filter(({ mirrored }) => mirrored).map(({ id }) => id)
    return [
      ...(plain.length > 0 ? [{ ...stored, who: plain }] : []),
      ...images.map((id, i) => ({
        ...mirror(stored),
        id: i === 0 && plain.length === 0 ? stored.id : fresh(stored.id, id),
        who: [id],
      })),
    ]
  }
  return {
    part,
    back: (event) => asShared(event, mirrorEvent),
    list(stored, was, now, mirror, isWaiting = nobodyWaits) {
      const [known, left] = [
        new Map(was.map((one) => [one.id, one])),
        new Map(now.map((one) => [one.id, one])),
      ]
      const kept = stored.flatMap((one) => {
        const before = known.get(one.id)
        const after = left.get(one.id)
        if (!before || before === after) return [one]
        const isHers = whom === 'all' || (one.who?.length === 1 && !isShared(one))
        if (!after) return isHers ? [] : withoutHer(one, mirror, isWaiting)
        // Given to others or to all in so many words.
        if (!dequal(before.who, after.who)) return [after]
        if (isHers) return [asShared(after, mirror)]
        return [
          ...withoutHer(one, mirror, isWaiting),
          { ...after, id: fresh(one.id, part.id), who: [part.id] },
        ]
      })
      const added = now
        .filter(({ id, who }) => !known.has(id) && (who === undefined || who.includes(part.id)))
        .map((one) => {
          const own = whom === 'all' ? asShared(one, mirror) : { ...one, who: [part.id] }
          // What was moved here stays where it was for the others, under its id.
          return taken.has(one.id) && !onlyHers.has(one.id)
            ? { ...own, id: fresh(one.id, part.id) }
            : own
        })
      for (const { id } of added) taken.add(id)
      return [...kept, ...added]
    },
  }
}

interface PhraseChange {
  readonly part: Part
  readonly was: Phrase
  readonly now: Phrase
}

interface Lifts {
  readonly all: readonly Part[]
  readonly liftFor: (part: Part) => Lift
}

/** A changed phrase as it is stored: what a part has from the one she follows is changed there. */
function throughVoice(stored: Phrase, { was, now, part }: PhraseChange, lifts: Lifts): Phrase {
  const voice = voiceOf(stored, part.id)
  const leader = lifts.all.find(({ id }) => id === voice?.of)
  if (!voice || !leader) return phraseLifted(stored, was, now, lifts.liftFor(part))
  const led = phraseOf(stored, leader, lifts.all)
  const back = <T extends Timed>(
    theirs: readonly T[] = [],
    before: readonly T[] = [],
    after: readonly T[] = [],
    mirror: (one: T) => T,
  ) => earlierBy(theirs, { voice, was: before, now: after, mirror })
  const events = back(led.events, was.events, now.events, mirrorEvent)
  const remarks = back(led.remarks, was.remarks, now.remarks, mirrorRemark)
  const props = back(led.props, was.props, now.props, mirrorAct)
  const ledNow = { ...led, events, remarks, props }
  const withLed = throughVoice(stored, { was: led, now: ledNow, part: leader }, lifts)
  const theirs = new Set(LED_LISTS.flatMap((list) => (led[list] ?? []).map(({ id }) => id)))
  /** Only what is her own; ways to dance it otherwise and facings are as they were. */
  const hers = (phrase: Phrase): Phrase => {
    const own = <T extends { readonly id: string }>(list: readonly T[] = []) =>
      list.filter(({ id }) => !theirs.has(id))
    const { options, facings } = stored
    return {
      ...phrase,
      events: own(phrase.events),
      remarks: own(phrase.remarks),
      props: own(phrase.props),
      options,
      facings,
    } as Phrase
  }
  return phraseLifted(withLed, hers(was), hers(now), lifts.liftFor(part))
}

const LED_LISTS = ['events', 'remarks', 'props'] as const

interface Timed extends Owned {
  readonly at: Tick
  readonly length?: Tick | undefined
}

interface Back<T> {
  readonly voice: Voice
  readonly was: readonly T[]
  readonly now: readonly T[]
  readonly mirror: (one: T) => T
}

/** What is led, as somebody who follows has changed it: at the leader's time, and from her side. */
function earlierBy<T extends Timed>(led: readonly T[], { voice, was, now, mirror }: Back<T>) {
  const known = new Map(was.map((one) => [one.id, one]))
  const left = new Map(now.map((one) => [one.id, one]))
  return led.flatMap((one): readonly T[] => {
    const [before, after] = [known.get(one.id), left.get(one.id)]
    // What the end of the phrase cut off was not hers to change.
    if (!before || before === after) return [one]
    if (!after) return []
    const { who: _, length: __, ...side } = voice.mirrored ? mirror(after) : after
    const length = before.length === after.length ? one.length : after.length
    return [
      {
        ...side,
        at: tick(Math.max(Math.min(0, one.at), after.at - voice.by)),
        ...(length !== undefined && { length }),
        ...(one.who && { who: one.who }),
      } as T,
    ]
  })
}

function phraseLifted(stored: Phrase, was: Phrase, now: Phrase, lift: Lift): Phrase {
  const { events: _, remarks, facings, options, props, between: __, ...rest } = now
  const said = lift.list(stored.remarks ?? [], was.remarks ?? [], remarks ?? [], mirrorRemark)
  const done = lift.list(stored.props ?? [], was.props ?? [], props ?? [], mirrorAct)
  const faced = facingsLifted(stored, was, now, lift.part)
  const ways = options?.map((option): Option => {
    const [had, own] = [stored.options, was.options].map((all) =>
      all?.find(({ name }) => name === option.name),
    )
    return had && own
      ? {
          ...option,
          events: lift.list(had.events, own.events, option.events, mirrorEvent, waitingIn(stored)),
        }
      : { ...option, events: option.events.map(lift.back) }
  })
  return {
    ...rest,
    ...(stored.between && { between: stored.between }),
    ...(stored.voices && { voices: stored.voices }),
    ...(done.length > 0 && { props: done }),
    events: [
      ...lift.list(stored.events, was.events, now.events, mirrorEvent, waitingIn(stored)),
    ].sort((a, b) => a.at - b.at),
    ...(said.length > 0 && { remarks: said }),
    ...(faced.length > 0 && { facings: faced }),
    ...(ways && { options: ways }),
  }
}

/** Who waits in a phrase, and when. */
const waitingIn =
  ({ between = [] }: Phrase): IsWaiting<Event> =>
  (part, { at }) =>
    between.some(
      (one) =>
        one.what.kind === 'wait' &&
        one.what.of.includes(part) &&
        at >= one.at &&
        at < one.at + one.length,
    )

/** What is written of facings is hers from then on, where it changed. */
function facingsLifted(
  stored: Phrase,
  was: Phrase,
  now: Phrase,
  part: Part,
): NonNullable<Phrase['facings']> {
  const all = stored.facings ?? []
  if (dequal(was.facings ?? [], now.facings ?? [])) return all
  const image = part.mirrored ? mirrorFacing : <T>(one: T): T => one
  return [
    ...all.filter((one) => !isDancedBy(one, part.id)),
    ...(now.facings ?? []).map((one) => (isShared(one) ? image(one) : one)),
  ]
}
