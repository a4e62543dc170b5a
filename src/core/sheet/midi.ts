import { type MidiEvent, writeMidi } from 'midi-file'
import type { Caption } from '../performance/captions'
import type { Performance } from '../performance/performance'
import { COUNT, TICKS_PER_COUNT } from '../time/time'

/** Pulses a beat in the file; a tick is a whole number of them. */
const PULSES_PER_BEAT = 480
const PULSES_PER_TICK = PULSES_PER_BEAT / TICKS_PER_COUNT
/** Percussion of the general sound set: a high block on the first count, a side stick on the others. */
const PERCUSSION = 9
const FIRST_NOTE = 76
const COUNT_NOTE = 37
const CLICK_PULSES = PULSES_PER_BEAT / 8

interface Timed {
  readonly at: number
  readonly event: MidiEvent
}

/**
 * A file with the tempo, a click a count (higher on the first of a phrase), a marker for
 * each phrase and the cues as lyrics: both sides, each counted in.
 */
export function writeMidiFile({ captions: items, time }: Performance, title: string): Uint8Array {
  const pulse = (item: Caption) => item.at * PULSES_PER_TICK
  const firsts = new Set(items.filter(({ kind }) => kind === 'phrase').map(({ at }) => at))
  const words: Timed[] = items.flatMap((item): Timed[] => {
    const at = Math.max(0, pulse(item))
    if (item.kind === 'phrase' || item.kind === 'side')
      return [{ at, event: { deltaTime: 0, type: 'marker', text: bytesOf(item.text) } }]
    return item.kind === 'cue'
      ? [{ at, event: { deltaTime: 0, type: 'lyrics', text: bytesOf(item.text) } }]
      : []
  })
  const clicks: Timed[] = items
    .filter(({ kind }) => kind === 'count' || kind === 'count-in')
    .flatMap((item): Timed[] => {
      const noteNumber = item.kind === 'count' && firsts.has(item.at) ? FIRST_NOTE : COUNT_NOTE
      const note = { deltaTime: 0, channel: PERCUSSION, noteNumber }
      return [
        { at: pulse(item), event: { ...note, type: 'noteOn', velocity: 96 } },
        { at: pulse(item) + CLICK_PULSES, event: { ...note, type: 'noteOff', velocity: 0 } },
      ]
    })
  const end = Math.max(...items.map(({ at }) => at + COUNT)) * PULSES_PER_TICK
  const setTempo: Timed = {
    at: 0,
    event: {
      deltaTime: 0,
      type: 'setTempo',
      microsecondsPerBeat: Math.round(60_000_000 / time.tempoAt(0)),
    },
  }
  const name: Timed = {
    at: 0,
    event: { deltaTime: 0, type: 'trackName', text: bytesOf(title || 'Molten Sway') },
  }
  return Uint8Array.from(
    writeMidi({
      header: { format: 1, numTracks: 2, ticksPerBeat: PULSES_PER_BEAT },
      tracks: [track([name, setTempo, ...words], end), track(clicks, end)],
    }),
  )
}

/** The bytes of a text in UTF-8, each as a sign: the writer puts down one byte a sign. */
const bytesOf = (text: string): string =>
  encodeURIComponent(text.replace(/\p{Surrogate}/gu, '?')).replace(/%([0-9A-F]{2})/g, (_, hex) =>
    String.fromCharCode(Number.parseInt(hex, 16)),
  )

/** Events in order, each with the time since the one before, and the end of the track. */
function track(timed: readonly Timed[], end: number): MidiEvent[] {
  let now = 0
  const events = [...timed]
    .sort((a, b) => a.at - b.at)
    .map(({ at, event }): MidiEvent => {
      const deltaTime = at - now
      now = at
      return { ...event, deltaTime }
    })
  return [...events, { deltaTime: Math.max(0, end - now), type: 'endOfTrack', meta: true }]
}
