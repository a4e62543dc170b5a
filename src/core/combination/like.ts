import type { Layer } from '../body/layers'
import { shippedFor } from '../moves/vocabulary'
import { stableText } from '../record/stable'
import type { Between } from './between'
import type { PropAct } from './carried'
import { type Combination, type Event, type Like, MOST_COUNTS, type Phrase } from './combination'
import { mirrorPhrase } from './mirror'
import { optionWith } from './optionWith'
import { pacedPhrase } from './paced'
import type { Remark, RemarkKind } from './remark'
import { sliceOf, within } from './slice'

type Written = Pick<Phrase, 'events' | 'remarks' | 'between' | 'props'>

/** One thing of a phrase that has a place in time. */
type Timed = Event | Remark | Between | PropAct

/** A place of a phrase that is like another one or is not: a line of the sheet and a tick, `hips 36`. */
type PlaceKey = string

export const placeOf = (one: Unnamed): PlaceKey => `${lineOf(one)} ${one.at}`

/** The line of the sheet it stands on. */
export const lineOf = (one: Unnamed): Layer | RemarkKind | 'between' =>
  'layer' in one ? one.layer : 'kind' in one ? one.kind : 'act' in one ? 'prop' : 'between'

type Unnamed = Omit<Event, 'id'> | Omit<Remark, 'id'> | Omit<Between, 'id'> | Omit<PropAct, 'id'>

/**
 * What a phrase of some counts has from the one it is like; undefined where that can't be danced
 * at its pace.
 */
export function inherited(
  { like, counts }: { readonly like: Like; readonly counts: number },
  source: Phrase,
  combination: Pick<Combination, 'moves'>,
): Written | undefined {
  const side = like.mirrored ? mirrorPhrase(source) : source
  const { from, to } = like.counts ?? { from: 1, to: side.counts }
  const part = {
    ...side,
    counts: Math.min(to, side.counts) - from + 1,
    ...sliceOf(side, {
      from: from - 1,
      to: Math.min(to, side.counts),
      // A pickup leads into all of it only.
      early: like.counts ? 0 : side.counts,
    }),
  }
  if (part.counts < 1) return { events: [] }
  const paced = like.pace ? pacedPhrase(part, like.pace, shippedFor(combination)) : part
  return paced && sliceOf(paced, { from: 0, to: counts, early: counts })
}

/** Whether two things of a phrase are the same but for their ids, whatever order their parts stand in. */
const textOf = ({ id: _, ...one }: Timed): string => stableText(one)

/** All that stands at each place of a phrase. */
function placesIn({
  events,
  remarks = [],
  between = [],
  props = [],
}: Written): ReadonlyMap<PlaceKey, Timed[]> {
  const places = new Map<PlaceKey, Timed[]>()
  for (const one of [...events, ...remarks, ...between, ...props]) {
    const place = placeOf(one)
    places.set(place, [...(places.get(place) ?? []), one])
  }
  return places
}

const isAlike = (a: readonly Timed[] = [], b: readonly Timed[] = []) =>
  a.length === b.length && a.map(textOf).sort().join() === b.map(textOf).sort().join()

/** The places at which a phrase is not as what it is like: written otherwise, more, or nothing. */
export function ownPlaces(phrase: Written, base: Written): ReadonlySet<PlaceKey> {
  const [own, had] = [placesIn(phrase), placesIn(base)]
  return new Set(
    [...own.keys(), ...had.keys()].filter((key) => !isAlike(own.get(key), had.get(key))),
  )
}

/** What a phrase that is like another writes by itself, and where it leaves something out. */
export function ownOf(phrase: Phrase, combination: Combination): Difference | undefined {
  const base = baseOf(phrase, combination)
  if (!base) return undefined
  const own = ownPlaces(phrase, base)
  const has = placesIn(phrase)
  return {
    isOwn: (one) => own.has(placeOf(one)),
    places: own.size,
    leftOut: [...placesIn(base)].flatMap(([key, [one]]) =>
      one && own.has(key) && !has.has(key) ? [one] : [],
    ),
  }
}
interface Difference {
  readonly isOwn: (one: Timed) => boolean
  /** How many places are written otherwise, more, or left out. */
  readonly places: number
  /** One of each place that has nothing here. */
  readonly leftOut: readonly Timed[]
}

