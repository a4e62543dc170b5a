import {
  countedAgain,
  countedOn,
  dragged,
  half,
  nudged,
  phraseOf,
  restartHere,
  type Selection,
  thisIsOne,
  twice,
  uncounted,
} from '../../core/song/correct'
import { withCounts } from '../../core/song/recount'
import type { Song, SongCounts } from '../../core/song/song'

/** Makes a change of the song, told in words. */
export type Change = (label: string, make: (song: Song) => Song, mark?: string) => void

/** Milliseconds that counts are moved by. */
export const NUDGE = { little: 5, much: 20 } as const

/** What of the counts is changed: those that are selected, or all where it is only one. */
export const selected = ({ from, to }: Selection): Selection | undefined =>
  to - from > 1 ? { from, to } : undefined

/** What can be done to the counts of a song, each one undo. */
export const countChanges = (change: Change, selection: Selection) => {
  const { from } = selection
  const counts = (label: string, make: (counts: SongCounts) => SongCounts, mark?: string) =>
    change(label, (song) => withCounts(song, make(song.counts)), mark)
  const stretch = selected(selection) ?? { from, to: from + 1 }
  return {
    one: () => counts('this is 1', (now) => thisIsOne(now, from)),
    anew: () => counts('count anew here', (now) => restartHere(now, from)),
    on: () => counts('count on through here', (now) => countedOn(now, from)),
    twice: () => counts('twice as many counts', twice),
    half: () => counts('half as many counts', half),
    nudge: (by: number) =>
      counts('move counts', (now) => nudged(now, by, selected(selection)), 'nudge'),
    phrase: (length: number) =>
      counts('phrase length', (now) => phraseOf(now, from, length), 'phrase length'),
    /** Sets the selected count by hand. */
    setBy: (by: number) =>
      counts(
        'set a count by hand',
        (now) => dragged(now, from, (now.ms[from] ?? 0) + by),
        `by hand ${from}`,
      ),
    /** Sets a count where it was dragged to. */
    drag: (at: number, ms: number) => counts('set a count by hand', (now) => dragged(now, at, ms)),
    uncount: () =>
      counts('no count here', (now) =>
        now.silent.some((one) => one.from <= stretch.from && one.to >= stretch.to)
          ? countedAgain(now, stretch)
          : uncounted(now, stretch),
      ),
  }
}
