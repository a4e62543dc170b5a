import { firstOne, type Section, type Song } from './song'

/** A part of a song one may dance to: counts, half-open. */
export interface SongPart {
  readonly label: string
  readonly section: Section
  readonly from: number
  readonly to: number
}

/** The sections of a song, each from where counting has begun in it. */
export function partsOf({ sections, counts }: Song): readonly SongPart[] {
  const first = firstOne(counts)
  return sections.flatMap((section, i): readonly SongPart[] => {
    const { label, at } = section
    const [from, to] = [Math.max(at, first), sections[i + 1]?.at ?? counts.ms.length]
    return from < to ? [{ label, section, from, to }] : []
  })
}
