import { closingOf, closingRuns } from './closing'
import { type Drill, drillKey } from './drill'
import { extended } from './extras'
import { type FrameSeconds, frameRoom, frameRows, showUnit } from './frame'
import { framedBy } from './framed'
import { type Materials, secondsOf } from './material'
import { withBreath, withPauses } from './pauses'
import { feetSteps, type PhraseSteps, phraseSteps } from './phraseSteps'
import { classSeconds, type PlanWishes, SLOT_MINUTES } from './plan'
import { reviewsOf } from './reviews'
import { shortened } from './shorten'
import { marked } from './strain'
import { switchPractice } from './switching'
import { joinedSides, partStarts, taughtUnits } from './taughtUnits'
import { firstPasses, metBefore, type Teaching, teachingOf, type Unit } from './teaching'
import { techniqueUnits } from './technique'
import { type Proposed, proposeWay } from './ways'

/** A class as it is proposed. */
export interface Proposal {
  readonly drills: readonly Drill[]
  /** How it is taught, by combination, and why. */
  readonly ways: readonly (Proposed & { readonly combination: string })[]
  /** What has no room in this class, in order. */
  readonly left: readonly Unit[]
  /** Seconds by which what is locked is longer than the class; 0 where it fits. */
  readonly over: number
  /** New counts it has room for, of how many there are. */
  readonly room: { readonly counts: number; readonly of: number }
}

