import { closingOf } from './closing'
import { type Drill, drillKey } from './drill'
import { endsOf } from './ends'
import { fillUp, LEAST_REPEATS, restToTalk, weighed } from './fill'
import { type Materials, secondsOf } from './material'
import { fits, least, outlineOf, ready, sum } from './outline'
import { classSeconds, type PlanWishes } from './plan'
import { reviewsOf } from './reviews'
import { tempoSteps } from './tempoSteps'
import { type Proposed, proposeWay, teachingOf, type Unit, unitsOf } from './units'

/** A class as it is proposed. */
export interface Proposal {
  readonly drills: readonly Drill[]
  /** How it is taught, by combination, and why. */
  readonly ways: readonly (Proposed & { readonly combination: string })[]
  /** What has no room in this class, in order. */
  readonly left: readonly Unit[]
  /** Seconds by which what is locked is longer than the class; 0 where it fits. */
  readonly over: number
}

/** A drill that is kept where it stands. */
interface Kept {
  readonly drill: Drill
  /** Its place in the class, from 0. */
  readonly index: number
}

/** What a class is planned round. */
export interface Fixed {
  readonly kept: readonly Kept[]
  /** Keys of drills that are not wanted. */
  readonly without: readonly string[]
}

const NOTHING_FIXED: Fixed = { kept: [], without: [] }

/**
 * Plans a class (model 10): warm-up, review of what is due, what is new as far as it fits,
 * all of it together on both sides, faster and faster, and a cool-down; filled by load to
 * the very second.
 */
export function planClass(
  wishes: PlanWishes,
  materials: Materials,
  fixed: Fixed = NOTHING_FIXED,
): Proposal {
  const all = wishes.combinations.flatMap((id) => materials.find(id) ?? [])
  const combinations = all.map(({ combination }) => combination)
  const limit = materials.house.limits[`load.limit.${wishes.level}`]
  const teachings = new Map(all.map((one) => [one, teachingOf(one, wishes, limit)]))
  const ways = all.map((material) => {
    const way =
      wishes.way === 'propose'
        ? proposeWay(material)
        : { way: wishes.way, because: 'this way was chosen' }
    return { ...way, combination: material.combination.id }
  })
  const keptKeys = new Set(fixed.kept.map(({ drill }) => drillKey(drill)))
  const keptKinds = new Set(fixed.kept.map(({ drill }) => drill.kind))
  const wanted = (unit: Unit) => {
    const key = drillKey({ ...unit, repeats: LEAST_REPEATS })
    return !keptKeys.has(key) && !fixed.without.includes(key)
  }
  const total = classSeconds(wishes)
  const ends = endsOf(wishes, combinations, materials).filter(
    (drill) => !keptKinds.has(drill.kind) && wanted(drill),
  )
  const room =
    total -
    sum(fixed.kept.map(({ drill }) => secondsOf(drill, materials))) -
    sum(ends.map((drill) => secondsOf(drill, materials)))

  const units = all.flatMap((material, i) => {
    const teaching = teachings.get(material)
    return teaching ? unitsOf(material, ways[i]?.way ?? 'phrases', teaching) : []
  })
  const free = units.filter(wanted)
  const due = reviewsOf(wishes, teachings, room, materials).filter(wanted)
  const closings = (before: readonly Unit[]) =>
    all
      .flatMap((material) => {
        const teaching = teachings.get(material)
        // A drill that was fixed by hand was taught too.
        const own = [...fixed.kept.map(({ drill }) => drill), ...before]
        return (teaching && closingOf(material, own, teaching, room / 2, materials)) ?? []
      })
      .filter(wanted)
  const { reviews, taken, closing } = outlineOf({ free, due, closings, room, materials })
  const runs = runsOf(closing, wishes).filter(wanted)
  const chosen = [...reviews, ...taken, ...closing]
  const spare = room - sum(chosen.map((unit) => least(unit, materials)))
  // Faster runs only where all that is new has found room; each needs the one before it.
  const isAll = taken.length === free.length
  const faster = isAll ? fits(runs, spare, materials) : []
  const plain = [...chosen, ...faster].map((unit) => ready(unit))
  const drills = fillUp(
    plain.map((drill) => weighed(drill, materials)),
    room,
    materials,
    {
      freeRun: isAll ? freeRunOf(faster.at(-1) ?? closing.at(-1)) : undefined,
      before: fixed.kept.map(({ drill }) => drill),
    },
  )
  const [warmUp, coolDown] = [
    ends.filter(({ kind }) => kind === 'warm-up'),
    ends.filter(({ kind }) => kind === 'cool-down'),
  ]
  const own = [...warmUp, ...drills, ...coolDown]
  // Where not one drill has room, there is time to talk.
  const rest = drills.length > 0 ? 0 : Math.max(0, room)
  return {
    drills: withKept(restToTalk(own, rest), fixed.kept),
    ways,
    left: free.slice(taken.length),
    over: Math.max(0, -room),
  }
}

/** The same that closes the class, faster step by step, to music. */
const runsOf = (closing: readonly Unit[], { tempoNow, tempoTarget }: PlanWishes): readonly Unit[] =>
  tempoSteps(tempoNow, tempoTarget).flatMap((tempo) =>
    closing.map((unit): Unit => ({ ...unit, kind: 'run', tempo, music: true })),
  )

const freeRunOf = (unit: Unit | undefined): Unit | undefined =>
  unit && { ...unit, kind: 'free-run', music: true }

/** Puts what is kept back to its places, the others flow round it. */
function withKept(drills: readonly Drill[], kept: readonly Kept[]): readonly Drill[] {
  const all = [...drills]
  for (const { drill, index } of kept.toSorted((a, b) => a.index - b.index))
    all.splice(Math.min(index, all.length), 0, drill)
  const fixed = new Set(kept.map(({ drill }) => drill))
  const used = new Set(kept.map(({ drill }) => drill.id))
  return all.map((drill) => {
    if (fixed.has(drill)) return drill
    let { id } = drill
    for (let i = 2; used.has(id); i++) id = `${drill.id} ${i}`
    used.add(id)
    return id === drill.id ? drill : { ...drill, id }
  })
}
