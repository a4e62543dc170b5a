import { median } from '../beats/numbers'
import { UserError } from '../errors'
import { TICKS_PER_COUNT } from '../time/time'
import { LEAST_GAP, type One, type Section, type Song, type SongCounts, songTime } from './song'

/** Counts that were corrected: the same ones, moved in time or numbered otherwise. */
export function withCounts(song: Song, counts: SongCounts): Song {
  if (counts === song.counts) return song
  return counts.ms.length === song.counts.ms.length
    ? withWords({ ...song, counts }, (index) => index, song)
    : recounted(song, counts)
}

/** Words stand on their counts, wherever counting begins. */
function withWords(next: Song, place: (index: number) => number, before: Song): Song {
  const [from, to] = [before, next].map(({ counts }) => counts.ones[0]?.at ?? 0) as [number, number]
  const words = before.words.map(({ at, text }) => ({
    at: Math.round(TICKS_PER_COUNT * (place(at / TICKS_PER_COUNT + from) - to)),
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
  const [before, after] = [songTime(song), songTime(next)]
  const first = counts.ones[0]?.at ?? 0
  const old = song.counts.ones[0]?.at ?? 0
  return withWords(
    next,
    (index) =>
      after.tickAt(before.secondsAt(TICKS_PER_COUNT * (index - old))) / TICKS_PER_COUNT + first,
    song,
  )
}

/**
 * Counts that were found or tapped anew, with what was set by hand in those before: each count
 * that was set stays to the millisecond, and so does each 1 that was said.
 * @param within only counts between these places of those before are taken from the new ones
 */
export function merged(
  before: SongCounts,
  found: SongCounts,
  within?: { readonly from: number; readonly to: number },
): SongCounts {
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
    silent: before.silent
      .map(({ from, to }) => ({ from: kept(from), to: kept(to) }))
      .filter(({ from, to }) => to > from),
  }
}

const moved =
  (place: (at: number) => number) =>
  (one: One): One => ({ ...one, at: place(one.at) })

/** The place of the count that is nearest to a moment. */
function nearestIn(ms: readonly number[]): (at: number) => number {
  return (at) => {
    let [low, high] = [0, ms.length - 1]
    while (high - low > 1) {
      const middle = (low + high) >> 1
      if ((ms[middle] as number) <= at) low = middle
      else high = middle
    }
    return Math.abs((ms[high] as number) - at) < Math.abs((ms[low] as number) - at) ? high : low
  }
}

/** Counts before and after a stretch as they are, and new ones in it, held at both ends. */
function spliced(
  before: readonly number[],
  found: readonly number[],
  hand: readonly number[],
  { from, to }: { readonly from: number; readonly to: number },
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

/** All that was heard is taken as it is. */
export const sectionsTaken = (song: Song): Song => ({ ...song, sections: song.sections.map(taken) })

/** A section that was touched is hers. */
const taken = ({ found, ...section }: Section): Section => section

/**
 * Changes a section; one that is renamed, or made like another, is taken.
 * @param change what of it becomes otherwise; undefined takes a likeness away
 */
export const sectionChanged = (
  song: Song,
  id: string,
  change: Partial<Pick<Section, 'label' | 'kind' | 'energy'>> & {
    readonly as?: string | undefined
  },
): Song => ({
  ...song,
  sections: song.sections.map((section) => {
    if (section.id !== id) return section
    const { as, ...others } = { ...taken(section), ...change }
    return as === undefined ? others : { ...others, as }
  }),
})

/** A section begins at a count; the one that held there is cut in two. */
export function sectionFrom(song: Song, at: number, id: string): Song {
  const before = song.sections.findLast((section) => section.at <= at)
  if (before?.at === at) return song
  const made: Section = before
    ? { ...taken(before), id, at, as: before.as ?? before.id }
    : { id, at: 0, label: 'Part', kind: 'other', energy: 3 }
  return { ...song, sections: [...song.sections, made].sort((a, b) => a.at - b.at) }
}

/** A section goes on into the one behind it, which is gone. The first one stays. */
export function sectionJoined(song: Song, id: string): Song {
  const index = song.sections.findIndex((section) => section.id === id)
  if (index <= 0) return song
  const { as } = song.sections[index] as Section
  return {
    ...song,
    sections: song.sections
      .filter((section) => section.id !== id)
      // What was like it is like what that was like.
      .map((section) => {
        if (section.as !== id) return section
        const { as: _, ...others } = section
        return as === undefined || as === section.id ? others : { ...others, as }
      }),
  }
}

/**
 * A section begins elsewhere.
 * @throws UserError where it would leave its place between the others
 */
export function sectionMoved(song: Song, id: string, at: number): Song {
  const index = song.sections.findIndex((section) => section.id === id)
  const [before, next] = [song.sections[index - 1], song.sections[index + 1]]
  if (index <= 0) return song
  if (at <= (before?.at ?? -1) || at >= (next?.at ?? song.counts.ms.length))
    throw new UserError(
      'A section can’t begin before the one before it, or behind the next.',
      'Join the two first, then begin a new one where you want it.',
    )
  return {
    ...song,
    sections: song.sections.map((section) =>
      section.id === id ? { ...taken(section), at } : section,
    ),
  }
}

/** Playing waits at a count, or no longer does. */
export function stopToggled(song: Song, at: number): Song {
  const isThere = song.stops.some((stop) => stop.at === at)
  const stops = isThere
    ? song.stops.filter((stop) => stop.at !== at)
    : [...song.stops, { at, label: '' }].sort((a, b) => a.at - b.at)
  return { ...song, stops }
}

/** The instructor's own word on a tick of the song; an empty one takes it away. */
export function wordSet(song: Song, at: number, text: string): Song {
  const others = song.words.filter((word) => word.at !== at)
  const words = text === '' ? others : [...others, { at, text }].sort((a, b) => a.at - b.at)
  return { ...song, words }
}
