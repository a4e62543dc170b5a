import { firstOne, type Song } from './song'

/** A part of a song one may dance to: counts, half-open. */
export interface SongPart {
  readonly label: string
  readonly from: number
  readonly to: number
}

/** The sections of a song, each from where counting has begun in it. */
export function partsOf({ sections, counts }: Song): readonly SongPart[] {
  const first = firstOne(counts)
  return sections.flatMap(({ label, at }, i): readonly SongPart[] => {
    const [from, to] = [Math.max(at, first), sections[i + 1]?.at ?? counts.ms.length]
    return from < to ? [{ label, from, to }] : []
  })
}
