import { otherSide, type Side } from '../body/side'
import type { Combination } from '../combination/combination'
import { severityOf } from '../findings/finding'
import type { House } from '../house/house'
import { loadsOf } from '../load/load'
import type { Vocabulary } from '../moves/vocabulary'
import { danced } from '../simulate/danced'
import type { Section, Song } from '../song/song'
import { countsFrom } from './edits'
import { gapsIn, type SongFact, sumsOf } from './fit'
import type { Piece, RestHow, Routine } from './routine'
import { REST_WORDS } from './words'

/** A routine that covers what was free, and what it comes to. */
export interface Proposed {
  readonly routine: Routine
  readonly cost: number
  readonly words: string
}

interface Wanted {
  /** What is laid on it already stays. */
  readonly routine: Routine
  readonly song: Song
  readonly combinations: readonly Combination[]
  readonly factsOf: (routine: Routine) => readonly SongFact[]
  readonly vocabulary: Vocabulary
  readonly house: House
  readonly newId: () => string
}

/** What things cost beside each other (h). */
const COSTS = {
  rest: 0.8,
  restCount: 0.1,
  load: 0.5,
  part: 1,
  foot: 50,
  unlike: 5,
  swapped: 0.2,
  again: 0.5,
  sides: 6,
} as const
const EIGHT = 8
/** Rounds of one combination in a row that nobody minds. */
const ROUNDS = 2
/** States that are followed at once, and those that are danced in the end. */
const BEAM = 60
const TRIED = 30
const SHOWN = 3

/** Something laid from the first count of a gap on. */
type Part =
  | {
      readonly kind: 'dance'
      readonly of: Combination
      readonly side: Side
      readonly counts: number
      readonly isWhole: boolean
    }
  | { readonly kind: 'rest'; readonly how: RestHow; readonly counts: number }

interface State {
  readonly fills: readonly (readonly Part[])[]
  readonly cost: number
  readonly sides: Readonly<Record<Side, number>>
  readonly last: Part | undefined
  /** Rounds of the last combination in a row. */
  readonly rounds: number
}

/**
 * Covers what is free of a song, the best ways first: loud sections with what is strong, equal
 * ones alike, both sides as often, and none with a fault.
 */
export function proposalsFor(wanted: Wanted): readonly Proposed[] {
  const { routine, song, combinations, factsOf, newId } = wanted
  const gaps = gapsIn(routine, song)
  if (combinations.length === 0 || gaps.length === 0) return []
  const strength = strengths(wanted)
  const meets = meetings(wanted)
  const sectionAt = (at: number) => song.sections.findLast((one) => one.at <= at)
  const groups = gaps.map(({ at }) => groupOf(sectionAt(at), at))
  let states: readonly State[] = [
    { fills: [], cost: 0, sides: { R: 0, L: 0 }, last: undefined, rounds: 0 },
  ]
  for (const [i, gap] of gaps.entries()) {
    const energy = (sectionAt(gap.at)?.energy ?? 3) / 5
    const fills = fillsOf(gap.counts, combinations, sectionAt(gap.at)?.kind)
    const like = groups.findIndex((group, k) => k < i && group === groups[i])
    const next = states.flatMap((state) => {
      const before = like < 0 ? undefined : state.fills[like]
      return fills.map((fill) => stepped(state, fill, before, energy, strength, meets))
    })
    states = next.sort((a, b) => a.cost - b.cost).slice(0, BEAM)
  }
  const balanced = states
    .map((state) => ({ ...state, cost: state.cost + imbalance(state.sides) }))
    .sort((a, b) => a.cost - b.cost)
    .slice(0, TRIED)
  const isFaultless = (made: Routine) =>
    factsOf(made).every(
      (fact) => fact.code !== 'song.dance' || severityOf(fact.finding) !== 'fault',
    )
  const proposed: Proposed[] = []
  for (const { fills, cost } of balanced) {
    if (proposed.length === SHOWN) break
    const pieces = gaps.flatMap((gap, i) => piecesOf(gap.at, fills[i] ?? [], newId))
    const made = { ...routine, pieces: [...routine.pieces, ...pieces].sort((a, b) => a.at - b.at) }
    const words = wordsOf(made, song, combinations)
    const isOther = proposed.every((one) => one.words !== words)
    if (isOther && isFaultless(made)) proposed.push({ routine: made, cost, words })
  }
  return proposed
}

/** Sections that are alike are filled alike, place for place. */
const groupOf = (section: Section | undefined, at: number): string =>
  section ? `${section.as ?? section.id} ${at - section.at}` : ''

/** How strong each combination is among them, 0 to 1: by its mean load. */
function strengths({ combinations, vocabulary, house }: Wanted): ReadonlyMap<Combination, number> {
  const means = combinations.map((one) => {
    const loads = loadsOf(danced(one, vocabulary, house).lead, one.tempo)
    return loads.reduce((sum, { total }) => sum + total, 0) / Math.max(1, loads.length)
  })
  const most = Math.max(...means) || 1
  return new Map(combinations.map((one, i) => [one, (means[i] as number) / most]))
}

