import { dequal } from 'dequal'
import type { Combination } from '../combination/combination'
import { partIds, partWith } from '../combination/partOf'
import type { PartId } from '../combination/whose'
import type { Checked, LeftFinding } from './checked'
import { type Finding, inOrder } from './finding'

/**
 * What is said of several dancers: each as she dances alone, what is found of more than one of them
 * once, and what is found between them. All else is the first part's.
 * @param check what is known of one part
 * @param between what is found between them, and whether the other side follows by itself
 */
export function checkedTogether(
  combination: Combination,
  check: (part: PartId) => Checked,
  between: (switches: boolean) => Pick<Checked, 'findings' | 'left'>,
): Checked {
  const each = partIds(combination).map((part) => ({ part, checked: check(part) }))
  const [first] = each
  if (!first) throw new Error('a combination has a part')
  const { checked } = first
  const of = <T extends Finding>(pick: (one: Checked) => readonly T[]): readonly T[] =>
    once(
      each.flatMap(({ part, checked: own }) =>
        pick(own)
          // The room is theirs together: that is said of all of them at once.
          .filter(({ code }) => code !== 'space.room')
          .map((finding) => ({ ...finding, whose: [part] })),
      ),
      combination,
    )
  const switches = each.every(({ checked: own }) => own.joins.switches)
  const met = between(switches)
  return {
    // Written out, so that the other side is danced only when it is asked for.
    lead: checked.lead,
    get other() {
      return checked.other
    },
    joins: {
      ...checked.joins,
      repeats: each.every(({ checked: own }) => own.joins.repeats),
      switches,
    },
    findings: inOrder([...of((one) => one.findings), ...met.findings]),
    left: [...of<LeftFinding>((one) => one.left), ...met.left],
    level: checked.level,
    house: checked.house,
    get loads() {
      return checked.loads
    },
  }
}

/** What is the same of several parts, once: word for word, or as the image of it. */
function once<T extends Finding>(all: readonly T[], combination: Combination): readonly T[] {
  const said: T[] = []
  for (const one of all) {
    const i = said.findIndex((other) => isSame(other, one, combination))
    const known = said[i]
    if (known) said[i] = { ...known, whose: [...known.whose, ...one.whose] }
    else said.push(one)
  }
  return said
}

function isSame(a: Finding, b: Finding, combination: Combination): boolean {
  if (a.code !== b.code || a.side !== b.side || !dequal(a.spot, b.spot)) return false
  // What happens to each at her own move is one all the same.
  const { whose: _, events: ___, also: _____, ...factA } = a
  const { whose: __, events: ____, also: ______, ...factB } = b
  const [imageA, imageB] = [a, b].map(
    ({ whose: [part = ''] }) => partWith(combination, part)?.mirrored === true,
  )
  return dequal(factA, factB) || (imageA !== imageB && dequal(a.events, b.events))
}

/** Whose a finding is, by their names; nothing where it is everybody's. */
export function whoseFinding({ whose: named }: Finding, { parts = [] }: Combination): string {
  if (named.length >= parts.length && parts.length !== 2) return parts.length > 2 ? 'all' : ''
  if (named.length === 2 && parts.length === 2) return 'both'
  return parts
    .filter(({ id }) => named.includes(id))
    .map(({ name }) => name)
    .join(', ')
}
