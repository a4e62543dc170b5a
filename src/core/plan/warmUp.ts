import type { Layer } from '../body/layers'
import type { Combination } from '../combination/combination'
import { easierForms } from '../moves/easing'
import type { Move } from '../moves/move'
import { type Vocabulary, vocabularyFor } from '../moves/vocabulary'
import type { WarmStage } from './drill'
import { together } from './moveRounds'

/** Ways to get the pulse up, the smallest first: weight shifts, march, step touch (teaching 6.1). */
const PULSE = ['hip-sway', 'march', 'step-touch', 'double-step-touch', 'merengue-march']

/** What a joint is moved by, top down, and which layer of a class asks for it; the legs are always asked for. */
const JOINTS: readonly { readonly for: Layer | 'any'; readonly moves: readonly string[] }[] = [
  { for: 'head', moves: ['look-side', 'head-tilt'] },
  { for: 'arms', moves: ['shoulder-roll', 'wrist-circle', 'side-rise'] },
  { for: 'torso', moves: ['shoulder-roll'] },
  { for: 'hips', moves: ['hip-sway', 'hip-slide'] },
  { for: 'any', moves: ['knee-bounce', 'touch-front-back'] },
]

/** What is asked of a warm-up at the most, and how many ladders it climbs. */
const MOST_DEMAND = 3
const LEAST_DEMAND = 2
const MOST_LADDERS = 5
const FEW = 4

/** Standing still at a place warms nobody up. */
const isStill = ({ kind, sided }: Move): boolean => kind === 'place' && sided === 'none'

/** Whether a cold body may dance it. */
export const isGentle = ({ risk, needs, demand }: Move): boolean =>
  risk.length === 0 && demand <= MOST_DEMAND && !needs.some((need) => need.startsWith('warm-'))

/** The moves of some combinations that every class can read again later, the hardest first. */
function movesIn(combinations: readonly Combination[], base: Vocabulary): readonly Move[] {
  const found = new Map<string, Move>()
  for (const combination of combinations) {
    const vocabulary = vocabularyFor(combination, base)
    for (const { events } of combination.phrases)
      for (const { what, optional } of events) {
        const move = what.kind === 'move' && !optional ? vocabulary.find(what.move) : undefined
        if (move && base.find(move.id)) found.set(move.id, move)
      }
  }
  return [...found.values()].sort((a, b) => b.demand - a.demand || a.id.localeCompare(b.id))
}

/** A thing and its easier forms as they are climbed, the plainest first; nothing a cold body may not dance. */
const ladderTo = (move: Move, vocabulary: Vocabulary): readonly Move[] =>
  [move, ...easierForms(move, vocabulary)]
    .filter((form) => isGentle(form) && !isStill(form))
    .toReversed()

/**
 * Ladders that lead to what is to come, hardest first: its form below it at the least, and
 * further down as far as there is room (teaching 6.2).
 * @param most moves there is time for
 */
export function ladders(
  combinations: readonly Combination[],
  vocabulary: Vocabulary,
  most: number,
): readonly string[] {
  const climbed = movesIn(combinations, vocabulary)
    .filter(({ demand }) => demand >= LEAST_DEMAND)
    .map((move) => ladderTo(move, vocabulary))
    .filter((ladder) => ladder.length > 0)
    .slice(0, Math.min(MOST_LADDERS, most))
  const rungs = climbed.map(() => 1)
  let left = most - climbed.length
  for (let grows = true; grows && left > 0; ) {
    grows = false
    for (const [i, ladder] of climbed.entries()) {
      if (left === 0 || (rungs[i] ?? 0) >= ladder.length) continue
      rungs[i] = (rungs[i] ?? 0) + 1
      left--
      grows = true
    }
  }
  return [...new Set(climbed.flatMap((ladder, i) => ladder.slice(-(rungs[i] ?? 1))))].map(
    ({ id }) => id,
  )
}

/** The moves of a stage, as many as there is time for; none where it is only said. */
export function stageMoves(
  stage: WarmStage,
  combinations: readonly Combination[],
  vocabulary: Vocabulary,
  most: number,
): readonly string[] {
  const known = (ids: readonly string[]) => ids.filter((id) => vocabulary.find(id)).slice(0, most)
  if (stage === 'posture' || most < 1) return []
  if (stage === 'pulse') return known(PULSE)
  if (stage === 'joints') {
    const layers = new Set(
      combinations.flatMap(({ phrases }) =>
        phrases.flatMap(({ events }) => events.map(({ layer }) => layer)),
      ),
    )
    const asked = JOINTS.filter((joint) => joint.for === 'any' || layers.has(joint.for))
    return known([...new Set(asked.flatMap(({ moves }) => moves))])
  }
  const joined = joinedOn(combinations, vocabulary)
  const climbed = ladders(combinations, vocabulary, joined && most > 1 ? most - 1 : most)
  // Where little is to be climbed the rest of the time is danced, not one thing again and again.
  const rest = climbed.length >= FEW ? [] : known(PULSE).filter((id) => !climbed.includes(id))
  const room = joined && most > 1 ? most - 1 : most
  return [...[...climbed, ...rest].slice(0, room), ...(joined && most > 1 ? [joined] : [])]
}

/** What a class has on top of its first footwork, as a cold body may dance it: the last thing before it begins (teaching 6.2). */
function joinedOn(
  combinations: readonly Combination[],
  vocabulary: Vocabulary,
): string | undefined {
  const moves = movesIn(combinations, vocabulary)
  const gentle = (wanted: (move: Move) => boolean) =>
    moves.filter(wanted).flatMap((move) => ladderTo(move, vocabulary).at(-1) ?? [])
  const [footwork = vocabulary.find('march')] = gentle(({ layer }) => layer === 'feet')
  const [above] = gentle(({ layer }) => layer === 'hips' || layer === 'torso')
  return footwork && above ? together(footwork.id, above.id) : undefined
}

/** The gentlest of what a class danced, and slow: nothing with a demand, nothing that jumps. */
export function coolDownMoves(
  combinations: readonly Combination[],
  vocabulary: Vocabulary,
  most: number,
): readonly string[] {
  const calm = movesIn(combinations, vocabulary)
    .flatMap((move) => ladderTo(move, vocabulary).slice(0, 1))
    .filter(
      ({ demand, kind, layer }) =>
        demand === 1 && kind !== 'texture' && kind !== 'accent' && layer !== 'feet',
    )
    .map(({ id }) => id)
  return [...new Set(['hip-sway', ...calm])].filter((id) => vocabulary.find(id)).slice(0, most)
}

/** Jumps, backbends, deep bends or whips want a longer warm-up (teaching 6.3). */
export const asksForMore = (
  combinations: readonly Combination[],
  vocabulary: Vocabulary,
): boolean =>
  movesIn(combinations, vocabulary).some(({ risk }) => risk.length > 0) ||
  combinations.some(({ phrases }) =>
    phrases.some(({ events }) =>
      events.some(
        ({ what }) =>
          what.kind === 'foot' &&
          (['jump', 'leap', 'hop'].includes(what.action.primitive) ||
            (what.action.primitive === 'bend' && what.action.size === 'large')),
      ),
    ),
  )

/** The tempo of a stage, by the one that is taught at. */
export const stageTempo: Readonly<Record<Exclude<WarmStage, 'posture'>, number>> = {
  pulse: 1.1,
  joints: 0.8,
  build: 1,
}
