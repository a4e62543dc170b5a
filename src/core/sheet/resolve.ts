import { otherSide, type Side } from '../body/side'
import type { Combination, Event } from '../combination/combination'
import { mirrorEvent } from '../combination/mirror'
import { sideOf } from '../combination/names'
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

/**
 * Fills in the feet that were left out: each is the foot that is free then, when the
 * combination is danced as far as there (model 4). `open` holds the ids of those events.
 */
export function withFreeFeet(
  combination: Combination,
  open: ReadonlySet<string>,
  vocabulary: Vocabulary,
): Combination {
  if (open.size === 0) return combination
  const sides = new Map<string, Side>()
  const written = new Map(
    combination.phrases.flatMap(({ events }) => events.map((event) => [event.id, event])),
  )
  const filledIn = (event: Event): Event => {
    const side = sides.get(event.id)
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
        if (open.has(event.id) && !sides.has(event.id)) {
          const meant = footMeant(state, combination.lead, pass.mirrored, primitiveOf(event.what))
          sides.set(event.id, flips(event) ? otherSide[meant] : meant)
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
