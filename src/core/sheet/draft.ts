import type { Comment, CountCalls, Remark, Unread, WrittenFacing } from '../combination/combination'
import { EntryProblem } from '../entry/reader'
import type { Numbering } from '../time/time'
import type { WrittenEvent } from './entry'
import { offsetIn, type Placed, type SheetMessage } from './lines'

/** A phrase while its lines are read: as written, with no ids yet. */
export interface DraftPhrase {
  readonly name: string
  readonly title: string
  readonly counts: number
  readonly from?: number | undefined
  readonly pickup?: number | undefined
  call?: CountCalls
  readonly events: (WrittenEvent & { readonly from: number; readonly to: number })[]
  readonly remarks: Omit<Remark, 'id'>[]
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

export const emptyPhrase = (
  name: string,
  { counts, from, pickup }: Numbering & { readonly pickup?: number | undefined },
  title = '',
): DraftPhrase => ({
  name,
  title,
  counts,
  from,
  pickup,
  events: [],
  remarks: [],
  facings: [],
  comments: [],
  unread: [],
})
