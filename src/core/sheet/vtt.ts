import webvtt from 'node-webvtt'
import type { Combination } from '../combination/combination'
import { timelineOf } from '../teaching/timeline'
import { secondsOfTicks, type Tempo } from '../time/tempo'

/** A caption is one line without what WebVTT reads as a sign. */
export const plain = (text: string): string =>
  text.replace(/&/g, 'and').replace(/[<>]/g, '').replace(/\s+/g, ' ').trim()

/**
 * Captions for a video or a player: each count with the cues that stand on it, both sides,
 * each with its count-in, in seconds of a tempo.
 */
export function writeVtt(combination: Combination, tempo: Tempo = combination.tempo): string {
  const items = timelineOf(combination)
  const cues = items
    .filter(({ kind }) => kind === 'count' || kind === 'count-in')
    .map(({ at, length, text }, i) => {
      const said = items
        .filter((item) => !['count', 'count-in'].includes(item.kind))
        .filter((item) => item.at >= at && item.at < at + length)
        .map((item) => plain(item.text))
      return {
        identifier: String(i + 1),
        start: secondsOfTicks(at, tempo),
        end: secondsOfTicks(at + length, tempo),
        text: [text, ...said].filter(Boolean).join(' · '),
        styles: '',
      }
    })
  return webvtt.compile({ valid: true, cues })
}
