import { dequal } from 'dequal'
import { createStore } from 'zustand/vanilla'
import type { Combination } from '../../core/combination/combination'
import { UserError } from '../../core/errors'
import {
  vocabulary as shipped,
  type Vocabulary,
  vocabularyFor,
  withOwn,
} from '../../core/moves/vocabulary'
import type { Wanted } from '../../core/writing/wanted'
import type { OwnEntry } from '../../storage/database'
import type { OwnWords } from '../../storage/own'
import { tell } from './trouble'

/** The vocabulary as this instructor has it: own moves and names in it. */
interface Words {
  readonly vocabulary: Vocabulary
  readonly entries: readonly OwnEntry[]
  readonly favourites: ReadonlySet<string>
}

const of = (entries: readonly OwnEntry[]): Words => ({
  entries,
  vocabulary: withOwn(
    shipped,
    entries.flatMap(({ move }) => move ?? []),
    Object.fromEntries(entries.flatMap(({ id, name }) => (name ? [[id, name]] : []))),
  ),
  favourites: new Set(entries.filter(({ favourite }) => favourite).map(({ id }) => id)),
})

export const words = createStore<Words>(() => of([]))

/** Keeps the words in step with what is stored, here and in other windows. */
export async function followOwnWords(own: OwnWords): Promise<() => void> {
  const read = async () => {
    const entries = await own.list()
    const count = await own.unreadable()
    tell(
      'unreadable moves',
      count === 0
        ? undefined
        : new UserError(
            `${count === 1 ? 'One of your own moves or names' : `${count} of your own moves and names`} can’t be read by this version.`,
            'They are kept as they are. Load the newest version of the app to have them again.',
          ),
    )
    words.setState((now) => (dequal(now.entries, entries) ? now : of(entries)))
  }
  await read()
  return own.watch(() => void read())
}

/** The vocabulary a combination is read by: this instructor's, and the moves it brings along. */
export const vocabularyIn = (combination: Combination): Vocabulary =>
  vocabularyFor(combination, words.getState().vocabulary)

/** Where the cursor of the studio stood last: the Moves screen can show what suits there. */
export const lastPlace = createStore<
  { readonly label: string; readonly wanted: Wanted } | undefined
>(() => undefined)

/** The instructor's own moves, as they are now. */
export const ownMoves = () => words.getState().entries.flatMap(({ move }) => move ?? [])
