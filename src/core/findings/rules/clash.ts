import { factsOf } from '../../body/feet'
import { claimOf } from '../../combination/claims'
import type { Event } from '../../combination/combination'
import { nameOf } from '../../combination/names'
import { oncePerPhrase } from '../../combination/oncePerPhrase'
import type { BodyPart } from '../../moves/move'
import { endOf } from '../../time/time'
import type { Claim } from '../../what/kind'
import { type Rule, spotOf } from '../rule'

interface Claimed {
  readonly event: Event
  readonly claim: Claim
}

/** Parts two moves can share badly without making it impossible. */
const YIELDING: ReadonlySet<BodyPart> = new Set(['waist', 'knees'])

/** Two moves that need the same part of the body at once (model 5). */
export const clash: Rule = {
  id: 'clash',
  *check({ simulation, vocabulary }) {
    for (const pass of simulation.passes) {
      for (const [first, second, parts] of pairsIn(pass.events, vocabulary)) {
        yield {
          code: 'layer.clash',
          first: nameOf(first.event, vocabulary),
          second: nameOf(second.event, vocabulary),
          parts,
          severity: isMild(first, second, parts) ? 'snag' : 'fault',
          spot: spotOf(pass, second.event),
          events: [second.event.id, first.event.id],
        }
      }
    }
  },
}

type Pair = readonly [Claimed, Claimed, readonly BodyPart[]]

/** What clashes in a phrase. */
const pairsIn = oncePerPhrase((events, vocabulary): readonly Pair[] => {
  const claimed = events
    .map((event): Claimed => ({ event, claim: claimOf(event, vocabulary) }))
    .sort((a, b) => a.event.at - b.event.at)
  return [...clashingPairs(claimed)]
})

/** What a move clashes with is named so often; a count with hundreds of moves says enough by then. */
const MOST_NAMED = 8

function* clashingPairs(claimed: readonly Claimed[]): Generator<Pair> {
  const named = new Map<Event, number>()
  for (const [i, first] of claimed.entries()) {
    for (let j = i + 1; j < claimed.length; j++) {
      const second = claimed[j]
      // Sorted by start, so nothing later can overlap either.
      if (!second || second.event.at >= endOf(first.event)) break
      const times = named.get(second.event) ?? 0
      if (times === MOST_NAMED) continue
      const parts = first.claim.parts.filter((part) => second.claim.parts.includes(part))
      if (parts.length === 0 || canShare(first, second)) continue
      named.set(second.event, times + 1)
      yield [first, second, parts]
    }
  }
}

function canShare(first: Claimed, second: Claimed): boolean {
  if (first.claim.kind === 'steps' && second.claim.kind === 'steps')
    return first.event.at !== second.event.at
      ? !isFigure(first.event)
      : isLevelWord(first.event) !== isLevelWord(second.event)
  // A texture lies over anything but another texture.
  return (first.claim.kind === 'texture') !== (second.claim.kind === 'texture')
}

const isFigure = ({ what }: Event): boolean => what.kind === 'move'

const isLevelWord = ({ what }: Event): boolean =>
  what.kind === 'foot' && factsOf(what.action.primitive).levelOnly === true

function isMild(first: Claimed, second: Claimed, parts: readonly BodyPart[]): boolean {
  if (parts.every((part) => YIELDING.has(part))) return true
  const looksOverWave = (wave: Claimed, look: Claimed) =>
    wave.claim.wave && wave.event.layer === 'torso' && look.event.what.kind === 'look'
  return (
    parts.every((p) => p === 'head') &&
    (looksOverWave(first, second) || looksOverWave(second, first))
  )
}
