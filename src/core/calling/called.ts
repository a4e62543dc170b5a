import type { Layer } from '../body/layers'
import type { Company } from '../simulate/company'
import type { Simulation } from '../simulate/simulate'
import type { Range } from '../time/time'
import type { Announcement, CueKind, SongCalls } from './cues'

/** A word or a few, as they are said. */
export interface Spoken {
  readonly text: string
  /** From the quick bank of the voice, for half counts. */
  readonly isFast: boolean
  /** A count sounds with its vowel on the tick; a cue only has to be over in time. */
  readonly onBeat: boolean
}

/** How long a voice takes for a text, in seconds, from its usual or its quick bank; undefined for what it has no word for. */
export type SpeechSeconds = (text: string, isFast: boolean) => number | undefined

/** What is called in a round: numbers and cues, cues alone, only the switch, or nothing. */
export type CallMode = 'all' | 'cues' | 'switch' | 'none'

/** A stretch of a drill as the caller hears it, in order. */
export type CalledSegment =
  | {
      readonly kind: 'count-in'
      readonly numbers: readonly number[]
      readonly length: number
      /** The tick of it on which a pickup begins, where it is danced in it. */
      readonly pickup?: number | undefined
      /** What is named in it, where it has no numbers. */
      readonly names?: Announcement | undefined
    }
  | {
      readonly kind: 'round'
      readonly simulation: Simulation
      readonly range: Range
      readonly layers: readonly Layer[]
      readonly mode: CallMode
      /** Set where the other side was danced before. */
      readonly isSwitch: boolean
      readonly song?: SongCalls | undefined
      /** Where several dance. */
      readonly company?: Company | undefined
    }

/** Something that is called. */
export interface Call {
  /** Ticks from the start of the first segment; whole. */
  readonly at: number
  /** Ticks it takes to say, not rounded. */
  readonly length: number
  readonly what: 'number' | 'and' | 'names' | 'extra' | CueKind
  readonly text: string
  /** The tick of what it announces; for a number its own. */
  readonly of: number
  /** Absent where it found no room and is only shown. */
  readonly say?: Spoken
}

/** Ticks a text takes. @param at where it begins, or is over. */
export type TicksOf = (text: string, isFast: boolean, at: number) => number

export const lengthOf = (segment: CalledSegment): number =>
  segment.kind === 'count-in' ? segment.length : segment.range.to - segment.range.from

/** Ticks in which something is said. */
export interface Taken {
  readonly from: number
  readonly to: number
}

export const isFree = (taken: readonly Taken[], from: number, to: number): boolean =>
  taken.every((one) => to <= one.from || from >= one.to)