function baseOf(phrase: Phrase, combination: Combination): Written | undefined {
  const { like, counts } = phrase
  const source = like && combination.phrases.find(({ id }) => id === like.phrase)
  return source && inherited({ like, counts }, source, combination)
}

/**
 * A combination after an edit, with the phrases that are like another one changed where that one
 * was: all but what they have of their own, and what the edit itself changed in them.
 */
export function followed(before: Combination, after: Combination): Combination {
  if (before === after || after.phrases.every(({ like }) => !like)) return after
  let now = after
  for (const id of likeLast(after)) {
    const phrase = now.phrases.find((one) => one.id === id)
    if (!phrase) continue
    const made = follow(phrase, before, now)
    if (made !== phrase)
      now = { ...now, phrases: now.phrases.map((one) => (one === phrase ? made : one)) }
  }
  return now
}

/** Phrases that are like another one, each behind the one it is like. */
function likeLast({ phrases }: Combination): readonly string[] {
  const left = new Map(phrases.flatMap(({ id, like }) => (like ? [[id, like.phrase]] : [])))
  const order: string[] = []
  while (left.size > 0) {
    const [next] = [...left].find(([, of]) => !left.has(of)) ?? [...left][0] ?? []
    if (next === undefined) break
    left.delete(next)
    order.push(next)
  }
  return order
}

function follow(phrase: Phrase, before: Combination, now: Combination): Phrase {
  const { like: typed } = phrase
  if (!typed) return phrase
  const source = now.phrases.find(({ id }) => id === typed.phrase)
  const like = source && countsLeft(typed, source)
  // What it was like is gone: from now on it stands by itself.
  if (!source || !like) return byItself(phrase)
  const was = before.phrases.find(({ id }) => id === phrase.id)
  const wasSource = before.phrases.find(({ id }) => id === like.phrase)
  if (!was || !wasSource || was.like !== typed || (was === phrase && wasSource === source))
    return phrase
  const counts = isWhole(was, wasSource) ? countsNow(phrase, was, source, now) : phrase.counts
  const base = inherited({ like, counts }, source, now)
  const wasBase = inherited({ like, counts: was.counts }, wasSource, before)
  if (!base || !wasBase) return byItself(phrase)
  const own = ownPlaces(was, wasBase)
  const [here, there, then] = [placesIn(phrase), placesIn(base), placesIn(was)]
  const isFollowing = (key: PlaceKey) => !own.has(key) && isAlike(here.get(key), then.get(key))
  const keys = [...new Set([...here.keys(), ...there.keys()])]
  if (keys.every((key) => !isFollowing(key) || isAlike(here.get(key), there.get(key))))
    return keepsNothing(phrase, was, base, wasBase) ? byItself(phrase) : { ...phrase, counts, like }
  const kept = keys.flatMap((key) => (isFollowing(key) ? [] : (here.get(key) ?? [])))
  const taken = new Set(kept.map(({ id }) => id))
  const free = (id: string): string => {
    const own = taken.has(id) ? free(`${id}+`) : id
    taken.add(own)
    return own
  }
  const has = keys.filter(isFollowing).flatMap((key) => {
    const known = here.get(key) ?? []
    return (there.get(key) ?? []).map((one, i) => ({
      ...one,
      id: free(known[i]?.id ?? `${phrase.id}=${one.id}`),
    }))
  })
  const made = [...kept, ...has]
  const { remarks: _, between: __, props: ___, ...rest } = phrase
  const remarks = made.filter((one): one is Remark => 'kind' in one)
  const between = made.filter((one): one is Between => lineOf(one) === 'between')
  const props = made.filter((one): one is PropAct => 'act' in one)
  const events = made.filter((one): one is Event => 'layer' in one).sort((a, b) => a.at - b.at)
  const all = {
    ...rest,
    counts,
    events,
    ...(remarks.length > 0 && { remarks }),
    ...(between.length > 0 && { between }),
    ...(props.length > 0 && { props }),
  }
  const fits = sliceOf(all, { from: 0, to: counts, early: counts })
  const options = rest.options?.map((option) =>
    optionWith(option, (list) => within(list, { from: 0, to: counts, early: counts })),
  )
  const pickup = rest.pickup && Math.min(rest.pickup, counts)
  return { ...rest, counts, like, ...fits, ...(pickup && { pickup }), ...(options && { options }) }
}

