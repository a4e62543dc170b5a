import { otherSide, type Side } from '../body/side'
import type { Combination } from '../combination/combination'
import { severityOf } from '../findings/finding'
import type { House } from '../house/house'
import { loadsOf } from '../load/load'
import type { Vocabulary } from '../moves/vocabulary'
import { danced } from '../simulate/danced'
import { firstOne, type Section, type Song } from '../song/song'
import type { FactsOf } from './facts'
import { EIGHT, type Fill, fillsOf, isSame, type Part, piecesOf, turnedPart } from './fills'
import { type Gap, gapsIn } from './fit'
import { type Routine, restWords } from './routine'
import { sumsOf } from './sums'

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
  readonly factsOf: FactsOf
  readonly vocabulary: Vocabulary
  readonly house: House
  readonly newId: () => string
}

/** What things cost beside each other (h). */
const COSTS = {
  rest: 0.8,
  restCount: 0.1,
  /** A count of a part that is danced through, in which nobody dances. */
  idle: 0.5,
  load: 0.5,
  part: 1,
  foot: 50,
  unlike: 5,
  swapped: 0.2,
  again: 0.5,
  sides: 6,
} as const
/** Parts in which nobody expects to be danced to all along. */
const QUIET: ReadonlySet<Section['kind']> = new Set(['intro', 'slow', 'break', 'end'])
/** Rounds of one combination in a row that nobody minds. */
const ROUNDS = 2
/** So many ways are all followed; of more of them so many beginnings at once (h). */
const EXACT = 20_000
const BEAM = 120
/** Of the ways so many are danced in the end. */
const TRIED = 30
const USUAL_ENERGY = 3
const MOST_ENERGY = 5
const SHOWN = 3

/** What a gap is like. */
interface Place {
  /** 0 to 1. */
  readonly energy: number
  readonly isQuiet: boolean
}

interface State {
  readonly fills: readonly Fill[]
  readonly cost: number
  readonly sides: Readonly<Record<Side, number>>
  readonly last: Part | undefined
  /** Rounds of the last combination in a row. */
  readonly rounds: number
}

/**
 * Covers what is free of a song, the best ways first: loud sections with what is strong, equal
 * ones alike, both sides as often, and none with a fault.
 * @param beam how many beginnings are followed at once; all of them where they are few
 */
export function proposalsFor(wanted: Wanted, beam?: number): readonly Proposed[] {
  const { routine, song, combinations, factsOf, newId } = wanted
  const gaps = gapsIn(routine, song)
  if (combinations.length === 0 || gaps.length === 0) return []
  const isFaultless = (made: Routine) =>
    factsOf(made).every(
      (fact) => fact.code !== 'song.dance' || severityOf(fact.finding) !== 'fault',
    )
  const proposed: Proposed[] = []
  for (const { fills, cost } of filledWays(wanted, gaps, beam).slice(0, TRIED)) {
    if (proposed.length === SHOWN) break
    const pieces = gaps.flatMap((gap, i) => piecesOf(gap.at, fills[i] ?? [], newId))
    const made = { ...routine, pieces: [...routine.pieces, ...pieces].sort((a, b) => a.at - b.at) }
    const words = wordsOf(made, song, combinations)
    const isOther = proposed.every((one) => one.words !== words)
    if (isOther && isFaultless(made)) proposed.push({ routine: made, cost, words })
  }
  return proposed
}

/** The cheapest ways to fill all gaps, nobody having danced them yet. */
function filledWays(
  wanted: Wanted,
  gaps: readonly Gap[],
  beam?: number,
): readonly Pick<State, 'fills' | 'cost'>[] {
  const { song, combinations } = wanted
  const strength = strengths(wanted)
  const meets = meetings(wanted)
  const sections = gaps.map(({ at }) => song.sections.findLast((one) => one.at <= at))
  const groups = gaps.map(({ at }, i) => groupOf(sections[i], at))
  const offered = gaps.map(({ counts }, i) => fillsOf(counts, combinations, sections[i]?.kind))
  const all = offered.reduce((product, fills) => product * fills.length, 1)
  const most = beam ?? (all <= EXACT ? all : BEAM)
  let states: readonly State[] = [
    { fills: [], cost: 0, sides: { R: 0, L: 0 }, last: undefined, rounds: 0 },
  ]
  for (const [i, fills] of offered.entries()) {
    const place = {
      energy: (sections[i]?.energy ?? USUAL_ENERGY) / MOST_ENERGY,
      isQuiet: QUIET.has(sections[i]?.kind ?? 'other'),
    }
    const like = groups.findIndex((group, k) => k < i && group === groups[i])
    const next = states.flatMap((state) => {
      const before = like < 0 ? undefined : state.fills[like]
      return fills.map((fill) => stepped(state, fill, before, place, strength, meets))
    })
    states = next.sort((a, b) => a.cost - b.cost).slice(0, most)
  }
  return states
    .map(({ fills, cost, sides }) => ({ fills, cost: cost + imbalance(sides) }))
    .sort((a, b) => a.cost - b.cost)
}

/** Sections that are alike are filled alike, place for place. */
const groupOf = (section: Section | undefined, at: number): string =>
  section ? `${section.as ?? section.id} ${at - section.at}` : ''

/** How strong each combination is among them, 0 to 1: by its mean load. */
function strengths({ combinations, vocabulary, house }: Wanted): ReadonlyMap<Combination, number> {
  const means = combinations.map((one) => {
    const loads = loadsOf(danced(one, vocabulary, house).lead)
    return loads.reduce((sum, { total }) => sum + total, 0) / Math.max(1, loads.length)
  })
  const most = Math.max(...means) || 1
  return new Map(combinations.map((one, i) => [one, (means[i] as number) / most]))
}

type Meets = (before: Part, after: Part) => boolean

/** Whether one can be danced right behind the other: tried once for each two. */
function meetings({ routine, song, factsOf }: Wanted): Meets {
  const known = new Map<string, boolean>()
  const from = firstOne(song.counts)
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

function stepped(
  state: State,
  fill: Fill,
  like: Fill | undefined,
  { energy, isQuiet }: Place,
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
    if (part.kind === 'rest') {
      const long = COSTS.restCount * Math.max(0, part.counts - EIGHT)
      // Resting is for quiet parts, and for what is too short to dance.
      const idle = isQuiet || part.counts < EIGHT ? 0 : COSTS.idle * part.counts
      cost += COSTS.rest + long + idle
    } else {
      cost += COSTS.load * Math.abs((strength.get(part.of) ?? 0) - energy) * part.counts
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

const imbalance = ({ R, L }: Readonly<Record<Side, number>>): number =>
  (COSTS.sides * Math.abs(R - L)) / Math.max(1, R + L)

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
        ? restWords(what).toLowerCase()
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
