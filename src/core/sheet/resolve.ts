import { otherSide, type Side } from '../body/side'
import type { Combination, Event } from '../combination/combination'
import { mirrorEvent, mirrorWhat } from '../combination/mirror'
import { sideOf } from '../combination/names'
import { withTried } from '../combination/options'
import { isImage, partOf } from '../combination/partOf'
import { passesOf } from '../combination/passes'
import type { Vocabulary } from '../moves/vocabulary'
import { footMeant } from '../simulate/footMeant'
import { dance } from '../simulate/primitives'
import { planOf } from '../simulate/simulate'
import { startState } from '../simulate/start'
import type { BodyState } from '../simulate/state'
import type { What } from '../what/kinds'

const primitiveOf = (what: What) => (what.kind === 'foot' ? what.action.primitive : undefined)

/** Only the foot changes: a turn that was written stays the way it was written. */
function onFoot(what: What, side: Side): What {
  if (what.kind === 'foot') return { ...what, action: { ...what.action, foot: side } }
  return what.kind === 'move' ? { ...what, side } : what
}

/** Feet that were left out, also in options: by phrase. */
interface FeetLeftOut extends OpenFeet {
  readonly options: ReadonlyMap<string, ReadonlySet<string>>
}

/**
 * Fills in the feet of each part, as she dances alone: what all dance is danced on the foot that is
 * free for the first of them who dances it, and stands as that for all.
 */
export function feetOfParts(
  combination: Combination,
  { open, copies, options: optionFeet }: FeetLeftOut,
  vocabulary: Vocabulary,
): Combination {
  const found = new Map<string, What>()
  const left = (ids: ReadonlySet<string>) => new Set([...ids].filter((id) => !found.has(id)))
  const fill = (alone: Combination): Combination =>
    withFreeOptions(
      withFreeFeet(alone, { open: left(open), copies }, vocabulary),
      new Map([...optionFeet].map(([phrase, ids]) => [phrase, left(ids)])),
      vocabulary,
    )
  if (!combination.parts) return fill(combination)
  for (const part of combination.parts) {
    const { phrases } = fill(partOf(withWhats(combination, found), part.id))
    for (const { events, options = [] } of phrases)
      for (const event of [...events, ...options.flatMap((one) => one.events)])
        if (!found.has(event.id))
          found.set(event.id, isImage(part, event) ? mirrorWhat(event.what) : event.what)
  }
  return withWhats(combination, found)
}

function withWhats(combination: Combination, whats: ReadonlyMap<string, What>): Combination {
  const known = (event: Event): Event => {
    const what = whats.get(event.id)
    return what && what !== event.what ? { ...event, what } : event
  }
  return {
    ...combination,
    phrases: combination.phrases.map((phrase) => ({
      ...phrase,
      events: phrase.events.map(known),
      ...(phrase.options && {
        options: phrase.options.map((option) => ({ ...option, events: option.events.map(known) })),
      }),
    })),
  }
}

/** The same for the options of phrases, each as its phrase is danced with it. */
function withFreeOptions(
  combination: Combination,
  open: ReadonlyMap<string, ReadonlySet<string>>,
  vocabulary: Vocabulary,
): Combination {
  if (open.size === 0) return combination
  return {
    ...combination,
    phrases: combination.phrases.map((phrase) => {
      const ids = open.get(phrase.id)
      if (!ids || !phrase.options) return phrase
      const options = phrase.options.map((option) => {
        if (!option.events.some(({ id }) => ids.has(id))) return option
        const tried = withTried(combination, phrase.id, [option.name])
        const known = { open: ids, copies: new Map() }
        const filled = withFreeFeet(tried, known, vocabulary).phrases.find(
          ({ id }) => id === phrase.id,
        )
        const events = option.events.map(
          (one) => filled?.events.find(({ id }) => id === one.id) ?? one,
        )
        return { ...option, events }
      })
      return { ...phrase, options }
    }),
  }
}

/** Events whose foot was left out, by their ids, and what they were copied from. */
interface OpenFeet {
  readonly open: ReadonlySet<string>
  readonly copies: ReadonlyMap<string, { readonly id: string; readonly mirrored: boolean }>
}

/**
 * Fills in the feet that were left out: each is the foot that is free then, when the
 * combination is danced as far as there (model 4).
 */
function withFreeFeet(
  combination: Combination,
  { open, copies }: OpenFeet,
  vocabulary: Vocabulary,
): Combination {
  if (open.size === 0) return combination
  const sides = new Map<string, Side>()
  const written = new Map(
    combination.phrases.flatMap(({ events }) => events.map((event) => [event.id, event])),
  )
  /** What a phrase has from another one is danced on the foot it is danced on there. */
  const originalOf = (id: string): { id: string; turned: boolean } => {
    let turned = false
    for (let copy = copies.get(id); copy; copy = copies.get(id)) {
      turned = turned !== copy.mirrored
      id = copy.id
    }
    return { id, turned }
  }
  const filledIn = (event: Event): Event => {
    if (!open.has(event.id)) return event
    const { id, turned } = originalOf(event.id)
    const found = sides.get(id)
    const side = found && turned ? otherSide[found] : found
    return side === undefined || sideOf(event.what) === side
      ? event
      : { ...event, what: onFoot(event.what, side) }
  }
  const follow = (order: Combination['order'], from: BodyState): BodyState => {
    let state = from
    for (const pass of passesOf({ ...combination, order }, vocabulary)) {
      const flips = (event: Event) => pass.mirrored && !event.kept
      const feet = pass.events.filter(({ layer }) => layer === 'feet').sort((a, b) => a.at - b.at)
      for (const event of feet) {
        const { id, turned } = originalOf(event.id)
        if (open.has(event.id) && !sides.has(id)) {
          const meant = footMeant(state, combination.lead, pass.mirrored, primitiveOf(event.what))
          sides.set(id, flips(event) !== turned ? otherSide[meant] : meant)
        }
        const stored = filledIn(written.get(event.id) ?? event)
        const danced = { ...event, what: (flips(event) ? mirrorEvent(stored) : stored).what }
        for (const { action, at } of planOf([{ ...pass, events: [danced] }], vocabulary))
          state = dance(state, action, at).state
      }
    }
    return state
  }
  const start = startState(combination.start)
  follow(combination.order, start)
  // A phrase that is not danced at all is read as if the combination began with it.
  const danced = new Set(combination.order.map(({ phrase }) => phrase))
  for (const { id } of combination.phrases)
    if (!danced.has(id)) follow([{ phrase: id, mirrored: false }], start)
  return {
    ...combination,
    phrases: combination.phrases.map((phrase) => ({
      ...phrase,
      events: phrase.events.map(filledIn),
    })),
  }
}
