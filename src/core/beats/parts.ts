import type { Features } from './features'
import { heightAt, meanBetween, medianGap } from './level'
import { mean, median } from './numbers'
import type { Weights } from './rows'

/** What a section of a song may be; `other` where nothing tells. */
export const PART_KINDS = ['intro', 'verse', 'chorus', 'break', 'slow', 'end', 'other'] as const
export type PartKind = (typeof PART_KINDS)[number]

/** A section of a song as it is heard: a proposal. */
export interface HeardPart {
  /** Its first count, to where the next one begins. */
  readonly at: number
  readonly kind: PartKind
  /** How loud it is among the others, 1 to 5. */
  readonly energy: number
  /** Which earlier one it is like, by its place in the list. */
  readonly as?: number
}

/** What is played again is alike in its tones and in how it sounds. */
export const OF_LIKENESS: Weights = { tones: 1, timbre: 1, loudness: 1 }

const ALIKE = 0.45
/** Sections are compared where neither is longer by more than this. */
const LONGER = 1.5
/** One of them may begin an eight earlier. */
const SHIFTS = [0, -8, 8]
const LEAST_BREAK = 8
/** Without its drums a song has under this share of its low sounds; slow, under this of its pace or of what begins. */
const BREAK_SHARE = 0.5
const SLOW_PACE = 0.75
const SLOW_ONSETS = 0.5
const ENERGIES = 5

interface Stretch {
  readonly from: number
  readonly to: number
}

/**
 * What the sections of a song are, and which of them are alike.
 * @param starts their first counts, rising
 * @param rows counts as directions, by `OF_LIKENESS`
 */
export function partsOf(
  starts: readonly number[],
  beats: readonly number[],
  features: Features,
  rows: readonly Float64Array[],
): readonly HeardPart[] {
  const stretches = starts.map((from, i): Stretch => ({ from, to: starts[i + 1] ?? beats.length }))
  const perCount = (read: (at: number, next: number) => number) =>
    beats.map((at, i) => read(at, beats[i + 1] ?? at + 0.5))
  const counts = {
    loud: perCount((at, next) => meanBetween(features.loudness, at, next)),
    low: perCount((at, next) => meanBetween(features.lowShare, at, next)),
    onset: perCount((at) => heightAt(features.flux, at)),
  }
  const over = ({ from, to }: Stretch, values: readonly number[]) => mean(values.slice(from, to))
  const loud = stretches.map((one) => over(one, counts.loud))
  const usual = { low: median(counts.low), onset: median(counts.onset), gap: medianGap(beats) }
  const isEdge = (i: number): PartKind | undefined => {
    if (starts.length < 3 || (loud[i] as number) >= median(loud)) return undefined
    return i === 0 ? 'intro' : i === starts.length - 1 ? 'end' : undefined
  }
  const setApart = stretches.map((one, i): PartKind | undefined => {
    const gap = medianGap(beats.slice(one.from, one.to + 1))
    const hasNoDrums =
      one.to - one.from >= LEAST_BREAK && over(one, counts.low) < BREAK_SHARE * usual.low
    const isSlow =
      gap > usual.gap / SLOW_PACE || over(one, counts.onset) < SLOW_ONSETS * usual.onset
    return isEdge(i) ?? (hasNoDrums ? 'break' : isSlow ? 'slow' : undefined)
  })
  // What is left is sung: louder where all join in.
  const sung = loud.filter((_, i) => !setApart[i])
  const middle = (Math.min(...sung) + Math.max(...sung)) / 2
  const kinds = stretches.map(
    (_, i) => setApart[i] ?? ((loud[i] as number) > middle ? 'chorus' : 'verse'),
  )
  const like = firstsLike(stretches, kinds, rows)
  return stretches.map((one, i): HeardPart => {
    const first = like[i] as number
    const quieter = counts.loud.filter((value) => value < (loud[i] as number)).length
    return {
      at: one.from,
      kind: kinds[i] as PartKind,
      energy: Math.min(ENERGIES, 1 + Math.floor((ENERGIES * quieter) / Math.max(1, beats.length))),
      ...(first !== i && { as: first }),
    }
  })
}

/** For each stretch the first one it is like; itself where there is none. */
function firstsLike(
  stretches: readonly Stretch[],
  kinds: readonly PartKind[],
  rows: readonly Float64Array[],
): readonly number[] {
  const firsts: number[] = []
  for (const [i, one] of stretches.entries()) {
    const leaders = firsts.flatMap((first, k) => (first === k && kinds[k] === kinds[i] ? [k] : []))
    const best = leaders
      .map((k) => ({ k, alike: likeness(stretches[k] as Stretch, one, rows) }))
      .sort((a, b) => b.alike - a.alike)[0]
    firsts.push(best && best.alike > ALIKE ? best.k : i)
  }
  return firsts
}

/** How alike two stretches go on, count by count, at the shift that suits best. */
function likeness(a: Stretch, b: Stretch, rows: readonly Float64Array[]): number {
  const [long, other] = [a.to - a.from, b.to - b.from]
  if (Math.max(long, other) > LONGER * Math.min(long, other)) return 0
  return Math.max(
    ...SHIFTS.map((shift) => {
      const alikes: number[] = []
      for (let k = Math.max(0, -shift); k < Math.min(long, other - shift); k++)
        alikes.push(
          alike(rows[a.from + k] as Float64Array, rows[b.from + k + shift] as Float64Array),
        )
      return alikes.length < Math.min(long, other) / 2 ? 0 : mean(alikes)
    }),
  )
}

const alike = (a: Float64Array, b: Float64Array): number =>
  a.reduce((sum, value, k) => sum + value * (b[k] as number), 0)