type Meets = (before: Part, after: Part) => boolean

/** Whether one can be danced right behind the other: tried once for each two. */
function meetings({ routine, song, factsOf }: Wanted): Meets {
  const known = new Map<string, boolean>()
  const from = song.counts.ones[0]?.at ?? 0
  return (before, after) => {
    if (before.kind === 'rest' || after.kind === 'rest') return true
    // Both from the other side is the same again.
    const isMirrored = before.side === 'L'
    const side = isMirrored ? otherSide[after.side] : after.side
    const key = `${before.of.id} ${before.counts} ${after.of.id} ${side}`
    const found = known.get(key)
    if (found !== undefined) return found
    const first = { ...before, side: 'R' as Side }
    const one = piecesOf(from, [first, { ...after, side }], () => `${known.size} ${key}`)
    const faults = factsOf({
      ...routine,
      pieces: one.map((piece, i) => ({ ...piece, id: `try ${i}` })),
    })
    const fits = faults.every(
      (fact) =>
        fact.code !== 'song.dance' ||
        severityOf(fact.finding) !== 'fault' ||
        fact.at < from + before.counts,
    )
    known.set(key, fits)
    return fits
  }
}

/** All ways in which a gap may be filled: one combination again and again, or two in turn, from either side. */
function fillsOf(
  counts: number,
  combinations: readonly Combination[],
  kind: Section['kind'] | undefined,
): readonly (readonly Part[])[] {
  const how: RestHow =
    kind === 'slow' || kind === 'break' ? 'free' : kind === 'end' ? 'pose' : 'wait'
  const fills: (readonly Part[])[] = [[{ kind: 'rest', how, counts }]]
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

function filled(
  counts: number,
  turn: readonly Combination[],
  first: Side,
  swaps: boolean,
): readonly Part[] {
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

function stepped(
  state: State,
  fill: readonly Part[],
  like: readonly Part[] | undefined,
  energy: number,
  strength: ReadonlyMap<Combination, number>,
  meets: Meets,
): State {
  let { cost, last, rounds } = state
  const sides = { ...state.sides }
  if (like)
    cost += isSame(fill, like)
      ? 0
      : isSame(fill, like.map(turnedPart))
        ? COSTS.swapped
        : COSTS.unlike
  for (const part of fill) {
    const strong = part.kind === 'dance' ? (strength.get(part.of) ?? 0) : 0
    cost += COSTS.load * Math.abs(strong - energy) * part.counts
    if (part.kind === 'rest')
      cost += COSTS.rest + COSTS.restCount * Math.max(0, part.counts - EIGHT)
    else {
      sides[part.side] += part.counts
      if (!part.isWhole) cost += COSTS.part
      if (last && !meets(last, part)) cost += COSTS.foot
      const isAgain = last?.kind === 'dance' && last.of === part.of
      rounds = isAgain ? rounds + 1 : 1
      if (rounds > ROUNDS) cost += COSTS.again
    }
    last = part
  }
  return { fills: [...state.fills, fill], cost, sides, last, rounds }
}

const turnedPart = (part: Part): Part =>
  part.kind === 'dance' ? { ...part, side: otherSide[part.side] } : part

const isSame = (one: readonly Part[], other: readonly Part[]): boolean =>
  one.length === other.length &&
  one.every((part, i) => {
    const as = other[i]
    if (part.kind === 'rest' || as?.kind !== 'dance') return part.kind === as?.kind
    return part.of === as.of && part.side === as.side
  })

const imbalance = ({ R, L }: Readonly<Record<Side, number>>): number =>
  (COSTS.sides * Math.abs(R - L)) / Math.max(1, R + L)

function piecesOf(from: number, fill: readonly Part[], newId: () => string): readonly Piece[] {
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

/** What it comes to, and what each kind of section begins with. */
function wordsOf(routine: Routine, song: Song, combinations: readonly Combination[]): string {
  const { left, rest, sides } = sumsOf(routine, song)
  const named = new Map<string, string>()
  for (const { label, at } of song.sections) {
    const piece = routine.pieces.find((one) => at <= one.at || at < one.at + one.counts)
    if (!piece || named.has(label)) continue
    const { what } = piece
    const title =
      what.kind === 'rest'
        ? REST_WORDS[what.how].toLowerCase()
        : combinations.find(({ id }) => id === what.combination)?.title
    named.set(label, `${label} ${title ?? ''}${what.kind === 'dance' ? ` ${what.side}` : ''}`)
  }
  return [
    left === 0 ? 'all covered' : `${left} counts left`,
    `sides ${sides.R} and ${sides.L}`,
    rest === 0 ? 'no rest' : `${rest} counts of rest`,
    ...named.values(),
  ].join(', ')
}
