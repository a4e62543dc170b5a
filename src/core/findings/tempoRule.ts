import { FASTEST } from '../time/tempo'
import type { Found } from './finding'
import type { Danceable } from './rule'

/** Something that needs a time: fine up to a tempo, found above it. */
export interface TempoLimit {
  /** The tick where it is danced: the tempo there counts. */
  readonly at: number
  /** The highest tempo at which it is not found, not rounded; 0 where no tempo is slow enough. */
  readonly most: number
  /** The finding as it reads at a tempo above that. */
  readonly found: (tempo: number) => Found
}

/** Whether anything is ever danced fast enough to find it; what is not need not be given. */
export const canBeFound = (most: number): boolean => most < FASTEST + 1

/** A rule whose findings only hang on the time there is. */
export interface TempoRule {
  readonly id: string
  /** All its limits, whatever the tempo is. */
  readonly tempoLimits: (danceable: Danceable) => readonly TempoLimit[]
}

/** The limits below the tempo of their place: what is found there. */
export const limitsBelow = (
  rules: readonly TempoRule[],
  danceable: Danceable,
  tempoAt: (tick: number) => number,
): readonly TempoLimit[] =>
  rules.flatMap((rule) => rule.tempoLimits(danceable).filter(({ most, at }) => most < tempoAt(at)))
