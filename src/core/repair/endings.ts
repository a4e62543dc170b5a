import { mirrorFootAction } from '../body/feet'
import { otherSide, type Side } from '../body/side'
import { MOST_COUNTS } from '../combination/combination'
import { roundPickup } from '../combination/passes'
import { OPENED } from './behaviours'
import { hundredths, type OrderEdit, type RepairGoal } from './feetEdit'
import { linkSteps } from './link'
import { type Node, placeOf } from './node'
import { FALLEN, type Stance } from './stances'
import { endOf, NO_END, type Search, through } from './tables'

/** What may follow the last pass: the goal itself, or a link that leads to it. */
export function* endings(search: Search, goal: RepairGoal, node: Node): Generator<Node> {
  const { combination, house } = search
  const done = (edits: readonly OrderEdit[]): Node => ({
    ...node,
    cost: node.cost + edits.reduce((sum, { cost }) => sum + hundredths(cost), 0),
    least: node.cost + edits.reduce((sum, { cost }) => sum + hundredths(cost), 0),
    edits: [...node.edits, ...edits],
    late: edits.length > 0 ? placeOf(node.pass, 0) : node.late,
    pass: node.pass + 1,
  })
  if (goal === 'faults' || meets(search, goal, node, node.lead)) yield done([])
  if (goal === 'faults') return
  const total = combination.order.reduce(
    (sum, { phrase }) => sum + (combination.phrases.find(({ id }) => id === phrase)?.counts ?? 0),
    0,
  )
  const weight = search.stances.weightOf(node.lead)
  const foot: Side = weight === 'both' ? combination.lead : otherSide[weight]
  for (const counts of [1, 2, 4] as const) {
    if (total + counts > MOST_COUNTS) continue
    const actions = linkSteps(counts, foot).map(({ action }) => action)
    const lead = through(search.stances, node.lead, actions)
    const other = search.hasKept
      ? through(search.stances, node.other, actions.map(mirrorFootAction))
      : FALLEN
    if (lead < 0 || (search.hasKept && other < 0)) continue
    const cost = house.limits[`repair.link${counts}`]
    if (meets(search, goal, node, lead)) yield done([{ kind: 'link', counts, foot, cost }])
  }
}

/** Whether the first step of what follows can be danced from this end (model 7). */
function meets(
  search: Search,
  goal: Exclude<RepairGoal, 'faults'>,
  { opening }: Node,
  end: Stance,
): boolean {
  if (!opening) {
    // Nobody steps at all: only the weight has to be where it was.
    const { stances, start, otherStart } = search
    const weights = [end, goal === 'repeat' ? start : otherStart].map(stances.weightOf)
    return weights[0] === weights[1] || weights.includes('both')
  }
  const from = 0 - roundPickup(search.combination, 'feet')
  const result = endOf(search, opening.phrase, opening.behaviour, {
    stance: end,
    mirrored: opening.mirrored !== (goal === 'switch'),
    opening: true,
    from,
    to: NO_END,
  })
  return result === OPENED || result >= 0
}
