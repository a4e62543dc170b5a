import type { Combination } from '../src/core/combination/combination'
import { readCombination } from '../src/core/sheet/swayJson'
import records from '../src/storage/demo/demo.json'

/** The combinations a first visit finds. */
export const demo: readonly Combination[] = records.map(readCombination)
