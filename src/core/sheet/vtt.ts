import webvtt from 'node-webvtt'
import type { Performance } from '../performance/performance'

/** A caption is one line without what WebVTT reads as a sign. */
export const plain = (text: string): string =>
  text.replace(/&/g, 'and').replace(/[<>]/g, '').replace(/\s+/g, ' ').trim()

/** Whole ones, or 11.9999… would be written as 11.1000. */
export const inMilliseconds = (seconds: number): number => Math.round(seconds * 1000) / 1000

/** Captions for a film or a player: each count with what stands on it, in seconds. */
export function writeVtt({ captions, time }: Performance): string {
  const isNumber = (kind: string) => kind === 'count' || kind === 'count-in'
  const cues = captions
    .filter(({ kind }) => isNumber(kind))
    .map(({ at, length, text }, i) => {
      const said = captions
        .filter((item) => !isNumber(item.kind) && item.at >= at && item.at < at + length)
        .map((item) => plain(item.text))
      return {
        identifier: String(i + 1),
        start: inMilliseconds(time.secondsAt(at)),
        end: inMilliseconds(time.secondsAt(at + length)),
        text: [text, ...said].filter(Boolean).join(' · '),
        styles: '',
      }
    })
  return webvtt.compile({ valid: true, cues })
}
