import { type Song, secondsOfCount, songTime, tickOfCount } from '../song/song'
import { slowed, startingAt, type TimeMap } from '../time/timeMap'
import type { SegmentMusic } from './played'

/**
 * A song from one of its counts on: how the ticks go by from there, and what is heard.
 * @param at need not be whole
 * @param rate of its own speed
 */
export const songFrom = (
  song: Song,
  at: number,
  rate: number,
): { readonly time: TimeMap; readonly music: SegmentMusic } => ({
  time: startingAt(slowed(songTime(song), rate), tickOfCount(song, at)),
  music: { mark: song.media.mark, from: Math.max(0, secondsOfCount(song, at)), rate },
})
