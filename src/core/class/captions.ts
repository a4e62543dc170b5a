import webvtt from 'node-webvtt'
import { passAt } from '../combination/passes'
import { plain } from '../sheet/vtt'
import { secondsOfTicks } from '../time/tempo'
import { TICKS_PER_COUNT } from '../time/time'
import type { DrillPart } from './drillProgram'

/** A drill as captions: each count of every round, and what is called there, spoken or only shown. */
export function captionsOf(parts: readonly DrillPart[]): string {
  let start = 0
  const cues = parts.flatMap((part) => {
    const from = start
    start += secondsOfTicks(part.length, part.tempo)
    return Array.from({ length: part.length / TICKS_PER_COUNT }, (_, i) => {
      const at = i * TICKS_PER_COUNT
      const said = part.calls
        .filter(({ what }) => what !== 'number' && what !== 'and')
        .filter((call) => call.at >= at && call.at < at + TICKS_PER_COUNT)
        .map(({ text }) => plain(text))
      return {
        start: from + secondsOfTicks(at, part.tempo),
        end: from + secondsOfTicks(at + TICKS_PER_COUNT, part.tempo),
        text: [numberAt(part, i), ...said].filter(Boolean).join(' · '),
        styles: '',
      }
    })
  })
  return webvtt.compile({
    valid: true,
    cues: cues.map((cue, i) => ({ ...cue, identifier: String(i + 1) })),
  })
}

function numberAt(part: DrillPart, count: number): string {
  if (part.round === 0) return String(part.countIn?.[count] ?? '')
  const tick = (part.dance?.from ?? 0) + count * TICKS_PER_COUNT
  const pass = passAt(part.passes, tick)
  return pass ? String(Math.floor((tick - pass.at) / TICKS_PER_COUNT) + 1) : ''
}
