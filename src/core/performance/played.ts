import type { TimeMap } from '../time/timeMap'
import type { Sound } from './sounds'

/** Where a song goes along with a segment. */
export interface SegmentMusic {
  /** The mark of its file. */
  readonly mark: string
  /** Seconds of the song, at its own speed, where the segment begins. */
  readonly from: number
  /** How much faster it is played than it is; the segment's time goes by accordingly. */
  readonly rate: number
}

/** A stretch of what is played, with a time of its own. */
export interface PlayedSegment {
  /** Ticks, not rounded. */
  readonly length: number
  /** How its own ticks go by, from its start. */
  readonly time: TimeMap
  /** On its own ticks. */
  readonly sounds: readonly Sound[]
  readonly music?: SegmentMusic | undefined
}

/** What a player takes: a performance, or a song by itself. */
export interface Played {
  readonly segments: readonly PlayedSegment[]
  /** The segments from here on are played again and again. */
  readonly loopFrom: number | undefined
  readonly tickOf: (place: { readonly index: number; readonly at: number }) => number
}
