import { dequal } from 'dequal'
import { factsOf, type Primitive } from '../body/feet'
import { LAYERS, type Layer } from '../body/layers'
import type { Level } from '../body/places'
import type { Pass } from '../combination/passes'
import type { Move } from '../moves/move'
import { cyclesOf } from '../moves/rate'
import type { Vocabulary } from '../moves/vocabulary'
import { remembered } from '../record/remembered'
import { type CourseSlice, courseSlices, type Run } from '../simulate/course'
import type { DancedStep, Simulation, Slice } from '../simulate/simulate'
import { TICKS_PER_COUNT } from '../time/time'
import type { TimeMap } from '../time/timeMap'
import { repeatsOf } from '../what/repeats'

/** What one layer adds to the load of a count. */
interface LoadPart {
  readonly layer: Layer
  /** The event it comes from. */
  readonly event: string
  /** Its own load, before it is weighed against the harder layers. */
  readonly own: number
  /** How much of it counts: 1 for the hardest, less where it goes with the others. */
  readonly share: number
}

/** How hard one count is, and why (model 9). A guide, no measurement. */
export interface CountLoad {
  readonly pass: number
  /** From the start of the combination. */
  readonly at: number
  /** Count of the phrase, from 1. */
  readonly count: number
  readonly total: number
  readonly parts: readonly LoadPart[]
  /** Added for moves that begin together here. */
  readonly starts: number
  /** Added for turning. */
  readonly turning: number
  /** Added for staying down. */
  readonly down: number
  /** Added for what is done with a partner; absent where nothing is. */
  readonly partner?: number
}

const WEIGHT: Readonly<Record<Layer, number>> = {
  feet: 1,
  legs: 0.5,
  hips: 1,
  torso: 0.9,
  arms: 0.6,
  head: 0.4,
}
const ARMS_DIFFER = 0.3
const SAME_PULSE = 0.5
const EVEN_PULSE = 0.7
const EACH_START = 0.3
const QUARTER_TURN = 0.5
/** Each count that is danced with bent knees asks so much more (h). */
const DOWN: Readonly<Partial<Record<Level, number>>> = { low: 0.3, deep: 0.6 }

/** How much a step asks, as the demand of a move. */
export const STEP_DEMAND: Readonly<Record<Primitive, number>> = {
  hold: 0,
  free: 0,
  step: 1,
  close: 1,
  touch: 1,
  heel: 1,
  sway: 1,
  centre: 1,
  rise: 1,
  lower: 1,
  bend: 1,
  straighten: 1,
  kick: 2,
  brush: 2,
  sweep: 2,
  drag: 2,
  stamp: 2,
  lift: 2,
  pivot: 2,
  press: 1,
  recover: 1,
  low: 1,
  deep: 1,
  tall: 1,
  toes: 1,
  up: 1,
  hop: 2,
  jump: 3,
  leap: 3,
}

const clamp = (value: number, low: number, high: number) => Math.min(high, Math.max(low, value))
/** Less time than usual is harder, but not in proportion. */
const haste = (usual: number, given: number): number => clamp((usual / given) ** 0.7, 0.6, 2)

interface Layered {
  readonly layer: Layer
  readonly event: string
  readonly own: number
  /** Beats a count. */
  readonly pulse: number
}

/**
 * The load of every count of a simulation, in the order they are danced.
 * @param time how its ticks go by: each pass is weighed at the tempo it begins in
 */
export function loadsOf(
  simulation: Simulation,
  time: TimeMap = simulation.time,
): readonly CountLoad[] {
  const courses = courseSlices(simulation)
  const { vocabulary, house } = simulation
  const still = house.limits['load.still']
  let kinds: ReadonlySet<string> | undefined
  return simulation.slices.flatMap((slice, i) => {
    const course = courses[i]
    if (!course) return []
    const quick = clamp((time.tempoAt(slice.pass.at) / 100) ** 0.7, 0.8, 1.5)
    const made = loadsIn(slice, { course, vocabulary, quick, still, before: kinds })
    kinds = made.kinds
    return made.loads
  })
}

/** The loads of a pass, and what is danced on its last count: what goes on from there is not begun. */
interface PassLoads {
  readonly loads: readonly CountLoad[]
  readonly kinds: ReadonlySet<string>
}

/** What else the loads of a pass hang on. */
interface Weighing {
  readonly course: CourseSlice
  readonly vocabulary: Vocabulary
  readonly quick: number
  /** How much hips and trunk weigh where the feet begin nothing. */
  readonly still: number
  /** What was danced on the count before; absent at the very start. */
  readonly before: ReadonlySet<string> | undefined
}

/** A pass that is danced as it was, after the same as before, is as hard as it was. */
const loadsIn = remembered(
  weighed,
  (a: Weighing, b: Weighing) =>
    a.course === b.course &&
    a.vocabulary === b.vocabulary &&
    a.quick === b.quick &&
    a.still === b.still &&
    dequal(a.before, b.before),
)

