import type { Layer } from '../body/layers'
import type { Side } from '../body/side'
import type { Options } from '../entry/options'
import type { Finished, Read } from '../entry/read'
import type { EntryPlace, Reader } from '../entry/reader'
import type { Motion } from '../moves/motion'
import type { BodyPart, Move, MoveKind } from '../moves/move'
import type { Vocabulary } from '../moves/vocabulary'
import { COUNT, type Tick } from '../time/time'
import type { Places } from './places'

/** What an event needs for itself while it runs, and how it behaves in time. */
export interface Claim {
  readonly kind: MoveKind
  readonly parts: readonly BodyPart[]
  /** A wave that takes the head along; a look over it goes wrong, but can be danced. */
  readonly wave: boolean
}

/** What stands around a `what`: its layer, and what the event says besides. */
export interface Around {
  readonly layer: Layer
  readonly vocabulary: Vocabulary
  /** What it is called here. */
  readonly as?: string | undefined
  /** Per cent of its usual size. */
  readonly size?: number | undefined
  /** Cycles a count. */
  readonly rate?: number | undefined
}

/** The same with the ticks it lasts. */
interface Lasting extends Around {
  readonly length: number
}

/**
 * A kind of thing that is danced: all that the house must know of it, in one module. A new kind is
 * a file like the others here, and a line in `kinds.ts` and in `entries.ts`.
 */
export interface Kind<W> {
  /** The layers it can stand on. */
  readonly layers: readonly Layer[]
  /** Whether it is danced again and again within its own range; else it is written again. */
  readonly repeatsItself: boolean
  /** Ticks it lasts where its whole count alone is written. */
  readonly ownLength: (what: W, move: Move | undefined) => Tick
  /** The side it is danced on, where it has one. */
  readonly side: (what: W) => Side | undefined
  /** The same from the other side; twice gives the original. */
  readonly mirror: (what: W) => W
  /** The short name the class would use: `step R forward`, `hip drop R`. */
  readonly name: (what: W, around: Around) => string
  /** The parts of the body it claims from start to end (model 5). */
  readonly claim: (what: W, around: Around) => Claim
  /** Where it leaves the body. */
  readonly leaves: (what: W, before: Places, around: Lasting) => Places
  /** How it is danced, in the motion language; empty for the feet. */
  readonly motion: (what: W, vocabulary: Vocabulary) => readonly Motion[]
  /** As the count sheet has it, without its time. */
  readonly write: (what: W, vocabulary: Vocabulary) => string
  /** As a dancer is told, a sentence without its full stop. */
  readonly say: (what: W, around: Around) => string
}

/** How a kind is written in an entry. */
export interface EntryKind<W> {
  /** The words its entry begins with, where they are not names. */
  readonly words: readonly string[]
  /**
   * Reads it where an entry begins with its words; undefined where that is something else, and
   * nothing is taken then.
   * @throws EntryProblem where it is begun, but not gone on with rightly
   */
  readonly read: (reader: Reader, place: EntryPlace) => Read<W> | undefined
  /**
   * Puts the options of its entry into it, and a side where one is left out.
   * @throws EntryProblem for an option it can't have
   */
  readonly finish: (read: Read<W>, options: Options, place: EntryPlace) => Finished<W>
}

/** What is danced once where it stands, and where no length is written lasts a count. */
export const ONCE = { repeatsItself: false, ownLength: () => COUNT } as const
