import { otherSide, type Side } from '../body/side'
import type { Combination, Event } from '../combination/combination'
import { mirrorEvent } from '../combination/mirror'
import { sideOf } from '../combination/names'
import { withTried } from '../combination/options'
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

/** The same for the options of phrases, each as its phrase is danced with it. */
export function withFreeOptions(
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
export function withFreeFeet(
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
