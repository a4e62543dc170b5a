import webvtt from 'node-webvtt'
import { inMilliseconds, plain } from '../sheet/vtt'
import { clockText } from '../time/clock'

/** Where something begins in a film. */
export interface Chapter {
  /** Seconds from its beginning. */
  readonly at: number
  readonly title: string
}

/** Chapters are so far apart, and so many, or there are none: players take no others. */
const LEAST_APART = 10
const LEAST_CHAPTERS = 3

/**
 * Chapters as players take them: the first at 0:00, ten seconds apart at least, three at least.
 * @param marks in the order of their time; of two that are too near the first stays
 * @returns none where there would be fewer than three
 */
export function chaptersOf(marks: readonly Chapter[]): readonly Chapter[] {
  const chapters: Chapter[] = []
  for (const { at, title } of [...marks].sort((a, b) => a.at - b.at)) {
    const last = chapters.at(-1)
    if (!last) chapters.push({ at: 0, title })
    else if (at - last.at >= LEAST_APART) chapters.push({ at, title })
  }
  return chapters.length >= LEAST_CHAPTERS ? chapters : []
}

/** A line each, to be pasted under a film: `0:00 Hello`. */
export const chapterText = (chapters: readonly Chapter[]): string =>
  chapters.map(({ at, title }) => `${placeText(at)} ${plain(title)}\n`).join('')

/** `0:40`, and `1:01:40` behind the first hour. */
function placeText(at: number): string {
  const hours = Math.floor(at / 3600)
  const rest = clockText(Math.floor(at) - 3600 * hours)
  return hours > 0 ? `${hours}:${rest.padStart(5, '0')}` : rest
}

/** The same as a file for players. @param seconds of the whole film */
export const chapterVtt = (chapters: readonly Chapter[], seconds: number): string =>
  webvtt.compile({
    valid: true,
    cues: chapters.map(({ at, title }, i) => ({
      identifier: String(i + 1),
      start: inMilliseconds(at),
      end: inMilliseconds(Math.max(chapters[i + 1]?.at ?? seconds, at + 0.001)),
      text: plain(title) || '–',
      styles: '',
    })),
  })
