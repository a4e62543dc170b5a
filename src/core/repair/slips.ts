import type { Combination } from '../combination/combination'
import { checkCombination } from '../findings/check'
import type { Finding } from '../findings/finding'
import { isSlip } from '../findings/once'
import type { House } from '../house/house'
import { type Vocabulary, vocabularyFor } from '../moves/vocabulary'
import { applyRepair } from './apply'
import { repairFeet } from './feet'
import type { FeetEdit } from './feetEdit'

/** A slip of the weight, and those that are gone when it is mended: what it brings about. */
export interface SlipWith {
  /** Keys of slips (`slipIn`). */
  readonly slip: string
  readonly brings: readonly string[]
}

/** A slip as it is known from one check to the next. */
export const slipIn = ({ code, side, spot, events }: Finding): string =>
  [code, side, spot.phrase, spot.at, events[0]].join('|')

/**
 * What slips only because of an earlier slip: the cheapest repair is made edit by edit, and what is
 * gone with the edit that mends a slip is listed under that one.
 */
export function slipsTogether(
  combination: Combination,
  base: Vocabulary,
  house: House,
): readonly SlipWith[] {
  const vocabulary = vocabularyFor(combination, base)
  const slipsOf = (one: Combination) =>
    checkCombination(one, base, house)
      .findings.filter(({ code }) => isSlip(code))
      .map(slipIn)
  let left = slipsOf(combination)
  if (left.length < 2) return []
  const [best] = repairFeet(combination, 'faults', base, house)
  if (!best) return []
  const together: SlipWith[] = []
  const edits = inOrder(best.edits, combination)
  for (const i of edits.keys()) {
    let id = 0
    const repaired = applyRepair(
      combination,
      edits.slice(0, i + 1),
      vocabulary,
      () => `slip-${id++}`,
    )
    const still = new Set(slipsOf(repaired))
    const gone = left.filter((slip) => !still.has(slip))
    const [slip, ...brings] = gone
    if (slip === undefined) continue
    if (brings.length > 0) together.push({ slip, brings })
    left = left.filter((one) => still.has(one))
  }
  return together
}

/** As they are danced: by the first pass of their phrase, then by count; changes of the order last. */
function inOrder(edits: readonly FeetEdit[], { order }: Combination): readonly FeetEdit[] {
  const placeOf = (edit: FeetEdit): number => {
    if (!('phrase' in edit)) return Number.MAX_SAFE_INTEGER
    const pass = edit.pass ?? order.findIndex(({ phrase }) => phrase === edit.phrase)
    return pass * 1000 + edit.at
  }
  return [...edits].sort((a, b) => placeOf(a) - placeOf(b))
}
