import type { Layer } from '../body/layers'
import { otherSide, type Side } from '../body/side'
import type { Bank } from '../calling/spokenWords'
import type { Combination } from '../combination/combination'
import type { PartId } from '../combination/whose'
import type { HouseRules } from '../house/house'
import type { Heard } from '../song/fingerprint'
import type { Tempo } from '../time/tempo'
import type { CutBank } from './cutVoice'
import type { DancedMove } from './movesUsed'
import type { PackedWord } from './ownVoice'

/** What is done at a stop: watched, walked, tried, taken to the other side, from the top, to the rhythm. */
type StopKind = 'show' | 'walk' | 'try' | 'other-side' | 'from-top' | 'dance'

/** One thing to do with a chunk; the page waits until it was done. */
export interface Stop {
  readonly do: StopKind
  readonly layers: readonly Layer[]
  /** Times it is danced in one go. */
  readonly rounds: number
  /** Of the tempo of the dance. */
  readonly percent: number
}

/** What is learned in one go: a phrase, as the teaching steps have it. */
export interface Chunk {
  /** Id of its phrase. */
  readonly id: string
  readonly name: string
  readonly title: string
  /** What is said of it, three lines at the most. */
  readonly say: readonly string[]
  /** What may be danced instead. */
  readonly easier: readonly string[]
  readonly stops: readonly Stop[]
  /** Ids of the chunks that come before it. */
  readonly need: readonly string[]
}

/** A song as a page knows it: not its sound, but how another copy is known, and when each count is heard. */
export interface PageSong extends Heard {
  readonly title: string
  /** The side the dance is danced on there. */
  readonly side: Side
  /** The ticks of that side's dance, and the seconds of the song they are heard at. */
  readonly knots: readonly (readonly [tick: number, second: number])[]
}

/** All a practice page knows: read and checked by the app that made it, never read again. */
export interface PageData {
  readonly kind: 'practice-page'
  readonly v: 1
  /** Eight signs that are the same for the same page. */
  readonly id: string
  readonly title: string
  /** Who sends it. */
  readonly by?: string
  /** Whose page it is, where several dance. */
  readonly whose?: string
  /** The day it was made. */
  readonly made: string
  /** All of it, also where only one of its parts is learned. */
  readonly combination: Combination
  /** The part that is learned, where several dance. */
  readonly part?: PartId
  /** The side she begins with. */
  readonly lead: Side
  readonly moves: readonly DancedMove[]
  /** Only what the house has changed. */
  readonly house: HouseRules
  readonly chunks: readonly Chunk[]
  readonly sides: 'both' | 'lead'
  readonly tempo: Tempo
  /** How much room it takes, as a sentence. */
  readonly space: string
  /** What to take care of. */
  readonly care: readonly string[]
  /** What to watch, two lines at the most. */
  readonly watch: readonly string[]
  /** The words that are called, cut out of the app's voice; absent where nobody speaks. */
  readonly voice?: Readonly<Partial<Record<Bank, CutBank>>>
  /** What of it the instructor says herself, by its text. */
  readonly own?: Readonly<Record<string, PackedWord>>
  /** A song it lies on whole; a student opens her own copy. */
  readonly song?: PageSong
  /** Which part of a series it is, from 1. */
  readonly inSeries?: { readonly n: number; readonly of: number }
  readonly note?: string
  /** The day of the next class. */
  readonly next?: string
}

/** The sides a page is danced on, the one it begins with first. */
export const sidesOf = ({ sides, lead }: PageData): readonly Side[] =>
  sides === 'both' ? [lead, otherSide[lead]] : [lead]

/** A short mark of a text, always the same: two times 32 bits of FNV-1a, as eight signs. */
export function markOf(text: string): string {
  const hash = (seed: number) => {
    let value = seed
    for (let i = 0; i < text.length; i++) {
      value ^= text.charCodeAt(i)
      value = Math.imul(value, 16_777_619) >>> 0
    }
    return value
  }
  return [2_166_136_261, 84_696_351]
    .map((seed) => hash(seed).toString(36).padStart(7, '0').slice(-4))
    .join('')
}
