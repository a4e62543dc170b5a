import type { Combination } from '../combination/combination'
import { mirror } from '../combination/mirror'
import { placeIn } from '../combination/names'
import { type House, USUAL_HOUSE } from '../house/house'
import { footJoins } from '../joins/joins'
import { type Vocabulary, vocabularyFor } from '../moves/vocabulary'
import { withHouseTurns } from '../simulate/danced'
import { simulate } from '../simulate/simulate'
import { labelIn } from '../time/time'
import { nameOfAction } from '../what/foot'
import { alikeFirst } from './alike'
import { applyRepair } from './apply'
import { contains, type FeetEdit, type Priced, type RepairGoal } from './feetEdit'
import { searchRepairs } from './search'

/** One way to put the feet right. */
export interface FeetRepair {
  /** By the house's figures (model 7). */
  readonly cost: number
  readonly edits: readonly FeetEdit[]
}

const SHOWN = 3
/** Some of what the search finds may yet come too close to a landing of the phrase before. */
const SPARE = 5

/**
 * The three cheapest ways to clear every weight fault, and to reach the wanted end, best
 * first; none contains another. Empty where nothing helps; one without edits where nothing
 * is wrong.
 */
export function repairFeet(
  combination: Combination,
  goal: RepairGoal,
  base: Vocabulary,
  house: House = USUAL_HOUSE,
): readonly FeetRepair[] {
  const vocabulary = vocabularyFor(combination, base)
  const found = searchRepairs(combination, goal, vocabulary, house, SHOWN + SPARE)
  const isGood = ({ edits }: Priced) => {
    let id = 0
    const repaired = applyRepair(combination, edits, vocabulary, () => `repair-${id++}`)
    return isClear(repaired, goal, vocabulary, house)
  }
  const good: Priced[] = []
  for (const one of found) {
    if (good.length === SHOWN) break
    if (good.some(({ edits }) => contains(one.edits, edits))) continue
    if (isGood(one)) good.push(one)
  }
  const shown = alikeFirst(good, combination, goal, vocabulary, house, isGood).slice(0, SHOWN)
  return shown.map(({ cost, edits }) => ({ cost: cost / 100, edits }))
}

/** No weight fault on the lead side, none on the other where something is kept, and the end that is wanted. */
export function isClear(
  combination: Combination,
  goal: RepairGoal,
  vocabulary: Vocabulary,
  house: House,
): boolean {
  const written = withHouseTurns(combination, house)
  const lead = simulate(written, vocabulary, house)
  if (lead.danced.some(({ fault }) => fault)) return false
  const hasKept = combination.phrases.some(({ events }) => events.some(({ kept }) => kept))
  if (hasKept && simulate(mirror(written), vocabulary, house).danced.some(({ fault }) => fault))
    return false
  if (goal === 'faults') return true
  const { repeats, switches } = footJoins(lead, vocabulary)
  return goal === 'repeat' ? repeats : switches
}

/** Where an edit is and what it changes, in words: `A8`, `step R side`, `touch R side`. */
export function editWords(
  edit: FeetEdit,
  combination: Combination,
): { readonly at: string; readonly from: string; readonly to: string } {
  const nameOfPass = (pass: number) => {
    const id = combination.order[pass]?.phrase
    return combination.phrases.find((phrase) => phrase.id === id)?.name ?? ''
  }
  if ('phrase' in edit) {
    const phrase = combination.phrases.find(({ id }) => id === edit.phrase)
    const label = labelIn(phrase ?? { counts: 8 })(edit.at)
    const [first, second] = edit.to.map((action) => nameOfAction(action))
    return {
      at: placeIn(phrase?.name ?? '', label),
      from: edit.from ? nameOfAction(edit.from) : '',
      to: second ? `& ${first}; ${label} ${second}` : (first ?? ''),
    }
  }
  switch (edit.kind) {
    case 'own-phrase':
      return { at: nameOfPass(edit.pass), from: `pass ${edit.pass + 1}`, to: 'its own phrase' }
    case 'other-side':
      return { at: nameOfPass(edit.pass), from: `pass ${edit.pass + 1}`, to: 'from the other side' }
    case 'link':
      return {
        at: 'the end',
        from: '',
        to: `a link of ${edit.counts} count${edit.counts > 1 ? 's' : ''}`,
      }
  }
}
