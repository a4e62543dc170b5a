import { UserError } from '../errors'
import type { Section, Song } from './song'

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
