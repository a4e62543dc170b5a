import type { Combination, DancerLevel } from '../combination/combination'
import { followed } from '../combination/like'
import { partOf } from '../combination/partOf'
import { lifted } from '../edits/forPart'
import type { House } from '../house/house'
import type { Vocabulary } from '../moves/vocabulary'
import { type LevelForm, levelForm, type Swap } from './levels'

/**
 * The version of a combination for a level, whoever dances it: of several each in turn, and what all
 * dance is eased once, for all of them.
 */
export function levelFormOfAll(
  combination: Combination,
  level: DancerLevel,
  base: Vocabulary,
  house: House,
): LevelForm {
  const { parts } = combination
  if (!parts) return levelForm(combination, level, base, house)
  const { level: own } = combination
  let now = combination
  const swaps: Swap[] = []
  const forms = parts.map(({ id, name }) => {
    const before = partOf(now, id)
    const form = levelForm(before, level, base, house)
    const { level: _, ...after } = form.combination
    const changed = lifted(now, id, {
      before,
      // Who comes next is eased from what it was written for, too.
      after: own === undefined ? after : { ...after, level: own },
      whom: 'all',
    })
    const isShared = (swap: Swap) =>
      swap.events.every((event) =>
        now.phrases.some(({ events }) => events.some((one) => one.id === event && !one.who)),
      )
    swaps.push(...form.swaps.map((swap) => (isShared(swap) ? swap : { ...swap, whose: name })))
    now = followed(now, changed)
    return form
  })
  const most = (pick: (form: LevelForm) => number) => Math.max(...forms.map(pick))
  return {
    level,
    combination: { ...now, level },
    swaps,
    load: {
      before: most(({ load }) => load.before),
      after: most(({ load }) => load.after),
      limit: forms[0]?.load.limit ?? 0,
    },
    left: forms.flatMap(({ left }, i) =>
      left.map((finding) => ({ ...finding, whose: [parts[i]?.id ?? ''] })),
    ),
  }
}
