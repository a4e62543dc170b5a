import { UserError } from '../errors'
import {
  LEAST_GAP,
  MOST_COUNTS,
  MOST_GAP,
  MOST_PHRASE,
  type One,
  oneAt,
  type SongCounts,
} from './song'

/** Counts on either side of one that is dragged which go along. */
const ALONG = 4

/** Some counts in a row, by their places, half-open. */
export interface Selection {
  readonly from: number
  readonly to: number
}

/** Counts that can't be: with the place, and what to do. */
function checked(counts: SongCounts, words: string): SongCounts {
  const { ms } = counts
  for (let i = 1; i < ms.length; i++) {
    const gap = (ms[i] as number) - (ms[i - 1] as number)
    if (gap < LEAST_GAP || gap > MOST_GAP)
      throw new UserError(
        `${words}: count ${i + 1} would be ${(gap / 1000).toFixed(2)} s after the one before it.`,
        `Counts are ${LEAST_GAP / 1000} to ${MOST_GAP / 1000} s apart; move it less far.`,
      )
  }
  if ((ms[0] as number) < 0)
    throw new UserError(`${words}: count 1 would be before the song.`, 'Move it less far.')
  return counts
}

/** This count is 1: all of its stretch, up to where it is counted anew, is counted so that it is. */
export function thisIsOne(counts: SongCounts, at: number): SongCounts {
  const own = oneAt(counts, at)
  const begins = at < own.at ? at : own.at + ((at - own.at) % own.counts)
  return {
    ...counts,
    ones: counts.ones.map((one) => (one === own ? { ...said(one), at: begins } : one)),
  }
}

/** What was found is hers from now on. */
const said = ({ found, ...one }: One): One => one

/** Counting begins anew here, in phrases of as many. */
export function restartHere(counts: SongCounts, at: number, label?: string): SongCounts {
  const own = oneAt(counts, at)
  const anew: One = { at, counts: own.counts, ...(label !== undefined && { label }) }
  return {
    ...counts,
    ones: [...counts.ones.filter((one) => one.at !== at), anew].sort((a, b) => a.at - b.at),
    anew: counts.anew.filter((one) => one !== at),
  }
}

/** Counting goes on through here, as it was before; the first 1 stays. */
export function countedOn(counts: SongCounts, at: number): SongCounts {
  const own = oneAt(counts, at)
  return own === counts.ones[0]
    ? counts
    : { ...counts, ones: counts.ones.filter((one) => one !== own) }
}

/** Phrases of so many counts, from where the count that holds here began. */
export function phraseOf(counts: SongCounts, at: number, length: number): SongCounts {
  if (!Number.isInteger(length) || length < 1 || length > MOST_PHRASE)
    throw new UserError(
      `A phrase of ${length} counts can’t be.`,
      `Write a whole number from 1 to ${MOST_PHRASE}.`,
    )
  const own = oneAt(counts, at)
  return {
    ...counts,
    ones: counts.ones.map((one) => (one === own ? { ...said(one), counts: length } : one)),
  }
}

/** Places after there are twice as many counts, or every other one. */
const scaled = (
  counts: SongCounts,
  place: (at: number) => number,
  ms: readonly number[],
): SongCounts => {
  const ones = counts.ones.map((one) => ({ ...one, at: place(one.at) }))
  return {
    ...counts,
    ms,
    fixed: [...new Set(counts.fixed.map(place))].filter((at) => at >= 0 && at < ms.length),
    ones: ones.filter(({ at }, i) => at >= 0 && at < ms.length && at > (ones[i - 1]?.at ?? -1)),
    anew: counts.anew.map(place).filter((at) => at >= 0 && at < ms.length),
    silent: counts.silent.map(({ from, to }) => ({ from: place(from), to: place(to) })),
  }
}

/**
 * Twice as many counts: one half way between every two.
 * @throws UserError where they would be too near each other, or too many
 */
export function twice(counts: SongCounts): SongCounts {
  const { ms } = counts
  if (2 * ms.length - 1 > MOST_COUNTS)
    throw new UserError('Twice as many counts are too many.', `A song has ${MOST_COUNTS} at most.`)
  const all = ms.flatMap((at, i) => {
    const next = ms[i + 1]
    return next === undefined ? [at] : [at, Math.round((at + next) / 2)]
  })
  return checked(
    { ...scaled(counts, (at) => 2 * at, all), sure: counts.sure.flatMap((one) => [one, one]) },
    'Twice as many',
  )
}

/**
 * Every other count, from the first 1 on.
 * @throws UserError where they would be too far apart
 */
export function half(counts: SongCounts): SongCounts {
  const odd = (counts.ones[0]?.at ?? 0) % 2
  const kept = counts.ms.filter((_, i) => i % 2 === odd)
  return checked(
    {
      ...scaled(counts, (at) => Math.ceil((at - odd) / 2), kept),
      sure: counts.sure.filter((_, i) => i % 2 === 0),
    },
    'Half as many',
  )
}

/**
 * Moves counts in time: all of them, or the selected ones.
 * @throws UserError where they would leave their order
 */
export function nudged(counts: SongCounts, by: number, selection?: Selection): SongCounts {
  const { from = 0, to = counts.ms.length } = selection ?? {}
  const ms = counts.ms.map((at, i) => (i >= from && i < to ? at + Math.round(by) : at))
  return checked({ ...counts, ms }, 'Moved')
}

/**
 * Sets a count by hand: it stays there, and those beside it go part of the way, up to the next
 * one that was set.
 * @throws UserError where it would leave its place between the others
 */
export function dragged(counts: SongCounts, index: number, to: number): SongCounts {
  const by = Math.round(to) - (counts.ms[index] as number)
  const fixed = new Set(counts.fixed)
  const ms = [...counts.ms]
  ms[index] = Math.round(to)
  for (const way of [-1, 1])
    for (let k = 1; k <= ALONG; k++) {
      const at = index + way * k
      if (at < 0 || at >= ms.length || fixed.has(at)) break
      ms[at] = (ms[at] as number) + Math.round((by * (ALONG + 1 - k)) / (ALONG + 1))
    }
  return checked(
    { ...counts, ms, by: 'hand', fixed: [...fixed.add(index)].sort((a, b) => a - b) },
    'Dragged',
  )
}

/** Nobody counts here: its counts are evenly spaced, and no number is said. */
export function uncounted(counts: SongCounts, { from, to }: Selection): SongCounts {
  const first = counts.ms[from] as number
  const last = counts.ms[Math.min(counts.ms.length - 1, to)] as number
  const span = Math.min(counts.ms.length - 1, to) - from
  const ms = counts.ms.map((at, i) =>
    i > from && i < from + span ? Math.round(first + ((last - first) * (i - from)) / span) : at,
  )
  const others = countedAgain(counts, { from, to }).silent
  return { ...counts, ms, silent: [...others, { from, to }].sort((a, b) => a.from - b.from) }
}

/** What is selected is counted again. */
export function countedAgain(counts: SongCounts, { from, to }: Selection): SongCounts {
  return {
    ...counts,
    silent: counts.silent.flatMap((one) => [
      ...(one.from < from ? [{ from: one.from, to: Math.min(one.to, from) }] : []),
      ...(one.to > to ? [{ from: Math.max(one.from, to), to: one.to }] : []),
    ]),
  }
}
