import { type Song, tickOfCount } from './song'

/** Playing waits at a count, or no longer does. */
export function stopToggled(song: Song, at: number): Song {
  const isThere = song.stops.some((stop) => stop.at === at)
  const stops = isThere
    ? song.stops.filter((stop) => stop.at !== at)
    : [...song.stops, { at, label: '' }].sort((a, b) => a.at - b.at)
  return { ...song, stops }
}

/** The instructor's own word on a count; empty where there is none. */
export const wordOn = (song: Song, at: number): string =>
  song.words.find((word) => word.at === tickOfCount(song, at))?.text ?? ''

/** Her own word on a count; an empty one takes it away. */
export function wordSet(song: Song, at: number, text: string): Song {
  const tick = tickOfCount(song, at)
  const others = song.words.filter((word) => word.at !== tick)
  const words = text === '' ? others : [...others, { at: tick, text }].sort((a, b) => a.at - b.at)
  return { ...song, words }
}
