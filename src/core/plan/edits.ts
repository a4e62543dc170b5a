import { DancerLevel } from '../combination/combination'
import { clampTempo } from '../time/tempo'
import { atRate, type Drill, drillKey, isCounted, MOST_REPEATS } from './drill'
import { type Materials, secondsOf } from './material'
import { PLAN_VERSION, type Plan, type PlanWishes } from './plan'
import { NOTHING_PROPOSED, type Proposal, planClass } from './planner'
import { drillTitle } from './totals'

/** What can be changed of a drill by hand. */
export type DrillChange = Partial<
  Pick<Drill, 'repeats' | 'tempo' | 'sides' | 'talk' | 'stand' | 'seconds'>
> & {
  /** Lines to say instead of those that are worked out; none takes them back. */
  readonly say?: readonly string[] | undefined
  /** How fast the song is that it is danced with, of its own speed. */
  readonly rate?: number
}

/** A change made by hand stays: the drill is locked, and the rest is planned round it. */
const locked = (drill: Drill, change: DrillChange): Drill => {
  if (change.rate !== undefined && drill.song) {
    const { rate, ...others } = change
    return locked(atRate(drill, drill.song, rate), others)
  }
  const sides = change.sides ?? drill.sides
  const { say, rate: _, ...changed } = change
  const { inTurn, say: before, ...once } = drill
  const said = 'say' in change ? say : before
  return {
    ...once,
    ...(inTurn && sides.length === 2 && { inTurn }),
    ...changed,
    ...(said && said.length > 0 && { say: [...said] }),
    repeats: Math.min(MOST_REPEATS, Math.max(1, change.repeats ?? drill.repeats)),
    tempo: clampTempo(change.tempo ?? drill.tempo),
    locked: true,
  }
}

/** A plan with what was proposed for it: the ways, and what has no room. */
export interface Planned {
  readonly plan: Plan
  readonly proposal: Proposal
}

/**
 * Plans everything again that is not locked. While a combination it is made of is not here,
 * nothing is planned again: its drills stay as they are, and come back with it.
 */
export function planAgain(plan: Plan, materials: Materials): Planned {
  if (goneFrom(plan, materials).length > 0)
    return { plan, proposal: { ...NOTHING_PROPOSED, drills: plan.drills } }
  // Nobody else would put a song back.
  const kept = plan.drills.flatMap((drill, index) =>
    drill.locked || drill.song ? [{ drill, index }] : [],
  )
  const proposal = planClass(plan.wishes, materials, { kept, without: plan.without })
  return { plan: { ...plan, drills: proposal.drills }, proposal }
}

/** Ids of the combinations a plan is made of that are not here. */
export const goneFrom = ({ wishes }: Plan, materials: Materials): readonly string[] =>
  wishes.combinations.filter((id) => !materials.find(id))

export function changeDrill(plan: Plan, id: string, change: DrillChange): Plan {
  return {
    ...plan,
    drills: plan.drills.map((drill) => (drill.id === id ? locked(drill, change) : drill)),
  }
}

export const setLocked = (plan: Plan, id: string, isLocked: boolean): Plan => ({
  ...plan,
  drills: plan.drills.map((drill) => {
    if (drill.id !== id) return drill
    const { locked: _, ...free } = drill
    return isLocked ? { ...free, locked: true } : free
  }),
})

/** Moves a drill to a place in the class, from 0; it is locked there. */
export function moveDrill(plan: Plan, id: string, to: number): Plan {
  const drill = plan.drills.find((one) => one.id === id)
  if (!drill) return plan
  const others = plan.drills.filter((one) => one !== drill)
  const at = Math.min(others.length, Math.max(0, to))
  if (plan.drills[at] === drill) return plan
  return { ...plan, drills: [...others.slice(0, at), locked(drill, {}), ...others.slice(at)] }
}

/** Takes a drill out, and does not propose it again. */
export function removeDrill(plan: Plan, id: string): Plan {
  const drill = plan.drills.find((one) => one.id === id)
  // What is open is what is left: it goes by itself when something takes its time.
  if (!drill || drill.kind === 'open') return plan
  return {
    ...plan,
    drills: plan.drills.filter((one) => one !== drill),
    without: [...new Set([...plan.without, drillKey(drill)])],
  }
}

