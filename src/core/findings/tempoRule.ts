import { TICKS_PER_COUNT } from '../time/time'
import type { Found } from './finding'
import type { Danceable } from './rule'

/** Something that needs a time: fine up to a tempo, found above it. */
export interface TempoLimit {
  /** The highest tempo at which it is not found, not rounded; 0 where no tempo is slow enough. */
  readonly most: number
  /** The finding as it reads at a tempo above that. */
  readonly found: (tempo: number) => Found
}

/** A rule whose findings only hang on the time there is. */
export interface TempoRule {
  readonly id: string
  /** Only the limits below a tempo: the others are no finding there. */
  readonly tempoLimits: (danceable: Danceable, below: number) => Iterable<TempoLimit>
}

/** Sums in binary fractions must not make a finding of what just fits. */
const SLACK = 1 + 1e-9

/** The tempo at which some ticks take just these seconds. */
export const tempoFor = (ticks: number, seconds: number): number =>
  seconds <= 0 ? Number.POSITIVE_INFINITY : ((60 / TICKS_PER_COUNT) * ticks * SLACK) / seconds

/** How long some ticks take at a tempo. */
export const secondsAtTempo = (ticks: number, tempo: number): number =>
  (ticks * 60) / (tempo * TICKS_PER_COUNT)
