import { z } from 'zod'
import { TICKS_PER_COUNT } from './time'

/** Counts per minute (model 1). */
export const SLOWEST = 40
export const FASTEST = 220

export const Tempo = z.int().min(SLOWEST).max(FASTEST)
export type Tempo = z.infer<typeof Tempo>

export const clampTempo = (tempo: number): Tempo =>
  Math.min(FASTEST, Math.max(SLOWEST, Math.round(tempo)))

export const secondsOfTicks = (ticks: number, tempo: Tempo): number =>
  (ticks * 60) / (tempo * TICKS_PER_COUNT)

/** Ticks danced after some seconds, not rounded: a moving playhead stands between ticks. */
export const ticksOfSeconds = (seconds: number, tempo: Tempo): number =>
  (seconds * tempo * TICKS_PER_COUNT) / 60

/** A point where music time and clock time are known to agree, and the tempo from there on. */
export interface Anchor {
  readonly seconds: number
  /** May lie between two ticks. */
  readonly tick: number
  readonly tempo: Tempo
}

/** Always computed from the anchor, never by summing up durations, so nothing drifts. */
export const secondsAt = (anchor: Anchor, at: number): number =>
  anchor.seconds + secondsOfTicks(at - anchor.tick, anchor.tempo)

export const ticksAt = (anchor: Anchor, seconds: number): number =>
  anchor.tick + ticksOfSeconds(seconds - anchor.seconds, anchor.tempo)
