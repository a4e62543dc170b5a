import type { Between } from '../combination/between'
import type { PropAct } from '../combination/carried'
import type {
  Comment,
  LeftOut,
  Like,
  Option,
  Unread,
  WrittenFacing,
} from '../combination/combination'
import type { Pace } from '../combination/pace'
import type { CountCalls, Remark } from '../combination/remark'
import type { Voice } from '../combination/voice'
import { EntryProblem } from '../entry/reader'
import type { Token } from '../entry/tokens'
import type { Numbering } from '../time/time'
import type { WrittenEvent } from './entry'
import { offsetIn, type Placed, type SheetMessage } from './lines'

/** An event while its sheet is read, and where it stands there. */
export interface DraftEvent extends WrittenEvent {
  readonly from: number
  readonly to: number
  /** The event of another phrase it is like, by its id there. */
  readonly copyOf?: { readonly id: string; readonly mirrored: boolean }
}

/** What a phrase is like, as it was typed. */
export interface TypedLike {
  readonly of: Token
  readonly counts: Token | undefined
  readonly pace: Pace | undefined
  /** Nobody said how many counts it has. */
  readonly isAsLong: boolean
}

/** An option of a phrase while its lines are read. */
export interface DraftOption extends Pick<Option, 'name' | 'kind' | 'words'> {
  readonly events: DraftEvent[]
  readonly without: LeftOut[]
}

/** A phrase while its lines are read: as written, with no ids yet. */
export interface DraftPhrase {
  readonly name: string
  readonly title: string
  counts: number
  /** Where the line that begins it stands. */
  readonly line: { readonly from: number; readonly to: number }
  readonly typedLike: TypedLike | undefined
  /** The name of what it is like stands for its id. */
  like?: Like
  /** Places where it leaves out what it would have from another phrase: `hips 36`. */
  readonly leftOut: Set<string>
  readonly from?: number | undefined
  readonly pickup?: number | undefined
  call?: CountCalls
  readonly events: DraftEvent[]
  readonly options: DraftOption[]
  readonly remarks: Omit<Remark, 'id'>[]
  readonly between: Omit<Between, 'id'>[]
  readonly voices: Voice[]
  readonly props: Omit<PropAct, 'id'>[]
  readonly facings: WrittenFacing[]
  readonly comments: Comment[]
  readonly unread: Unread[]
}

/** Collects what is wrong, with its line and column. */
export class Messages {
  readonly list: SheetMessage[] = []
  readonly #sheet: string
  readonly #starts: number[] = [0]
  constructor(sheet: string) {
    this.#sheet = sheet
    for (let i = sheet.indexOf('\n'); i >= 0; i = sheet.indexOf('\n', i + 1))
      this.#starts.push(i + 1)
  }
  add(text: string, from: number, to: number): void {
    const at = Math.min(from, this.#sheet.length)
    let low = 0
    let high = this.#starts.length - 1
    while (low < high) {
      const middle = (low + high + 1) >> 1
      if ((this.#starts[middle] ?? 0) <= at) low = middle
      else high = middle - 1
    }
    const column = at - (this.#starts[low] ?? 0) + 1
    this.list.push({ line: low + 1, column, from: at, to: Math.max(at + 1, to), text })
  }
  /** Says a problem of some text at its own place. */
  problem(problem: unknown, placed: Placed): void {
    if (!(problem instanceof EntryProblem)) throw problem
    this.add(
      problem.message,
      offsetIn(placed, problem.at),
      offsetIn(placed, Math.max(problem.at, problem.end - 1)) + 1,
    )
  }
}

interface PhraseLine extends Numbering {
  readonly pickup?: number | undefined
  readonly title?: string
  readonly line?: DraftPhrase['line']
  readonly typedLike?: TypedLike | undefined
}

export const emptyPhrase = (
  name: string,
  { counts, from, pickup, title = '', line = { from: 0, to: 1 }, typedLike }: PhraseLine,
): DraftPhrase => ({
  name,
  title,
  counts,
  from,
  pickup,
  line,
  typedLike,
  leftOut: new Set(),
  events: [],
  options: [],
  remarks: [],
  between: [],
  voices: [],
  props: [],
  facings: [],
  comments: [],
  unread: [],
})
