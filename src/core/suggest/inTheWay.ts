import type { Combination } from '../combination/combination'
import { checkCombination } from '../findings/check'
import { severityOf } from '../findings/finding'
import { findingText } from '../findings/findingText'
import type { House } from '../house/house'
import { type Vocabulary, vocabularyFor } from '../moves/vocabulary'
import { type FillWish, firstGap } from './fill'
import { newFindings, offersFor, placed } from './suggest'

/** Moves that are tried for what they run into. */
const TRIED = 16

/** Why nothing clean was found for a layer of a phrase: it is full, or what most moves there run into. */
export function inTheWayOf(
  combination: Combination,
  { pass, layer }: Pick<FillWish, 'pass' | 'layer'>,
  base: Vocabulary,
  house: House,
): string {
  const vocabulary = vocabularyFor(combination, base)
  const gap = firstGap(combination, pass, layer, vocabulary)
  if (!gap) return 'No count of it is free: take something out first, or choose another layer.'
  const before = checkCombination(combination, base, house)
  const told = new Map<string, { times: number; text: string }>()
  for (const offer of offersFor(before, gap, vocabulary, TRIED)) {
    const { changed } = placed(combination, gap, offer, 'tried')
    const fresh = newFindings(before, checkCombination(changed, base, house)).filter(
      (finding) => severityOf(finding) !== 'note',
    )
    for (const finding of fresh) {
      const { times = 0 } = told.get(finding.code) ?? {}
      told.set(finding.code, { times: times + 1, text: findingText(finding, house.units) })
    }
  }
  const [most] = [...told.values()].sort((a, b) => b.times - a.times)
  return most
    ? `Most moves there run into this: ${most.text}`
    : 'Single moves fit there, but no phrase of them: use Ideas for a count of it.'
}
