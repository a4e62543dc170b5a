import { type Combination, DancerLevel } from '../core/combination/combination'
import { UserError } from '../core/errors'
import { checkCombination } from '../core/findings/check'
import { type Finding, severityOf } from '../core/findings/finding'
import { findingText, spotText } from '../core/findings/findingText'
import { levelFormOfAll } from '../core/forms/levelOfAll'
import { USUAL_HOUSE } from '../core/house/house'
import { vocabulary } from '../core/moves/vocabulary'
import { applyRepair } from '../core/repair/apply'
import { editWords, type FeetRepair, repairFeet } from '../core/repair/feet'
import { writeSheet } from '../core/sheet/writeSheet'
import { FAULTS, type Output } from './output'

/** Prints the best repair; its costs go to standard error, or all of it as one JSON object. */
export function repair(
  combination: Combination,
  goal: string | undefined,
  asJson: boolean,
  { print, say }: Output,
): number {
  if (goal !== 'faults' && goal !== 'switch' && goal !== 'repeat')
    throw new UserError(
      `“${goal ?? ''}” is nothing to repair for.`,
      'Write --for faults, --for switch or --for repeat.',
    )
  const [best, ...others] = repairFeet(combination, goal, vocabulary)
  if (!best) {
    say('No repair of the feet leads there.\nChange what is kept, or write the last phrase anew.\n')
    return FAULTS
  }
  const told = ({ cost, edits }: FeetRepair) => {
    let id = 0
    const repaired = applyRepair(combination, edits, vocabulary, () => `repair-${id++}`)
    return {
      cost,
      edits: edits.map((edit) => ({ ...editWords(edit, combination), cost: edit.cost })),
      sheet: writeSheet(repaired, vocabulary),
      left: leftWhere(repaired, (finding) => severityOf(finding) === 'fault'),
    }
  }
  const first = told(best)
  if (asJson) print(`${JSON.stringify({ ...first, others: others.map(told) }, null, 2)}\n`)
  else {
    for (const { at, from, to, cost } of first.edits)
      say(`${cost}\t${at}\t${from ? `${from} -> ` : ''}${to}\n`)
    say(`${first.cost}\tin all\n`)
    for (const { at, layer, text } of first.left)
      say(`left\t${at}\t${layer}, not of the feet: ${text}\n`)
    print(first.sheet)
  }
  return first.left.length > 0 ? FAULTS : 0
}

/** What is still said of a combination, of the kind that matters here. */
const leftWhere = (combination: Combination, matters: (finding: Finding) => boolean) =>
  checkCombination(combination, vocabulary).findings.filter(matters).map(asLeft)

const asLeft = (finding: Finding) => ({
  code: finding.code,
  at: spotText(finding.spot),
  layer: finding.spot.layer,
  text: findingText(finding),
})

/** Prints the version for a level; what was swapped goes to standard error, or all as JSON. */
export function level(
  combination: Combination,
  to: string | undefined,
  asJson: boolean,
  { print, say }: Output,
): number {
  const wanted = DancerLevel.safeParse(to)
  if (!wanted.success)
    throw new UserError(
      `“${to ?? ''}” is no level.`,
      `Write --to ${DancerLevel.options.join(', --to ')}.`,
    )
  const form = levelFormOfAll(combination, wanted.data, vocabulary, USUAL_HOUSE)
  const sheet = writeSheet(form.combination, vocabulary)
  const left = form.left.map(asLeft)
  const reached = left.length === 0
  if (asJson)
    print(
      `${JSON.stringify({ load: form.load, swaps: form.swaps, reached, left, sheet }, null, 2)}\n`,
    )
  else {
    for (const { at, from, to: now, whose } of form.swaps)
      say(`${at}\t${whose ? `${whose}: ` : ''}${from ?? 'nothing'} -> ${now ?? 'left out'}\n`)
    for (const { at, layer, text } of left) say(`still too hard\t${at}\t${layer}: ${text}\n`)
    print(sheet)
  }
  return reached ? 0 : FAULTS
}
