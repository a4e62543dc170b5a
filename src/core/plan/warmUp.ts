import type { Layer } from '../body/layers'
import type { Combination } from '../combination/combination'
import type { Move } from '../moves/move'
import { type Vocabulary, vocabularyFor } from '../moves/vocabulary'
import { MOST_MOVES } from './moveRounds'

/** Sways and circles first, then the feet, the arms last (domain: warm up). */
const ORDER: readonly Layer[] = ['hips', 'torso', 'feet', 'head', 'arms']

/** Gentle moves for the start and the end of a class, where the combination has too few of its own. */
const GENTLE = ['hip-sway', 'shoulder-roll', 'step-touch', 'head-tilt', 'side-rise']

/** Standing still at a place warms nobody up. */
const isStill = ({ kind, sided }: Move): boolean => kind === 'place' && sided === 'none'

/** The plainest form of a move that still moves: its easier form's easier form, as far as the table goes. */
function plainForm(move: Move, vocabulary: Vocabulary): Move {
  const met = new Set([move.id])
  let plain = move
  for (;;) {
    const next = vocabulary.find(plain.easier)
    if (!next || isStill(next) || met.has(next.id)) return plain
    met.add(next.id)
    plain = next
  }
}

function plainMoves(combinations: readonly Combination[], base: Vocabulary): readonly Move[] {
  const found = new Map<string, Move>()
  for (const combination of combinations) {
    const vocabulary = vocabularyFor(combination, base)
    for (const { events } of combination.phrases)
      for (const { what } of events) {
        const move = what.kind === 'move' ? vocabulary.find(what.move) : undefined
        const plain = move && plainForm(move, vocabulary)
        // Only what every class can read again later, without the combination at hand.
        if (plain && !isStill(plain) && base.find(plain.id)) found.set(plain.id, plain)
      }
  }
  return [...found.values()]
}

const byOrder = (a: Move, b: Move): number =>
  ORDER.indexOf(a.layer) - ORDER.indexOf(b.layer) || a.demand - b.demand || a.id.localeCompare(b.id)

const gentle = (vocabulary: Vocabulary): readonly Move[] => {
  const known = GENTLE.flatMap((id) => vocabulary.find(id) ?? [])
  const calm = vocabulary.moves.filter(
    (move) => move.demand === 1 && move.risk.length === 0 && !isStill(move),
  )
  return [...new Set([...known, ...calm])]
}

/** The plain forms of the moves to come, nothing that strains a cold body; filled up with gentle ones. */
export function warmUpMoves(
  combinations: readonly Combination[],
  base: Vocabulary,
  most: number,
): readonly string[] {
  const coming = plainMoves(combinations, base)
    .filter(
      ({ risk, needs }) => risk.length === 0 && !needs.some((need) => need.startsWith('warm-')),
    )
    .toSorted(byOrder)
  const few = Math.min(most, 4)
  const chosen = coming.slice(0, Math.min(most, MOST_MOVES))
  const more = gentle(base).filter((move) => !chosen.includes(move))
  return [...chosen, ...more.slice(0, Math.max(0, few - chosen.length))]
    .toSorted(byOrder)
    .map(({ id }) => id)
}

/** The gentlest of them again, and slow: nothing with a demand, nothing that jumps. */
export function coolDownMoves(
  combinations: readonly Combination[],
  base: Vocabulary,
  most: number,
): readonly string[] {
  const calm = plainMoves(combinations, base).filter(
    ({ demand, risk, kind, layer }) =>
      demand === 1 &&
      risk.length === 0 &&
      kind !== 'texture' &&
      kind !== 'accent' &&
      layer !== 'feet',
  )
  const all = [...new Set([...calm, ...gentle(base).filter(({ layer }) => layer !== 'feet')])]
  return all
    .slice(0, Math.min(most, 3))
    .toSorted(byOrder)
    .map(({ id }) => id)
}
