import type { Side } from '../../body/side'
import { claimOf } from '../../combination/claims'
import { type DancedEvent, isLevelWord } from '../../combination/lengths'
import { nameOf } from '../../combination/names'
import { oncePerPhrase } from '../../combination/oncePerPhrase'
import type { BodyPart } from '../../moves/move'
import { endOf } from '../../time/time'
import type { Claim } from '../../what/kind'
import { type Rule, spotOf } from '../rule'

interface Claimed {
  readonly event: DancedEvent
  readonly claim: Claim
}

/** Parts two moves can share badly without making it impossible. */
const YIELDING: ReadonlySet<BodyPart> = new Set(['waist', 'knees'])
const ARM: Readonly<Partial<Record<BodyPart, Side>>> = { armR: 'R', armL: 'L' }

/** Two moves that need the same part of the body at once (model 5). */
export const clash: Rule = {
  id: 'clash',
  *check({ simulation, vocabulary }) {
    // Danced again it clashes as before: that is said once.
    const looked = new Set<readonly DancedEvent[]>()
    for (const pass of simulation.passes) {
      if (looked.has(pass.events)) continue
      looked.add(pass.events)
      for (const { event, ...said } of clashesIn(pass.events, vocabulary))
        yield { ...said, spot: spotOf(pass, event) }
    }
  },
}

type Pair = readonly [Claimed, Claimed, readonly BodyPart[]]

/** What clashes in a phrase, wherever it is danced, and the event it is said of. */
const clashesIn = oncePerPhrase((events, vocabulary) => {
  const claimed = events
    .map((event): Claimed => ({ event, claim: claimOf(event, vocabulary) }))
    .sort((a, b) => a.event.at - b.event.at)
  return [...clashingPairs(claimed)].map(([first, second, parts]) => ({
    event: second.event,
    code: 'layer.clash' as const,
    first: nameOf(first.event, vocabulary),
    second: nameOf(second.event, vocabulary),
    parts,
    severity: isMild(first, second, parts) ? ('snag' as const) : ('fault' as const),
    events: [second.event.id, first.event.id],
  }))
})

/** What a move clashes with is named so often; a count with hundreds of moves says enough by then. */
const MOST_NAMED = 8

function* clashingPairs(claimed: readonly Claimed[]): Generator<Pair> {
  const named = new Map<DancedEvent, number>()
  for (const [i, first] of claimed.entries()) {
    for (let j = i + 1; j < claimed.length; j++) {
      const second = claimed[j]
      // Sorted by start, so nothing later can overlap either.
      if (!second || second.event.at >= endOf(first.event)) break
      const times = named.get(second.event) ?? 0
      if (times === MOST_NAMED) continue
      const parts = sharedParts(first, second)
      if (parts.length === 0 || canShare(first, second)) continue
      named.set(second.event, times + 1)
      yield [first, second, parts]
    }
  }
}

/** The parts both need while the first still has them. */
function sharedParts(first: Claimed, second: Claimed): readonly BodyPart[] {
  const { ways, at } = first.event
  return first.claim.parts.filter((part) => {
    const arm = ARM[part]
    const isOver = ways && arm && at + ways[arm] <= second.event.at
    return !isOver && second.claim.parts.includes(part) && !leavesWave(part, first, second)
  })
}

/** What the head line says goes before a wave: the head leaves it there. */
const leavesWave = (part: BodyPart, first: Claimed, second: Claimed): boolean =>
  part === 'head' &&
  [first, second].some(({ claim, event }) => claim.wave && event.layer === 'torso') &&
  [first, second].some(({ event }) => event.layer === 'head')

function canShare(first: Claimed, second: Claimed): boolean {
  if (first.claim.kind === 'steps' && second.claim.kind === 'steps') {
    if (isLevelWord(first.event) !== isLevelWord(second.event)) return true
    return first.event.at !== second.event.at && !isFigure(first.event)
  }
  // A texture lies over anything but another texture.
  return (first.claim.kind === 'texture') !== (second.claim.kind === 'texture')
}

const isFigure = ({ what }: DancedEvent): boolean => what.kind === 'move'

/** Two ways on one part, or two things on one tick, can't be danced; anything else blurs. */
function isMild(first: Claimed, second: Claimed, parts: readonly BodyPart[]): boolean {
  if (parts.every((part) => YIELDING.has(part))) return true
  if (first.event.at === second.event.at) return false
  return first.claim.kind !== second.claim.kind || !RUNS_THROUGH.has(first.claim.kind)
}

const RUNS_THROUGH: ReadonlySet<Claim['kind']> = new Set(['path', 'texture', 'steps'])
