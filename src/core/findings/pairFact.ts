import type { Side } from '../body/side'
import type { Relation } from '../combination/between'

/** What is found between dancers, as facts. */
export type PairFact =
  /** Two dancers whose bodies come nearer than they have room: metres between their middles, and where they touch. */
  | {
      readonly code: 'pair.collision'
      readonly a: string
      readonly b: string
      readonly apart: number
      readonly touch: number
      readonly severity: 'fault' | 'snag'
    }
  /** A foot that comes down beside a standing one of somebody else. */
  | { readonly code: 'pair.tread'; readonly a: string; readonly b: string; readonly metres: number }
  /** Where one ends away from where she is to stand, and how many steps more would bring her there. */
  | {
      readonly code: 'pair.place'
      readonly a: string
      readonly b: string
      readonly rel: Relation | 'round'
      readonly metres: number
      readonly more: number
    }
  | {
      readonly code: 'pair.facing'
      readonly a: string
      readonly b: string
      readonly rel: Relation | 'round'
      readonly degrees: number
    }
  /** A hand that does not reach who or what it is to hold, or only with a locked arm. */
  | {
      readonly code: 'pair.reach'
      readonly a: string
      readonly b: string
      /** The place of the body; empty for a hand. */
      readonly on: string
      readonly metres: number
      readonly reach: number
      readonly severity: 'fault' | 'snag'
    }
  | {
      readonly code: 'pair.hand-busy'
      readonly a: string
      readonly hand: Side
      readonly by: 'held' | 'sent' | 'prop'
      readonly severity: 'fault' | 'snag'
    }
  | {
      readonly code: 'pair.hand-late'
      readonly a: string
      readonly b: string
      readonly hand: Side
      readonly metres: number
      readonly seconds: number
    }
  | {
      readonly code: 'pair.turn-held'
      readonly a: string
      readonly b: string
      readonly degrees: number
      readonly most: number
    }
  | { readonly code: 'pair.crossed'; readonly a: string; readonly b: string }
  /** Degrees by which she would have to look behind; absent where her own line looks elsewhere. */
  | {
      readonly code: 'pair.eyes'
      readonly a: string
      readonly b: string
      readonly degrees?: number
    }
  /** A turn that nobody leads, or that is none. */
  | {
      readonly code: 'pair.led'
      readonly a: string
      readonly b: string
      readonly lacks: 'hand' | 'turn'
    }
  /** Why one can't carry the other: how she stands, from a count before. */
  | {
      readonly code: 'pair.support-stance'
      readonly a: string
      readonly b: string
      readonly why: 'one-foot' | 'narrow' | 'moves' | 'high'
    }
  | { readonly code: 'pair.support-hold'; readonly a: string; readonly b: string }
  | { readonly code: 'pair.support-missing'; readonly a: string; readonly move: string }
  /** Once a piece, wherever somebody leans on somebody. */
  | { readonly code: 'pair.support'; readonly times: number }
  /** All dance on, and do not stand as they did. */
  | {
      readonly code: 'pair.rejoin'
      readonly a: string
      readonly b: string
      readonly differs: 'facing' | 'level'
      readonly degrees?: number
    }
  /** Written twice, and nearly the same. */
  | {
      readonly code: 'pair.unison'
      readonly a: string
      readonly b: string
      readonly move: string
      readonly by: 'same' | 'image' | 'time'
    }
  /** What of the other one's dancing the end of the phrase takes from who follows. */
  | {
      readonly code: 'pair.cut'
      readonly a: string
      readonly b: string
      readonly moves: readonly string[]
    }
  /** How far somebody is from where the next round begins for her. */
  | {
      readonly code: 'pair.join'
      readonly a: string
      readonly metres: number
      readonly room: number
      readonly swapped: boolean
    }
