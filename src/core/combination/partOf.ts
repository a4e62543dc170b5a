import { dequal } from 'dequal'
import { otherSide, type Side } from '../body/side'
import { remembered } from '../record/remembered'
import type { Combination, Event, OneSide, Option, Phrase } from './combination'
import { mirrorEvent, mirrorFacing, mirrorRemark, mirrorStart } from './mirror'
import type { Part } from './part'
import { mirrorRule } from './rules'
import type { Start } from './start'
import { isDancedBy, isOwnOf, isShared, ONLY_PART, type PartId } from './whose'

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
  { parts: _, swapRoles: __, ...combination }: OneSide,
  part: Part,
  known: ReadonlyMap<string, Phrase>,
): OneSide {
  const phrases = combination.phrases.map((phrase) => {
    const made = phraseOf(phrase, part)
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
    ...(combination.rules &&
      part.mirrored && { rules: imageOfRules(combination.rules, undefined) }),
  }
}

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

/** A phrase as a part dances it: the phrase itself where nothing in it hangs on who dances it. */
export function phraseOf(phrase: Phrase, part: Part): Phrase {
  const known = ofPhrase.get(phrase) ?? new Map<string, Phrase>()
  ofPhrase.set(phrase, known)
  // What is nobody's own is the same phrase for all of them.
  const isPlain = !part.mirrored && !hangsOnWho(phrase)
  const key = isPlain ? '' : `${part.mirrored ? '~' : ''}${part.id}`
  const made = known.get(key) ?? (isPlain ? withoutMeetings(phrase) : filtered(phrase, part))
  known.set(key, made)
  return made
}

function hangsOnWho({
  events,
  remarks = [],
  facings = [],
  options = [],
  between = [],
}: Phrase): boolean {
  return (
    between.some(({ what }) => what.kind === 'wait') ||
    [...events, ...remarks, ...facings, ...options.flatMap((one) => one.events)].some(
      ({ who }) => who !== undefined,
    )
  )
}

function withoutMeetings(phrase: Phrase): Phrase {
  if (!phrase.between) return phrase
  const { between: _, ...plain } = phrase
  return plain
}

function filtered(phrase: Phrase, part: Part): Phrase {
  const { between = [], remarks, facings, options, ...rest } = phrase
  const waits = between.filter(({ what }) => what.kind === 'wait' && what.of.includes(part.id))
  const isWaiting = (at: number) => waits.some((one) => at >= one.at && at < one.at + one.length)
  const hers = (event: Event): readonly Event[] => {
    if (!isDancedBy(event, part.id)) return []
    if (!isShared(event)) return [event]
    if (isWaiting(event.at)) return []
    return [part.mirrored ? mirrorEvent(event) : event]
  }
  const said = remarks
    ?.filter((one) => isDancedBy(one, part.id))
    .map((one) => (part.mirrored && isShared(one) ? mirrorRemark(one) : one))
  const faced = facings
    ?.filter((one) => isDancedBy(one, part.id))
    .map((one) => (part.mirrored && isShared(one) ? mirrorFacing(one) : one))
  return {
    ...rest,
    events: phrase.events.flatMap(hers),
    ...(said && said.length > 0 && { remarks: said }),
    ...(faced && faced.length > 0 && { facings: faced }),
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

/** Whether a part has anything of her own in a phrase, or waits in it. */
export const isOwnIn = ({ events, between = [] }: Phrase, part: PartId): boolean =>
  events.some((event) => isOwnOf(event, part)) ||
  between.some(({ what }) => what.kind === 'wait' && what.of.includes(part))

/** The side a part leads with on the side that is written. */
export const leadOfPart = (combination: Combination, id: PartId): Side =>
  partOf(combination, id).lead
