import type { Side } from '../body/side'
import type { ActId, Drape } from '../combination/carried'

/** What was found of what is carried, as facts; each names the thing. */
export type PropFact =
  /** A hand that has something already. */
  | {
      readonly code: 'prop.full'
      readonly prop: string
      readonly act: ActId
      readonly hand: Side
      readonly holds: string
    }
  /** Nothing is in the hand it is done with. */
  | {
      readonly code: 'prop.empty'
      readonly prop: string
      readonly act: ActId
      readonly hand?: Side
    }
  /** It takes both hands; of an arm hold its name stands for what is done. */
  | {
      readonly code: 'prop.two-hands'
      readonly prop: string
      readonly act: ActId | undefined
      readonly move?: string
    }
  /** It can't be begun from where the cloth is, or not with such a thing at all. */
  | {
      readonly code: 'prop.drape'
      readonly prop: string
      readonly act: ActId
      readonly is: Drape
      readonly from: readonly Drape[]
    }
  | { readonly code: 'prop.no-turn'; readonly prop: string; readonly act: ActId }
  | {
      readonly code: 'prop.unready'
      readonly prop: string
      readonly act: ActId
      readonly ready: string
    }
  /** Less time than it takes, in seconds. */
  | {
      readonly code: 'prop.late'
      readonly prop: string
      readonly act: ActId
      readonly seconds: number
      readonly least: number
    }
  /** How far the cloth is behind her turn, and how many counts later it is round. */
  | {
      readonly code: 'prop.lag'
      readonly prop: string
      readonly act: ActId
      readonly degrees: number
      readonly counts: number
    }
  /** Palms farther apart than the cloth between them is long; or, to pass it, than hands come together. */
  | {
      readonly code: 'prop.hands-apart'
      readonly prop: string
      readonly metres: number
      readonly most: number
      readonly isPass: boolean
    }
  /** A hand, or both where none is named, that holds something and is to clap, to be laid on the other one, or behind the head. */
  | {
      readonly code: 'prop.clap'
      readonly prop: string
      readonly hand?: Side
      readonly move: string
    }
  /** Half turns it is wound, or what a wrapped arm is told. */
  | {
      readonly code: 'prop.wound'
      readonly prop: string
      readonly halves: number
      readonly move?: string
    }
  /** Metres of it that lie on the floor where a foot comes down. */
  | {
      readonly code: 'prop.underfoot'
      readonly prop: string
      readonly metres: number
      readonly foot: Side
    }
  /** Thrown and not caught, not so long in the air, or caught elsewhere than it comes down. */
  | {
      readonly code: 'prop.air'
      readonly prop: string
      readonly why: 'lost' | 'short' | 'long' | 'far'
      readonly by: number
    }
  /** How it is held at the end, and at the start of what follows. */
  | {
      readonly code: 'prop.join'
      readonly prop: string
      readonly ends: string
      readonly starts: string
      readonly into: 'repeat' | 'switch'
    }
