import TinyQueue from 'tinyqueue'
import type { Combination } from '../combination/combination'
import type { House } from '../house/house'
import type { Vocabulary } from '../moves/vocabulary'
import type { Behaviour } from './behaviours'
import { endings } from './endings'
import { byPrice, contains, type FeetEdit, type Priced, type RepairGoal } from './feetEdit'
import { steps } from './nextPass'
import type { Node } from './node'
import type { Allows } from './phraseOptions'
import { FALLEN } from './stances'
import { addEntries, prepare, type Search } from './tables'

/** How many equal places of the search are gone on from. */
const MOST_EQUAL = 6
/** A search that has looked at this many places has nothing sensible left to find. */
const MOST_NODES = 60_000

/** Each round meets the stances one phrase further on; more than a long order has, it can't need. */
const MOST_ROUNDS = 300

/**
 * The cheapest sets of edits, best first, no set within another: a search over the order by
 * price, in which each phrase is changed in one of the ways that matter (behavioursOf).
 * @param most how many are wanted.
 * @param allows which edits of steps may be made; all of them where it is left out.
 */
export function searchRepairs(
  combination: Combination,
  goal: RepairGoal,
  vocabulary: Vocabulary,
  house: House,
  most: number,
  allows?: Allows,
): readonly Priced[] {
  // What is danced with an option is mended in the option.
  if (combination.order.some(({ options }) => options)) return []
  const search = prepare(combination, vocabulary, house, allows)
  for (let round = 0; ; round++) {
    const found = run(search, goal, most)
    if (search.missing.size === 0 || round === MOST_ROUNDS) return found
    // Stances nobody thought of came up at a border: look from there as well.
    for (const [phrase, entries] of search.missing)
      addEntries(search, phrase, [...entries.values()])
    search.missing.clear()
    search.least.clear()
  }
}

function run(search: Search, goal: RepairGoal, most: number): readonly Priced[] {
  const { order } = search.combination
  const found: Priced[] = []
  const start: Node = {
    cost: 0,
    least: 0,
    paid: 0,
    apart: new Map(),
    late: 0,
    edits: [],
    pass: 0,
    lead: search.start,
    other: search.hasKept ? search.otherStart : FALLEN,
    chosen: new Map(),
    twins: new Map(),
    opening: undefined,
  }
  const heap = new TinyQueue([start], byHope)
  const seen = new Map<string, FeetEdit[][]>()
  for (let looked = 0; heap.length > 0 && found.length < most && looked < MOST_NODES; looked++) {
    const node = heap.pop()
    if (!node) break
    const edits = [...node.edits]
    if (found.some((one) => contains(edits, one.edits))) continue
    const key = keyOfNode(node, search)
    const same = seen.get(key) ?? []
    if (same.length >= MOST_EQUAL || same.some((one) => contains(edits, one))) continue
    seen.set(key, [...same, edits])
    if (node.pass > order.length) {
      found.push({ cost: node.cost, edits, late: node.late })
      continue
    }
    const next = node.pass === order.length ? endings(search, goal, node) : steps(search, node)
    for (const one of next) heap.push(one)
    // What is not known yet looks as if it fell: know it first, then begin again.
    if (search.missing.size > 0) return found
  }
  return found
}

function keyOfNode({ pass, lead, other, chosen, twins, opening }: Node, search: Search): string {
  const number = (phrase: string, behaviour: Behaviour) =>
    search.tables.get(phrase)?.behaviours.indexOf(behaviour)
  const picks = [...chosen].map(([phrase, behaviour]) => `${phrase}:${number(phrase, behaviour)}`)
  const first =
    opening && `${opening.phrase}:${number(opening.phrase, opening.behaviour)}${opening.mirrored}`
  const pending = [...twins].map(([twin, behaviour]) => {
    const phrase = search.combination.order[twin]?.phrase ?? ''
    return `${twin}=${number(phrase, behaviour)}`
  })
  return [pass, lead, other, ...picks.sort(), ...pending, first].join('|')
}

/** What can still become the cheapest comes first; sums of shares are compared to a thousandth. */
const byHope = (a: Node, b: Node): number => {
  const apart = a.least - b.least
  return Math.abs(apart) > 1e-3 ? apart : byPrice({ ...a, cost: 0 }, { ...b, cost: 0 })
}
