import type { Combination } from '../combination/combination'
import type { House } from '../house/house'
import type { Vocabulary } from '../moves/vocabulary'
import type { Song } from '../song/song'
import type { Routine } from './routine'

/** What is needed to mend where two pieces meet. */
export interface Border {
  readonly routine: Routine
  readonly song: Song
  readonly find: (id: string) => Combination | undefined
  readonly vocabulary: Vocabulary
  readonly house: House
  readonly newId: () => string
}
