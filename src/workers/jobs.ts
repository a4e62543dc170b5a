import type { Combination, DancerLevel } from '../core/combination/combination'
import type { ClassEntry } from '../core/diary/diary'
import type { Finding } from '../core/findings/finding'
import type { LevelForm } from '../core/forms/levels'
import type { HouseRules } from '../core/house/house'
import type { Layering } from '../core/house/layerings'
import type { OwnMove } from '../core/moves/move'
import type { OwnNames } from '../core/moves/vocabulary'
import type { Page, PageWish } from '../core/notebook/read'
import type { Planned } from '../core/plan/edits'
import type { Plan, PlanWishes } from '../core/plan/plan'
import type { SpreadClass } from '../core/plan/spread'
import type { Repair } from '../core/repair/offers'
import type { SlipWith } from '../core/repair/slips'
import type { SongFact } from '../core/routine/fit'
import type { MadeUpWish } from '../core/routine/madeUp'
import type { Offer } from '../core/routine/offers'
import type { Proposed } from '../core/routine/propose'
import type { Routine } from '../core/routine/routine'
import type { LaidSongs } from '../core/routine/withSong'
import type { FileRead } from '../core/sheet/files'
import type { Song } from '../core/song/song'
import type { Answers } from '../core/suggest/answer'
import type { FillWish, PassWish } from '../core/suggest/asked'
import type { Filling } from '../core/suggest/fill'
import type { InTheWay } from '../core/suggest/inTheWay'
import type { Gap, Suggestion } from '../core/suggest/suggest'
import type { Variation } from '../core/suggest/vary'

/** What is thought through beside the page, since it takes longer than a frame. */
export interface Jobs {
  repairs: { in: { combination: Combination; finding: Finding }; out: readonly Repair[] }
  /** Which slips of the weight another one brings about. */
  slips: { in: { combination: Combination }; out: readonly SlipWith[] }
  suggest: { in: { combination: Combination; gap: Gap }; out: readonly Suggestion[] }
  fill: { in: { combination: Combination; wish: FillWish }; out: readonly Filling[] }
  /** Whole phrases for an empty one. */
  whole: { in: { combination: Combination; wish: PassWish }; out: readonly Filling[] }
  /** Why nothing was found to fill it, and what comes nearest. */
  inTheWay: { in: { combination: Combination; wish: FillWish }; out: InTheWay }
  /** Phrases that answer the one of a pass. */
  answer: { in: { combination: Combination; wish: PassWish }; out: Answers }
  /** Phrases of other combinations joined to it. */
  mix: {
    in: { combination: Combination; wish: PassWish; shelf: readonly Combination[] }
    out: readonly Variation[]
  }
  vary: { in: { combination: Combination; wish: PassWish }; out: readonly Variation[] }
  /** Keys of the things some classes have danced. */
  knows: {
    in: { classes: readonly ClassEntry[]; combinations: readonly Combination[] }
    out: readonly string[]
  }
  /** What goes with what in some combinations. */
  layerings: { in: { combinations: readonly Combination[] }; out: readonly Layering[] }
  level: { in: { combination: Combination; level: DancerLevel }; out: LevelForm }
  /** Plans what is not locked. */
  plan: {
    in: { plan: Plan; combinations: readonly Combination[]; laidSongs: LaidSongs }
    out: Planned
  }
  /** Over how many classes a plan is spread. */
  spread: {
    in: { wishes: PlanWishes; combinations: readonly Combination[] }
    out: readonly SpreadClass[]
  }
  /** What is worth a look in a routine. */
  routine: { in: OnSong; out: readonly SongFact[] }
  /** Ways to put one of these right. */
  offers: { in: OnSong & { fact: SongFact }; out: readonly Offer[] }
  /** Routines that cover what is free of a song with these combinations. */
  propose: { in: OnSong; out: readonly Proposed[] }
  /** Something to dance in a quiet passage. */
  madeUp: { in: MadeUpWish; out: Combination | null }
  /** A page of a notebook, as it is understood. */
  page: { in: { text: string; wish: PageWish }; out: Page }
  /** A file, or a text that was pasted. */
  read: { in: { name: string; content: Uint8Array | string }; out: FileRead }
}
/** A routine with all it needs. */
interface OnSong {
  routine: Routine
  song: Song
  combinations: readonly Combination[]
}

export type JobName = keyof Jobs

/** What every job goes by: this instructor's words and house. */
export interface Setting {
  readonly own: readonly OwnMove[]
  readonly names: OwnNames
  readonly house: HouseRules
}

export interface Request<J extends JobName = JobName> {
  readonly id: number
  readonly job: J
  readonly input: Jobs[J]['in']
  readonly setting: Setting
}

/** Errors do not survive the trip; a sentence does. */
export type Reply<J extends JobName = JobName> =
  | { readonly id: number; readonly ok: true; readonly output: Jobs[J]['out'] }
  | { readonly id: number; readonly ok: false; readonly text: string; readonly toDo?: string }
