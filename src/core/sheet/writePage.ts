import type { Combination } from '../combination/combination'
import type { Vocabulary } from '../moves/vocabulary'
import { writeSheet } from './writeSheet'

/** A combination as a plain page of text: its count sheet without the line that says what it is. */
export const writePage = (combination: Combination, base: Vocabulary): string =>
  writeSheet(combination, base).replace(/^sway[^\n]*\n/, '')
