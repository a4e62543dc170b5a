import { type Closing, closingOf, closingRuns } from './closing'
import { type Drill, drillKey } from './drill'
import { extended } from './extras'
import { showUnits, withShown } from './frame'
import { framedBy } from './framed'
import type { Materials } from './material'
import { withBreath, withPauses } from './pauses'
import { stepsInOrder, type TaughtPhrase as Taught } from './phraseOrder'
import { type PlanWishes, SLOT_MINUTES } from './plan'
import { reviewsOf } from './reviews'
import { type Fixed, type Kept, type Setting, settingOf } from './setting'
import { shortened } from './shorten'
import { songPlace } from './songDrills'
import { marked } from './strain'
import { switchPractice } from './switching'
import { joinedSides, taughtUnits } from './taughtUnits'
import { firstPasses, type Teaching, teachingOf, type Unit, untaughtIn } from './teaching'
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

const NOTHING_FIXED: Fixed = { kept: [], without: [] }

/** Over weeks no class has more new counts than this (teaching 9). */
const NEW_COUNTS_OVER_WEEKS = 32

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
  const ways = teachings.map((teaching) => ({
    ...(wishes.way === 'propose'
      ? proposeWay(teaching)
      : { way: wishes.way, because: 'this way was chosen' }),
    combination: teaching.material.combination.id,
  }))
  const setting = settingOf(wishes, teachings, materials, fixed)
  const { kept, frame, room, lasts, all, framed, isWanted } = setting
  const steps = stepsInOrder(teachings, ways, wishes.only)
  const due = reviewsOf(wishes, teachings, room, lasts, materials).filter(isWanted)
  const loops = techniqueUnits(wishes, teachings, room, materials).filter(isWanted)
  const pauses = wishes.minutes <= SLOT_MINUTES ? 0 : room * PAUSE_SHARE
  const needed = framed(frame.usual) + pauses + all(due) + all(loops)
  const start = (many: number) => startOf(many, steps, teachings, due, setting)
  const fitting = countFitting(
    steps,
    ({ each, runs }) => all(each) + all(runs) + needed <= room,
    start,
    wishes,
  )
  // The first phrase is taught in any class, as shortly as it must be.
  const isTight = fitting === 0 && steps.length > 0
  const chosen = start(isTight ? 1 : fitting)
  const parts = teachings.map((teaching) => showUnits(teaching, wishes.minutes))
  const show = parts.flatMap((some) => some.slice(0, 1)).filter(isWanted)
  const each = parts.reduce((units, some) => withShown(units, some.filter(isWanted)), chosen.each)
  const inside = room - framed(isTight ? frame.least : frame.usual) - pauses
  const fits = shortened({ show, due, loops, each, runs: chosen.runs }, inside, lasts)
  const spare = inside - all([...fits.show, ...fits.due, ...fits.loops, ...fits.each, ...fits.runs])
  const { closings, switches } = chosen
  const grown = isTight
    ? fits
    : extended(fits, { spare, closings, wishes, lasts, isWanted, switches })
  const danced = marked(
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
  const breathing = withBreath(danced, wishes.level, lasts, materials.house)
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
  const { units, over } = framedBy(setting, { show: grown.show, body })
  const taken = isTight ? Math.min(1, fits.each.length) : fitting
  return {
    drills: withKept(named(units), fixed.kept),
    ways,
    left: steps
      .slice(taken)
      .flatMap(({ steps: one }) => one.units.filter(({ kind }) => kind !== 'walk'))
      .filter(isWanted),
    over,
    room: { counts: newCounts(steps.slice(0, taken)), of: newCounts(steps) },
  }
}

const newCounts = (some: readonly Taught[]): number =>
  some.reduce((sum, { steps: { pass, isPart } }) => sum + (isPart ? 0 : pass.phrase.counts), 0)

/** A class that teaches the first so many phrases: by which steps, and what dances them together. */
interface Start {
  readonly each: readonly Unit[]
  readonly closings: readonly Closing[]
  readonly switches: readonly Unit[]
  readonly runs: readonly Unit[]
}

function startOf(
  many: number,
  steps: readonly Taught[],
  teachings: readonly Teaching[],
  due: readonly Unit[],
  { kept, isWanted, wishes }: Setting,
): Start {
  const own = steps.slice(0, many)
  const isAll = (teaching: Teaching) =>
    isWholeIn(teaching, wishes) && steps.every((one, i) => one.teaching !== teaching || i < many)
  const each = teachings.flatMap((teaching) =>
    taughtUnits(
      teaching,
      own.filter((one) => one.teaching === teaching).map((one) => one.steps),
      isAll(teaching),
    ),
  )
  // What was fixed by hand was taught too.
  const before = [...kept, ...due, ...each]
  const closings = teachings.flatMap(
    (teaching) => closingOf(teaching, before, isAll(teaching)) ?? [],
  )
  return {
    each: each.filter(isWanted),
    closings,
    switches: teachings.filter(isAll).flatMap((teaching) => switchPractice(teaching) ?? []),
    runs: closings.flatMap(closingRuns).filter(isWanted),
  }
}

/** Whether all of a combination is known once this class is over. */
function isWholeIn(teaching: Teaching, { only }: PlanWishes): boolean {
  const { material } = teaching
  return firstPasses(material.lead.passes).every(
    (pass) =>
      untaughtIn(pass, teaching).length === 0 ||
      !only ||
      only.some(
        ({ combination, phrase, feet }) =>
          combination === material.combination.id && phrase === pass.phrase.id && !feet,
      ),
  )
}

/** How many phrases have room; each start that is longer needs the shorter one to fit. */
function countFitting(
  steps: readonly Taught[],
  fits: (start: Start) => boolean,
  start: (many: number) => Start,
  { type }: PlanWishes,
): number {
  for (let next = 1; next <= steps.length; next++) {
    const isEnough =
      type === 'choreography' && next > 1 && newCounts(steps.slice(0, next)) > NEW_COUNTS_OVER_WEEKS
    if (isEnough || !fits(start(next))) return next - 1
  }
  return steps.length
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
    all.splice(Math.min(index, drill.kind === 'song' ? songPlace(all) : all.length), 0, drill)
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
