import type { Combination } from '../combination/combination'
import type { LineKind } from './lines'
import type { Meaning } from './meant'
import type { Role } from './table'

/** Something of a line that is danced: what it may mean, and what is taken. */
export interface Piece {
  /** `3.0`: its line and its place in it. */
  readonly id: string
  readonly typed: string
  /** Nothing where nobody knows: then it stays as a note. */
  readonly meanings: readonly Meaning[]
  readonly chosen: number
  readonly isUnsure: boolean
}

/** Whether a piece may be meant otherwise, or nobody is sure what it is. */
export const isOpen = ({ meanings, isUnsure }: Piece): boolean => meanings.length !== 1 || isUnsure

/** A line of the page, and what was understood of it. */
export interface PageLine {
  readonly number: number
  readonly text: string
  readonly kind: LineKind
  /** In the words of the sheet. */
  readonly said: readonly string[]
  readonly pieces: readonly Piece[]
  /** Something in it may be meant otherwise, or was not understood. */
  readonly isUnsure: boolean
}

/** What whoever reads the page over has changed of how it is understood. */
export interface PageWish {
  /** Which meaning of a piece, by its id; -1 for a note. */
  readonly chosen?: Readonly<Record<string, number>>
  /** What a line is, by its number. */
  readonly kinds?: Readonly<Record<number, LineKind>>
  /** What the columns of a table hold, from the left. */
  readonly columns?: readonly Role[]
}

export interface Page {
  readonly lines: readonly PageLine[]
  readonly combination: Combination
  /** What the columns hold, where it is a table; their headings where it has some. */
  readonly columns?: readonly { readonly heading: string; readonly role: Role }[]
}
