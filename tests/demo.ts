import { Combination } from '../src/core/combination/combination'
import records from '../src/storage/demo/demo.json'

/** The combinations a first visit finds. */
export const demo: readonly Combination[] = Combination.array().parse(records)
