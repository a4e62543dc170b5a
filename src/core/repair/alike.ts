import { mirrorFootAction } from '../body/feet'
import type { Combination, Phrase } from '../combination/combination'
import type { House } from '../house/house'
import type { Vocabulary } from '../moves/vocabulary'
import type { DancedStep } from '../simulate/simulate'
import { simulate } from '../simulate/simulate'
import type { Tick } from '../time/time'
import type { EditKind, FeetEdit, Priced, RepairGoal, StepEdit } from './feetEdit'
import type { Allows } from './phraseOptions'
import { searchRepairs } from './search'

const KINDS: readonly EditKind[] = [
  'touch',
  'step',
  'swap',
  'ball-change',
  'recover',
  'hop',
  'insert',
  'sway',
]

/** So much dearer, in hundredths, an answer may be that mends equal slips alike. */
const DEARER = 100

/** A place of a phrase from the step before a slip to the slip itself. */
interface Slip {
  readonly phrase: string
  readonly from: Tick
  readonly at: Tick
}

/**
 * The answer that mends equal slips in the fewest ways, of those that cost little more than the
 * cheapest: searched once for each kind of edit, held fixed for all slips that are alike.
 */
export function alikeFirst(
  found: readonly Priced[],
  combination: Combination,
  goal: RepairGoal,
  vocabulary: Vocabulary,
  house: House,
  isGood: (one: Priced) => boolean,
): readonly Priced[] {
  const [best] = found
  if (!best || waysIn(best) < 2) return found
  const slips = equalSlips(combination, vocabulary, house)
  if (slips.length < 2) return found
  const answers = KINDS.flatMap((kind) => {
    const allows: Allows = (edit, phrase) => edit.kind === kind || !isNear(edit, phrase, slips)
    const [one] = searchRepairs(combination, goal, vocabulary, house, 1, allows)
    return one && one.cost <= best.cost + DEARER && isGood(one) ? [one] : []
  })
  const alike = [best, ...answers].reduce((a, b) => {
    const fewer = waysIn(b) - waysIn(a)
    return fewer < 0 || (fewer === 0 && b.cost < a.cost) ? b : a
  })
  return alike === best ? found : [alike, ...found]
}

/** How many different edits of steps an answer has, up to their side. */
const waysIn = ({ edits }: Priced): number =>
  new Set(edits.flatMap((edit) => ('phrase' in edit ? [wayOf(edit)] : []))).size

function wayOf({ kind, to }: FeetEdit & StepEdit): string {
  const [a, b] = [JSON.stringify(to), JSON.stringify(to.map(mirrorFootAction))]
  return `${kind} ${[a, b].sort()[0]}`
}

const isNear = ({ at }: StepEdit, { id }: Phrase, slips: readonly Slip[]): boolean =>
  slips.some((slip) => slip.phrase === id && at >= slip.from && at <= slip.at)

/** The slips that are alike: the same step up to its side, between like neighbours. */
function equalSlips(
  combination: Combination,
  vocabulary: Vocabulary,
  house: House,
): readonly Slip[] {
  const { danced } = simulate(combination, vocabulary, house)
  const groups = new Map<string, Slip[]>()
  for (const [i, step] of danced.entries()) {
    if (!step.fault) continue
    const before = danced[i - 1]
    const key = [before, step, danced[i + 1]].map((one) => seenFrom(one, step)).join('|')
    const from = before?.pass === step.pass ? before.at : step.at
    const slip = {
      phrase: step.pass.phrase.id,
      from: (from - step.pass.at) as Tick,
      at: (step.at - step.pass.at) as Tick,
    }
    const group = groups.get(key) ?? []
    if (!group.some((one) => one.phrase === slip.phrase && one.at === slip.at)) group.push(slip)
    groups.set(key, group)
  }
  return [...groups.values()].filter((group) => group.length > 1).flat()
}

/** A step as it is from the side of another one. */
function seenFrom(one: DancedStep | undefined, { action }: DancedStep): string {
  if (!one) return ''
  const seen = action.foot === 'L' ? mirrorFootAction(one.action) : one.action
  return JSON.stringify([seen.primitive, seen.foot, seen.direction, seen.turn])
}
