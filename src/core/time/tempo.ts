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

/** Counts a minute, not rounded, where so many ticks take so many seconds. */
export const tempoOfTicks = (ticks: number, seconds: number): number =>
  (ticks * 60) / (seconds * TICKS_PER_COUNT)

/** Ticks danced after some seconds, not rounded: a moving playhead stands between ticks. */
export const ticksOfSeconds = (seconds: number, tempo: Tempo): number =>
  (seconds * tempo * TICKS_PER_COUNT) / 60

/** Sums in binary fractions must not make too short what just fits. */
const SLACK = 1 + 1e-9

/** The tempo, not rounded, at which some ticks take just these seconds. */
export const tempoFor = (ticks: number, seconds: number): number =>
  seconds <= 0 ? Number.POSITIVE_INFINITY : (secondsOfTicks(ticks, 1) * SLACK) / seconds
