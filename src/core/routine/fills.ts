import { otherSide, type Side } from '../body/side'
import type { Combination } from '../combination/combination'
import type { Section } from '../song/song'
import { countsFrom } from './room'
import type { Piece, RestHow } from './routine'

/** No rest up to so long is long. */
export const EIGHT = 8

/** Something laid from the first count of a gap on. */
export type Part =
  | {
      readonly kind: 'dance'
      readonly of: Combination
      readonly side: Side
      readonly counts: number
      readonly isWhole: boolean
    }
  | { readonly kind: 'rest'; readonly how: RestHow; readonly counts: number }

/** What a gap is filled with, from its first count to its last. */
export type Fill = readonly Part[]

/** All ways in which a gap may be filled: one combination again and again, or two in turn, from either side. */
export function fillsOf(
  counts: number,
  combinations: readonly Combination[],
  kind: Section['kind'] | undefined,
): readonly Fill[] {
  const how: RestHow =
    kind === 'slow' || kind === 'break' ? 'free' : kind === 'end' ? 'pose' : 'wait'
  const fills: Fill[] = [[{ kind: 'rest', how, counts }]]
  const turns: readonly (readonly Combination[])[] = [
    ...combinations.map((one) => [one]),
    ...combinations.flatMap((one) =>
      combinations.filter((other) => other !== one).map((other) => [one, other]),
    ),
  ]
  for (const turn of turns)
    for (const side of ['R', 'L'] as const)
      for (const swaps of [false, true]) {
        const fill = filled(counts, turn, side, swaps)
        // Two in turn where there is room for one is one alone.
        const used = new Set(fill.flatMap((part) => (part.kind === 'dance' ? part.of : [])))
        if (used.size === turn.length) fills.push(fill)
      }
  return fills
}

function filled(counts: number, turn: readonly Combination[], first: Side, swaps: boolean): Fill {
  const parts: Part[] = []
  let left = counts
  let side = first
  for (let i = 0; left > 0; i++) {
    const of = turn[i % turn.length] as Combination
    const whole = countsFrom(of)
    const danced = whole <= left ? whole : leadingPhrases(of, left)
    if (danced === 0) break
    parts.push({ kind: 'dance', of, side, counts: danced, isWhole: danced === whole })
    left -= danced
    if (danced < whole) break
    if (swaps) side = otherSide[side]
  }
  if (left > 0) parts.push({ kind: 'rest', how: left > EIGHT ? 'free' : 'pose', counts: left })
  return parts
}

/** The counts of as many of its phrases as there is room for. */
function leadingPhrases({ phrases, order }: Combination, room: number): number {
  let sum = 0
  for (const { phrase } of order) {
    const counts = phrases.find(({ id }) => id === phrase)?.counts ?? 0
    if (sum + counts > room) break
    sum += counts
  }
  return sum
}

/** The same from its other side. */
export const turnedPart = (part: Part): Part =>
  part.kind === 'dance' ? { ...part, side: otherSide[part.side] } : part

/** Whether two fills are the same dances from the same sides. */
export const isSame = (one: Fill, other: Fill): boolean =>
  one.length === other.length &&
  one.every((part, i) => {
    const as = other[i]
    if (part.kind === 'rest' || as?.kind !== 'dance') return part.kind === as?.kind
    return part.of === as.of && part.side === as.side
  })

/** A fill as pieces. @param from its first count */
export function piecesOf(from: number, fill: Fill, newId: () => string): readonly Piece[] {
  let at = from
  return fill.map((part): Piece => {
    const begins = at
    at += part.counts
    return {
      id: newId(),
      at: begins,
      counts: part.counts,
      what:
        part.kind === 'rest'
          ? { kind: 'rest', how: part.how, words: '' }
          : { kind: 'dance', combination: part.of.id, from: 0, side: part.side },
    }
  })
}