/** While nothing was thought of. */
export const NOTHING_PROPOSED: Proposal = {
  drills: [],
  ways: [],
  left: [],
  over: 0,
  room: { counts: 0, of: 0 },
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

/** Over weeks no class has more new counts than this (teaching 9). */
const NEW_COUNTS_OVER_WEEKS = 32

/** A phrase of the class as it is taught there, with the combination it is of. */
interface Taught {
  readonly teaching: Teaching
  readonly steps: PhraseSteps
}

/**
 * Plans a class (teaching): hello, warm-up, review of what is due, each phrase by its steps, the
 * other side and a run from the top, then runs with a task faster and faster, recap and
 * cool-down. What time is left is offered, to the very second.
 */
export function planClass(
  wishes: PlanWishes,
  materials: Materials,
  fixed: Fixed = NOTHING_FIXED,
): Proposal {
  const teachings = wishes.combinations
    .flatMap((id) => materials.find(id) ?? [])
    .map((material) => teachingOf(material, wishes, materials))
  const combinations = teachings.map(({ material }) => material.combination)
  const ways = teachings.map((teaching) => ({
    ...(wishes.way === 'propose'
      ? proposeWay(teaching)
      : { way: wishes.way, because: 'this way was chosen' }),
    combination: teaching.material.combination.id,
  }))
  const kept = fixed.kept.map(({ drill }) => drill)
  const unwanted = new Set([...kept.map(drillKey), ...fixed.without])
  const isWanted = (unit: Unit) => !unwanted.has(drillKey(unit))
  const lasts = (unit: Unit) => secondsOf({ ...unit, id: '' }, materials)
  const all = (units: readonly Unit[]) => units.reduce((sum, unit) => sum + lasts(unit), 0)

  const total = classSeconds(wishes)
  const room = total - kept.reduce((sum, drill) => sum + secondsOf(drill, materials), 0)
  const frame = frameRoom(wishes, combinations, materials)
  // What is kept of the beginning and the end is part of it; what was taken out leaves its time to the rest.
  const rows = frameRows(wishes).filter(isWanted)
  const has = (kind: Drill['kind'], seconds: number) =>
    rows.some((row) => row.kind === kind)
      ? kept
          .filter((drill) => drill.kind === kind)
          .reduce((left, drill) => Math.max(0, left - secondsOf(drill, materials)), seconds)
      : 0
  const framed = (some: FrameSeconds) =>
    has('hello', some.hello) +
    has('warm-up', some.warmUp) +
    has('recap', some.recap) +
    has('cool-down', some.coolDown)

  const steps = stepsInOrder(teachings, ways)
  const countsOf = (some: readonly Taught[]) =>
    some.reduce((sum, { steps: { pass, isPart } }) => sum + (isPart ? 0 : pass.phrase.counts), 0)
  /** What is taught and danced where so many phrases are. */
  const taught = (many: number) => {
    const own = steps.slice(0, many)
    const isAll = (teaching: Teaching) =>
      steps.every((one, i) => one.teaching !== teaching || i < many)
    const each = teachings.flatMap((teaching) =>
      taughtUnits(
        teaching,
        own.filter((one) => one.teaching === teaching).map((one) => one.steps),
        isAll(teaching),
      ),
    )
    const before = [...kept, ...due, ...each]
    const switches = teachings.filter(isAll).flatMap((teaching) => switchPractice(teaching) ?? [])
    const closings = teachings.flatMap(
      (teaching) => closingOf(teaching, before, isAll(teaching)) ?? [],
    )
    return {
      each: each.filter(isWanted),
      closings,
      switches,
      runs: closings.flatMap(closingRuns).filter(isWanted),
    }
  }
  const due = reviewsOf(wishes, teachings, room, lasts, materials).filter(isWanted)
  const loops = techniqueUnits(wishes, teachings, room, materials).filter(isWanted)
  const pauses = wishes.minutes <= SLOT_MINUTES ? 0 : room * PAUSE_SHARE
  const needed = framed(frame.usual) + pauses + all(due) + all(loops)
  let many = 0
  for (let next = 1; next <= steps.length; next++) {
    if (
      wishes.type === 'choreography' &&
      next > 1 &&
      countsOf(steps.slice(0, next)) > NEW_COUNTS_OVER_WEEKS
    )
      break
    const { each, runs } = taught(next)
    if (all(each) + all(runs) + needed > room) break
    many = next
  }
  const isTight = many === 0 && steps.length > 0
  // The first phrase is taught in any class, as shortly as it must be.
  const chosen = taught(isTight ? Math.min(1, steps.length) : many)
  const show = teachings
    .flatMap((teaching) => showUnit(teaching, wishes.minutes) ?? [])
    .filter(isWanted)
  const fits = shortened(
    { show, due, loops, each: chosen.each, runs: chosen.runs },
    room - framed(isTight ? frame.least : frame.usual) - pauses,
    lasts,
  )
  const inside = room - framed(isTight ? frame.least : frame.usual) - pauses
  const grown = isTight
    ? fits
    : extended(fits, {
        spare: inside - all([...fits.show, ...fits.due, ...fits.loops, ...fits.each, ...fits.runs]),
        closings: chosen.closings,
        isAll: many === steps.length,
        wishes,
        lasts,
        isWanted,
        switches: chosen.switches,
      })
  const middle = marked(
    [
      ...grown.due,
      ...grown.loops,
      // What was fixed or taken out by hand may be several sides in one.
      ...joinedSides(grown.each, teachings).filter(isWanted),
      ...grown.runs,
    ],
    kept,
    materials,
  )
  const breathing = withBreath(middle, wishes.level, lasts, materials.house)
  const rested =
    wishes.minutes <= SLOT_MINUTES
      ? breathing
      : withPauses(breathing, {
          since: frame.usual.hello + frame.usual.warmUp + all(grown.show),
          after: frame.most.recap + frame.most.coolDown,
          wishes,
          lasts,
          materials,
        })
  const body = withoutKeptPauses(rested, kept, fixed.without)
  const ends = framedBy(
    { wishes, combinations, materials, frame, rows, has, isWanted },
    { room, show: grown.show, body, lasts },
  )
  const taken = isTight ? (fits.each.length > 0 ? 1 : 0) : many
  return {
    drills: withKept(named(ends.units), fixed.kept),
    ways,
    left: steps
      .slice(taken)
      .flatMap(({ steps: one }) => one.units.filter(({ kind }) => kind !== 'walk'))
      .filter(isWanted),
    over: ends.over,
    room: { counts: countsOf(steps.slice(0, taken)), of: countsOf(steps) },
  }
}

/** Pauses that are fixed by hand take the place of as many; those that were taken out do not come back. */
function withoutKeptPauses(
  units: readonly Unit[],
  kept: readonly Drill[],
  without: readonly string[],
): readonly Unit[] {
  let fixed = kept.filter(({ kind }) => kind === 'pause').length
  return units.filter((unit) => {
    if (unit.kind !== 'pause') return true
    if (without.includes(drillKey(unit))) return false
    fixed--
    return fixed < 0
  })
}

/** The share of a class that its pauses take. */
const PAUSE_SHARE = 0.1

/** Every phrase that is still to be taught, in the order of the ways; what was met in one is not new in the next. */
function stepsInOrder(
  teachings: readonly Teaching[],
  ways: readonly Proposed[],
): readonly Taught[] {
  const met = new Set(metBefore(teachings))
  const taught: Taught[] = []
  const add = (teaching: Teaching, steps: PhraseSteps | undefined) => {
    if (!steps) return
    for (const key of steps.met) met.add(key)
    taught.push({ teaching, steps })
  }
  for (const [i, teaching] of teachings.entries()) {
    const way = ways[i]?.way ?? 'phrases'
    const isFirst = () => taught.length === 0
    const starts = partStarts(teaching)
    const passes = firstPasses(teaching.material.lead.passes)
    for (const start of new Set(starts)) {
      const part = passes.filter(({ index }) => starts[index] === start)
      // The feet of a part come first, where a layer at a time is laid on them.
      if (way === 'layers' && teaching.seen !== 'all')
        for (const pass of part) add(teaching, feetSteps(teaching, pass, met, isFirst()))
      for (const pass of part) add(teaching, phraseSteps(teaching, pass, met, isFirst(), way))
    }
  }
  return taught
}

/** Every step with the name it has in its class. */
function named(units: readonly Unit[]): readonly Drill[] {
  const used = new Set<string>()
  return units.map((unit) => {
    const key = drillKey(unit)
    let id = key
    for (let i = 2; used.has(id); i++) id = `${key} ${i}`
    used.add(id)
    return { ...unit, id }
  })
}

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
