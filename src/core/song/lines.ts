import { oneAt, placeIn, type Section, type Song } from './song'

/** A line of a song written like text: counts in a row, within one section. */
export interface SongLine {
  /** Its first count, and the one behind its last. */
  readonly from: number
  readonly to: number
  /** Set on the first line of a section. */
  readonly section: Section | undefined
  /** How many counts before its first one the line would begin, where it begins within a phrase. */
  readonly indent: number
}

/**
 * A song in lines of so many counts: each section begins a new one, and so does each place where
 * counting begins anew, so that what is danced alike stands one under the other.
 * @param most counts a line has at the most
 */
export function linesOf(song: Song, most: number): readonly SongLine[] {
  const { counts, sections } = song
  const total = counts.ms.length
  const breaks = [
    ...new Set([0, ...sections.map(({ at }) => at), ...counts.ones.map(({ at }) => at)]),
  ]
    .filter((at) => at < total)
    .sort((a, b) => a - b)
  return breaks.flatMap((start, i) => {
    const end = breaks[i + 1] ?? total
    const one = oneAt(counts, start)
    const phrase = one.counts
    const per = Math.max(phrase, Math.floor(most / phrase) * phrase)
    // What leads into the first 1 stands before it, as the end of a phrase.
    const into = (((start - one.at) % phrase) + phrase) % phrase
    const lines: SongLine[] = []
    for (let from = start; from < end; ) {
      const indent = lines.length === 0 ? into : 0
      const to = Math.min(end, from + per - indent)
      const section = from === start ? sections.find(({ at }) => at === start) : undefined
      lines.push({ from, to, section, indent })
      from = to
    }
    return lines
  })
}

/** A place as it is said: `Chorus 3·5`; before counting begins, how many counts before. */
export function placeWords(song: Song, at: number): string {
  const { section, phrase, count } = placeIn(song, at)
  const label = section?.label ?? 'Song'
  return phrase === 0 ? `${label}, ${1 - count} before 1` : `${label} ${phrase}·${count}`
}