/** Two drills of one: a side each, else half the repeats each. Undefined where there is nothing to part. */
export function splitDrill(plan: Plan, id: string): Plan | undefined {
  const drill = plan.drills.find((one) => one.id === id)
  if (!drill || drill.moves || !isCounted(drill)) return undefined
  const [first, second] = drill.sides
  const parts =
    first && second
      ? [locked(drill, { sides: [first] }), locked(drill, { sides: [second], talk: 0 })]
      : drill.repeats > 1
        ? [
            locked(drill, { repeats: Math.ceil(drill.repeats / 2) }),
            locked(drill, { repeats: Math.floor(drill.repeats / 2), talk: 0 }),
          ]
        : undefined
  if (!parts) return undefined
  const used = new Set(plan.drills.map((one) => one.id))
  let extra = `${id} half`
  while (used.has(extra)) extra = `${extra} half`
  const named = parts.map((part, i) => (i === 0 ? part : { ...part, id: extra }))
  return { ...plan, drills: plan.drills.flatMap((one) => (one === drill ? named : [one])) }
}

const isAbove = (a: DancerLevel, b: DancerLevel): boolean =>
  DancerLevel.options.indexOf(a) > DancerLevel.options.indexOf(b)

/** What is wished for otherwise; a time of day and a second level may be taken back. */
export type WishesChange = Partial<Omit<PlanWishes, 'startsAt' | 'levelTo'>> & {
  readonly startsAt?: string | undefined
  readonly levelTo?: DancerLevel | undefined
}

export function changeWishes(plan: Plan, change: WishesChange): Plan {
  const { startsAt, levelTo, ...wishes } = { ...plan.wishes, ...change }
  return {
    ...plan,
    wishes: {
      ...wishes,
      ...(startsAt !== undefined && { startsAt }),
      // Who is further than a level that was raised meanwhile is not.
      ...(levelTo !== undefined && isAbove(levelTo, wishes.level) && { levelTo }),
    },
  }
}

/** Forgets what was changed by hand. */
export const freed = (plan: Plan): Plan => ({
  ...plan,
  without: [],
  drills: plan.drills.map(({ locked: _, ...drill }) => drill),
})

/** A plan of some wishes, of which nothing is planned yet. */
export const emptyPlan = (id: string, title: string, wishes: PlanWishes, group?: string): Plan => ({
  kind: 'plan',
  schemaVersion: PLAN_VERSION,
  id,
  title,
  ...(group !== undefined && { group }),
  wishes,
  drills: [],
  without: [],
})

/** Whether something was changed that the drills hang on, so that it is to be planned again. */
export const isPlannedOtherwise = (before: Plan, after: Plan): boolean =>
  before.wishes !== after.wishes ||
  before.drills !== after.drills ||
  before.without !== after.without

/** The combinations a plan may need: those it is made of, reviews, and has drills of. */
export const combinationsOf = ({ wishes, drills }: Plan): ReadonlySet<string> =>
  new Set([
    ...wishes.combinations,
    ...wishes.known.reviews.map(({ combination }) => combination),
    ...drills.flatMap(({ combination }) => combination ?? []),
  ])

/** A drill of one plan beside the same drill of another. */
export interface PlanPair {
  readonly title: string
  readonly a?: Drill
  readonly b?: Drill
  /** Seconds in each; 0 where it is not in it. */
  readonly seconds: readonly [number, number]
}

/** Two plans side by side, in the order of the first; what only the second has stands where it has it. */
export function comparePlans(a: Plan, b: Plan, materials: Materials): readonly PlanPair[] {
  const pairOf = (one: Drill | undefined, other: Drill | undefined): PlanPair => {
    const drill = one ?? other
    return {
      title: drill ? drillTitle(drill, materials) : '',
      ...(one && { a: one }),
      ...(other && { b: other }),
      seconds: [one ? secondsOf(one, materials) : 0, other ? secondsOf(other, materials) : 0],
    }
  }
  const left = [...b.drills]
  const pairs: PlanPair[] = []
  for (const drill of a.drills) {
    const at = left.findIndex((other) => drillKey(other) === drillKey(drill))
    if (at < 0) {
      pairs.push(pairOf(drill, undefined))
      continue
    }
    pairs.push(...left.splice(0, at).map((other) => pairOf(undefined, other)))
    pairs.push(pairOf(drill, left.shift()))
  }
  return [...pairs, ...left.map((other) => pairOf(undefined, other))]
}
