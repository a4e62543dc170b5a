import { SIDES, type Side } from '../body/side'
import type { ActId, Carried, Prop, PropAct } from '../combination/carried'
import type { Pass } from '../combination/passes'
import type { Simulation } from '../simulate/simulate'
import { actsFor } from './acts'
import { type DoneAct, followProps, hindrancesTo } from './follow'
import { heldAt, isAtOnce, placeWords } from './held'

interface Stretch {
  readonly from: number
  readonly to: number
}

/** One thing through one dancing of a phrase, on its ticks: which hand is on it when, where it is, what is done. */
export interface CarriedLane {
  readonly prop: Prop
  readonly held: readonly (Stretch & { readonly side: Side })[]
  readonly drapes: readonly (Stretch & { readonly words: string })[]
  readonly acts: readonly DoneAct[]
}

/** What is carried through a pass, thing by thing; what a dancer neither has nor gets in it is left out. */
export const carriedLanes = (simulation: Simulation, pass: Pass): readonly CarriedLane[] =>
  (simulation.combination.carried ?? []).flatMap((prop) => {
    const acts = followProps(simulation).acts.filter(
      (one) => one.prop.id === prop.id && one.pass.index === pass.index,
    )
    const [, begins] = heldAt(simulation, pass.at).find(([{ id }]) => id === prop.id) ?? []
    if (!begins) return []
    const isHere = acts.length > 0 || begins.hands.R || begins.hands.L || begins.drape !== 'none'
    if (!isHere && prop.kind !== 'skirt') return []
    const states = statesIn(acts, begins, pass)
    const held = SIDES.flatMap((side) =>
      joined(states.filter(({ carried }) => carried.hands[side])).map((one) => ({ ...one, side })),
    )
    const drapes = joined(states, (a, b) => placeWords(a) === placeWords(b)).map((one) => ({
      from: one.from,
      to: one.to,
      words: placeWords(one.carried),
    }))
    return [{ prop, held, drapes, acts }]
  })

interface State extends Stretch {
  readonly carried: Carried
}

/** How a thing is held through a pass, stretch by stretch. */
function statesIn(acts: readonly DoneAct[], begins: Carried, pass: Pass): readonly State[] {
  const end = pass.at + pass.length
  const changes = acts.map((one) => ({
    at: Math.min(end, isAtOnce(one) ? one.from : one.until),
    carried: one.after,
  }))
  const all = [{ at: Number(pass.at), carried: begins }, ...changes]
  return all.flatMap(({ at, carried }, i) => {
    const to = all[i + 1]?.at ?? end
    return to > at ? [{ from: at - pass.at, to: to - pass.at, carried }] : []
  })
}

/** Stretches that follow each other, as one where they are alike. */
function joined(
  states: readonly State[],
  isAlike: (a: Carried, b: Carried) => boolean = () => true,
): readonly State[] {
  const made: State[] = []
  for (const one of states) {
    const last = made.at(-1)
    if (last && last.to === one.from && isAlike(last.carried, one.carried))
      made[made.length - 1] = { ...last, to: one.to }
    else made.push(one)
  }
  return made
}

/** What can be done with a thing as it is held at a tick, and what can't be just then. */
export function actsHere(
  simulation: Simulation,
  prop: Prop,
  tick: number,
): { readonly can: readonly ActId[]; readonly others: readonly ActId[] } {
  const [, carried = prop.start] = heldAt(simulation, tick).find(([{ id }]) => id === prop.id) ?? []
  const all = actsFor(prop.kind).map(({ act }) => act)
  const can = all.filter((act) => {
    const tried = { act, prop: prop.id, ...(act === 'ready' && { ready: 'hair-in' }) }
    return hindrancesTo(tried as PropAct, prop, carried).every(
      // What a turn or a word before would bring is no hindrance to think of it.
      ({ why }) => why === 'no-turn' || why === 'unready',
    )
  })
  return { can, others: all.filter((act) => !can.includes(act)) }
}
