import type { Combination } from '../combination/combination'
import type { House } from '../house/house'
import { type Vocabulary, vocabularyFor } from '../moves/vocabulary'
import { applyRepair } from '../repair/apply'
import { editWords, repairFeet } from '../repair/feet'
import type { RepairGoal } from '../repair/feetEdit'

/** Steps danced otherwise, in words, and the combination with them. */
interface Mended {
  readonly words: string
  readonly combination: Combination
}

/**
 * The cheapest change of single steps of some phrases that reaches a goal; undefined where none is
 * needed or none helps, or where several dance.
 * @param phrases ids of the phrases that may change
 */
export function mendedIn(
  combination: Combination,
  phrases: readonly (string | undefined)[],
  goal: RepairGoal,
  base: Vocabulary,
  house: House,
): Mended | undefined {
  if (combination.parts) return undefined
  const repair = repairFeet(combination, goal, base, house).find(({ edits }) =>
    edits.every(
      (edit) => 'phrase' in edit && edit.pass === undefined && phrases.includes(edit.phrase),
    ),
  )
  if (!repair || repair.edits.length === 0) return undefined
  let step = 0
  const newId = () => `${phrases.join()} step ${step++}`
  const said = repair.edits.map((edit) => {
    const { at, to } = editWords(edit, combination)
    return `${at} ${to}`
  })
  return {
    words: said.join(', '),
    combination: applyRepair(combination, repair.edits, vocabularyFor(combination, base), newId),
  }
}