/** Nothing runs past the end of its phrase, so a pass is weighed by itself. */
function weighed(
  { pass, danced, entry }: Slice,
  { course: { runs }, vocabulary, quick, still, before }: Weighing,
): PassLoads {
  // A flourish may be left out: it is nobody's load.
  const course = runs
    .filter(({ event }) => !event.optional)
    .map((run) => ({ run, strength: strength(run) }))
  const loads: CountLoad[] = []
  let kinds = before ?? new Set<string>()
  let stands = entry.stands
  for (let i = 0; i < pass.length / TICKS_PER_COUNT; i++) {
    const at = pass.at + i * TICKS_PER_COUNT
    const end = at + TICKS_PER_COUNT
    const hardest = new Map<Layer, Layered>()
    const now = new Set<string>()
    let started = 0
    const add = (one: Layered) => {
      if (one.own > (hardest.get(one.layer)?.own ?? 0)) hardest.set(one.layer, one)
    }
    const steps = danced.filter((one) => one.at >= at && one.at < end)
    const isStill = steps.length === 0
    stands = steps.at(-1)?.after.stands ?? stands
    for (const { run, strength } of course) {
      if (run.at >= end || run.end <= at) continue
      const { layer, id } = run.event
      const { kind, own, pulse } = strength
      const eased = isStill && (layer === 'hips' || layer === 'torso') ? still : 1
      add({ layer, event: id, own: own * quick * eased, pulse })
      now.add(kind)
      if (run.at >= at && !kinds.has(kind)) started++
    }
    const turned = feetIn(steps, vocabulary, quick, add, (kind, isNew) => {
      if (isNew && !now.has(kind) && !kinds.has(kind)) started++
      now.add(kind)
    })
    const isVeryFirst = before === undefined && i === 0
    loads.push(
      summed(
        pass,
        at,
        i + 1,
        [...hardest.values()],
        isVeryFirst ? 0 : started,
        turned,
        DOWN[stands] ?? 0,
      ),
    )
    kinds = now
  }
  return { loads, kinds }
}

interface Strength {
  readonly kind: string
  readonly own: number
  readonly pulse: number
}

/** How hard one event is while it runs, at a tempo of 100, and its pulse. */
const strength = (run: Run): Strength => strengthIn(run.event, run)

const strengthIn = remembered(
  (_: Run['event'], run: Run) => strengthOf(run),
  (a, b) => a.move === b.move,
)

function strengthOf({ event, move, kind }: Run): Strength {
  const { what, length } = event
  const every = what.kind === 'move' ? what.every : undefined
  const base = WEIGHT[event.layer] + (armsDiffer(event.what, move) ? ARMS_DIFFER : 0)
  const demand = move?.demand ?? 1
  const id = what.kind === 'move' ? what.move : what.kind
  const known = { kind: `${event.layer} ${id}` }
  if (kind === 'place')
    return { ...known, own: base * demand * 0.5, pulse: TICKS_PER_COUNT / length }
  if (!move) return { ...known, own: base, pulse: TICKS_PER_COUNT / length }
  if (kind === 'texture') {
    const usual = cyclesOf(move).perCount
    const rate = event.rate ?? usual
    return { ...known, own: base * demand * (rate / usual), pulse: rate }
  }
  const given = every ?? (kind === 'path' ? length : Math.min(move.length, length))
  const pulse = TICKS_PER_COUNT / given
  return { ...known, own: base * demand * haste(move.length, given), pulse }
}

function armsDiffer(what: Run['event']['what'], move: Move | undefined): boolean {
  if (what.kind === 'arms') return what.R !== undefined && what.L !== undefined && what.R !== what.L
  if (move?.layer !== 'arms') return false
  const isOneSided = move.motion.some((item) => 'arm' in item && item.arm === 'R')
  return isOneSided && move.claims.includes('armL')
}

/** Adds what the feet do in a count; the degrees they turn. */
function feetIn(
  steps: readonly DancedStep[],
  vocabulary: Vocabulary,
  quick: number,
  add: (one: Layered) => void,
  onFigure: (kind: string, isNew: boolean) => void,
): number {
  let degrees = 0
  const landings = steps.filter(({ action }) => factsOf(action.primitive).lands).length
  const pulse = Math.max(1, landings)
  for (const { action, event, at, pass } of steps) {
    degrees += Math.abs(action.turn ?? 0)
    const { what } = event
    if (what.kind === 'foot') {
      const own = WEIGHT.feet * STEP_DEMAND[action.primitive] * pulse ** 0.7 * quick
      add({ layer: 'feet', event: event.id, own, pulse })
      continue
    }
    const move = what.kind === 'move' ? vocabulary.find(what.move) : undefined
    if (!move) continue
    onFigure(`feet ${move.id}`, at === pass.at + event.at)
    const { times, left } = repeatsOf(what, event.length, move)
    const given = times > 0 ? (event.length - left) / times : move.length
    const own = WEIGHT.feet * move.demand * haste(move.length, given) * quick
    add({ layer: 'feet', event: event.id, own, pulse })
  }
  return degrees
}

const isEven = (a: number, b: number): boolean => {
  const ratio = a > b ? a / b : b / a
  return Math.abs(ratio - Math.round(ratio)) < 1e-6
}

function summed(
  pass: Pass,
  at: number,
  count: number,
  layered: readonly Layered[],
  started: number,
  degrees: number,
  down: number,
): CountLoad {
  const order = [...layered].sort(
    (a, b) => b.own - a.own || LAYERS.indexOf(a.layer) - LAYERS.indexOf(b.layer),
  )
  const parts = order.map(({ layer, event, own, pulse }, i): LoadPart => {
    const harder = order.slice(0, i)
    const same = harder.every((one) => Math.abs(one.pulse - pulse) < 1e-6)
    const even = harder.every((one) => isEven(one.pulse, pulse))
    const share = i === 0 ? 1 : same ? SAME_PULSE : even ? EVEN_PULSE : 1
    return { layer, event, own, share }
  })
  const starts = Math.max(0, started - 1) * EACH_START
  const turning = (degrees / 90) * QUARTER_TURN
  const total = parts.reduce((sum, { own, share }) => sum + own * share, starts + turning + down)
  return { pass: pass.index, at, count, total, parts, starts, turning, down }
}

/** The load of the hardest count; 0 where there is none. */
export const hardestLoad = (loads: readonly CountLoad[]): number =>
  loads.reduce((most, { total }) => Math.max(most, total), 0)
