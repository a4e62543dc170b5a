import type { Selection } from './correct'
import { oneAt, type Song } from './song'

/** What is played of a song: on from a count, or again and again its phrase, its section, or what is selected. */
export type Stretch = 'once' | 'phrase' | 'section' | 'selection'

/** The counts that are played; `to` is absent where it goes on to the end of the sound. */
export function stretchOf(
  song: Song,
  { from, to }: Selection,
  stretch: Stretch,
): { readonly from: number; readonly to: number | undefined } {
  const total = song.counts.ms.length
  switch (stretch) {
    case 'selection':
      return { from, to: Math.max(from + 1, to) }
    case 'phrase': {
      const begins = phraseBegins(song, from)
      const length = oneAt(song.counts, from).counts
      return { from: Math.max(0, begins), to: Math.min(total, begins + length) }
    }
    case 'section': {
      const index = song.sections.findLastIndex(({ at }) => at <= from)
      return { from: song.sections[index]?.at ?? 0, to: song.sections[index + 1]?.at ?? total }
    }
    case 'once':
      // Playing waits where it is to stop.
      return { from, to: song.stops.find(({ at }) => at > from)?.at }
  }
}

/** The first count of the phrase a count is in; below 0 where the song begins within it. */
export function phraseBegins({ counts }: Song, at: number): number {
  const one = oneAt(counts, at)
  return at - ((((at - one.at) % one.counts) + one.counts) % one.counts)
}

/** Behind a stop it goes on one phrase earlier. */
export const beforeStop = ({ counts }: Song, stop: number): number =>
  Math.max(0, stop - oneAt(counts, stop).counts)
