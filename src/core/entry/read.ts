import type { Move } from '../moves/move'
import type { Options } from './options'
import { EntryProblem } from './reader'

/** What an entry says is danced, before its options are read. */
export interface Read<W> {
  readonly what: W
  readonly move?: Move | undefined
  /** Its foot was left out: the weight decides. */
  readonly open?: boolean
}

/** The same with its options, and with a side where it needs one. */
export interface Finished<W> {
  readonly what: W
  readonly open: boolean
  /** Per cent of its usual size. */
  readonly size?: number | undefined
}

/** Refuses an entry as a whole. */
export const refuse = (text: string): never => {
  throw new EntryProblem(text, { at: 0, end: 1 })
}

const SIZE_OF_WORD = { small: 60, large: 150 } as const

/** The size an entry asks for, in per cent. */
export const sizeIn = ({ size, word }: Options): number | undefined =>
  size ?? (word && SIZE_OF_WORD[word])

/** Refuses what only a step can have. */
export function refuseStepWords({ turn, contact }: Options): void {
  if (turn !== undefined) refuse('Only the feet turn: write the turn on a step.')
  if (contact) refuse('Only a step goes on the ball or the heel.')
}

/** Finishes what has no options of its own but its size. */
export function finishPlain<W>({ what }: Read<W>, options: Options): Finished<W> {
  refuseStepWords(options)
  if (options.via) refuse('Only the arms have a way (via).')
  return { what, open: false, size: sizeIn(options) }
}