/** What is left of the counts a phrase is like; undefined where there is nothing of them. */
function countsLeft(like: Like, { counts: most }: Phrase): Like | undefined {
  const { counts } = like
  if (!counts || counts.to <= most) return like
  return counts.from > most ? undefined : { ...like, counts: { ...counts, to: most } }
}

/** Phrases without what they are like where that is gone: they stand by themselves. */
export const withoutLost = (phrases: readonly Phrase[]): readonly Phrase[] =>
  phrases.map((phrase) =>
    phrase.like && !phrases.some(({ id }) => id === phrase.like?.phrase)
      ? byItself(phrase)
      : phrase,
  )

/** A phrase that is like all of another one is as long as that one, as long as it is. */
const isWhole = ({ like, counts }: Phrase, source: Phrase): boolean =>
  like?.counts === undefined && like?.pace === undefined && counts === source.counts

function countsNow(phrase: Phrase, was: Phrase, source: Phrase, { order, phrases }: Combination) {
  if (phrase.counts !== was.counts) return phrase.counts
  const countsOf = (id: string) =>
    id === phrase.id ? source.counts : (phrases.find((one) => one.id === id)?.counts ?? 0)
  const total = order.reduce((sum, entry) => sum + countsOf(entry.phrase), 0)
  return total <= MOST_COUNTS ? source.counts : phrase.counts
}

/** Whether an edit, a longer phrase or another pace, left nothing of what it had from the other one. */
function keepsNothing(phrase: Phrase, was: Phrase, base: Written, wasBase: Written): boolean {
  const had = [...placesIn(wasBase).keys()]
  const before = ownPlaces(was, wasBase)
  const now = ownPlaces(phrase, base)
  return (
    had.some((key) => !before.has(key)) && [...placesIn(base).keys()].every((key) => now.has(key))
  )
}

const byItself = ({ like: _, ...phrase }: Phrase): Phrase => phrase

/** A phrase written out: it is as it is, and follows no other one any more. */
export const writtenOut =
  (id: string) =>
  (combination: Combination): Combination => ({
    ...combination,
    phrases: combination.phrases.map((phrase) => (phrase.id === id ? byItself(phrase) : phrase)),
  })

/** What a new phrase like another one has, with ids of its own. */
export function likeOf(
  source: Phrase,
  { id, like, counts }: { readonly id: string; readonly like: Like; readonly counts: number },
  combination: Pick<Combination, 'moves'>,
): Written | undefined {
  const base = inherited({ like, counts }, source, combination)
  return (
    base && {
      events: base.events.map((one) => ({ ...one, id: `${id}=${one.id}` })),
      ...(base.remarks && {
        remarks: base.remarks.map((one) => ({ ...one, id: `${id}=${one.id}` })),
      }),
      ...(base.between && {
        between: base.between.map((one) => ({ ...one, id: `${id}=${one.id}` })),
      }),
      ...(base.props && {
        props: base.props.map((one) => ({ ...one, id: `${id}=${one.id}` })),
      }),
    }
  )
}

/** Counts of a phrase that is like some counts of another one, where nobody says how many. */
export const countsOfLike = (
  { counts, pace }: Pick<Like, 'counts' | 'pace'>,
  source: Pick<Phrase, 'counts'>,
): number =>
  Math.max(1, Math.floor((counts ? counts.to - counts.from + 1 : source.counts) / (pace ?? 1)))
