import { median } from '../beats/numbers'
import { nearestIn } from '../time/nearest'
import { countedAgain, type Selection } from './correct'
import { isCounted } from './even'
import {
  countOfTick,
  LEAST_GAP,
  type One,
  type Song,
  type SongCounts,
  secondsOfCount,
  songTime,
  tickOfCount,
} from './song'

/** Counts that were corrected: the same ones, moved in time or numbered otherwise. */
export function withCounts(song: Song, counts: SongCounts): Song {
  if (counts === song.counts) return song
  return counts.ms.length === song.counts.ms.length
    ? withWords({ ...song, counts }, (index) => index, song)
    : recounted(song, counts)
}

/** Words stand on their counts, wherever counting begins. */
function withWords(next: Song, place: (index: number) => number, before: Song): Song {
  const words = before.words.map(({ at, text }) => ({
    // Never -0, which is kept as 0.
    at: Math.round(tickOfCount(next, place(countOfTick(before, at)))) + 0,
    text,
  }))
  return { ...next, words }
}

/** A song that was counted anew: its sections, stops and words stay where they are in time. */
export function recounted(song: Song, counts: SongCounts): Song {
  const nearest = nearestIn(counts.ms)
  const placed = (at: number) => nearest(song.counts.ms[at] ?? song.counts.ms.at(-1) ?? 0)
  const sections = song.sections.map((section) => ({ ...section, at: placed(section.at) }))
  const next: Song = {
    ...song,
    counts,
    sections: sections
      .map((section, i) => (i === 0 ? { ...section, at: 0 } : section))
      .filter(({ at }, i) => i === 0 || at > (sections[i - 1]?.at ?? -1)),
    stops: song.stops.map((stop) => ({ ...stop, at: placed(stop.at) })),
  }
  const after = songTime(next)
  return withWords(next, (at) => countOfTick(next, after.tickAt(secondsOfCount(song, at))), song)
}

/**
 * Counts that were found or tapped anew, with what was set by hand in those before: each count
 * that was set stays to the millisecond, and so does each 1 that was said.
 * @param within only counts between these places of those before are taken from the new ones
 */
export function merged(before: SongCounts, found: SongCounts, within?: Selection): SongCounts {
  const hand = before.fixed.map((at) => before.ms[at] as number)
  const ms = within ? spliced(before.ms, found.ms, hand, within) : withFixed(found.ms, hand)
  const nearest = nearestIn(ms)
  const kept = (at: number) => nearest(before.ms[at] ?? 0)
  const fresh = (at: number) => nearest(found.ms[at] ?? 0)
  const said = before.ones.filter((one) => within || !one.found)
  const ones = (said.length > 0 ? said.map(moved(kept)) : found.ones.map(moved(fresh))).filter(
    ({ at }, i, all) => at > (all[i - 1]?.at ?? -1),
  )
  return {
    ...found,
    ms,
    fixed: hand.map(nearest),
    sure: within ? [] : found.sure,
    ones,
    anew: (within ? before.anew.map(kept) : said.length > 0 ? [] : found.anew.map(fresh)).filter(
      (at, i, all) => at > (all[i - 1] ?? -1),
    ),
    silent: silentAfter(before, within)
      .map(({ from, to }) => ({ from: kept(from), to: kept(to) }))
      .filter(({ from, to }) => to > from),
  }
}

/** What stays uncounted where a song, or a stretch of it, is counted. */
const silentAfter = (before: SongCounts, within: Selection | undefined): SongCounts['silent'] =>
  within ? countedAgain(before, within).silent : isCounted(before) ? before.silent : []

const moved =
  (place: (at: number) => number) =>
  (one: One): One => ({ ...one, at: place(one.at) })

/** Counts before and after a stretch as they are, and new ones in it, held at both ends. */
function spliced(
  before: readonly number[],
  found: readonly number[],
  hand: readonly number[],
  { from, to }: Selection,
): readonly number[] {
  const end = Math.min(to, before.length - 1)
  const [first, last] = [before[from] as number, before[end] as number]
  const inside = (at: number) => at > first && at < last
  const held = [first, ...hand.filter(inside), last]
  const middle = withFixed(found.filter(inside), held).filter(inside)
  return [...before.slice(0, from + 1), ...middle, ...before.slice(end)]
}

/** Counts with those that were set by hand in place of the nearest ones. */
function withFixed(ms: readonly number[], hand: readonly number[]): readonly number[] {
  if (hand.length === 0) return ms
  const gaps = ms.slice(1).map((at, i) => at - (ms[i] as number))
  const apart = Math.max(LEAST_GAP, median(gaps) / 2)
  const isFar = (at: number) => hand.every((one) => Math.abs(one - at) >= apart)
  return [...ms.filter(isFar), ...hand].sort((a, b) => a - b)
}
