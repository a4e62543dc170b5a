import { addRisks, NO_RISKS, type Risks } from '../load/risk'
import { Risk } from '../moves/move'
import { type Drill, drillKey, MOST_TALK } from './drill'
import {
  danceSeconds,
  type Materials,
  meanLoad,
  risksOfRound,
  roundOf,
  secondsOf,
} from './material'
import type { Unit } from './units'

/** Every side is danced at least twice (model 10). */
export const LEAST_REPEATS = 2
/** Beyond this a drill tires instead of teaching: the time goes to free runs. */
const MOST_REPEATS = 16
const MOST_FREE_RUNS = 60
const BISECTIONS = 40

/** A drill with what decides how often it is danced. */
export interface Weighed {
  readonly drill: Drill
  /** Mean load times counts (model 10). */
  readonly weight: number
  /** Seconds that are not repeated: the count-ins. */
  readonly once: number
  /** Seconds of one more repeat on every side. */
  readonly each: number
  /** What one round on one side strains. */
  readonly risks: Risks
}

export function weighed(drill: Drill, materials: Materials): Weighed {
  const round = roundOf(drill, materials)
  if (!round) return { drill, weight: 0, once: 0, each: 0, risks: NO_RISKS }
  const once = danceSeconds(drill, round, 0)
  return {
    drill,
    weight: Math.max(0.1, meanLoad(drill, round)) * round.counts,
    once,
    each: danceSeconds(drill, round, 1) - once,
    risks: risksOfRound(drill, round),
  }
}

/** Whole seconds of a drill at some repeats, talk and all; as `secondsOf`, without looking it up again. */
const lasts = ({ drill, once, each }: Weighed, repeats: number): number =>
  Math.ceil(once + each * repeats - 1e-9) + drill.talk

/** All the strain of a drill, both sides. */
export const strainOf = ({ drill, risks }: Weighed): Risks =>
  addRisks(NO_RISKS, risks, drill.repeats * drill.sides.length)

/**
 * The most repeats each drill may have: the limits of a drill and of the class are shared
 * out among those that strain, though never under the least.
 */
function mostRepeats(
  drills: readonly Weighed[],
  before: Risks,
  { house }: Materials,
): readonly number[] {
  const least = drills.reduce((sum, one) => addRisks(sum, strainOf(one)), before)
  return drills.map(({ drill, risks }) =>
    Risk.options.reduce((most, risk) => {
      const each = risks[risk] * drill.sides.length
      if (each === 0) return most
      const all = drills.reduce((sum, one) => sum + one.risks[risk] * one.drill.sides.length, 0)
      const inClass =
        LEAST_REPEATS +
        Math.floor(Math.max(0, house.limits[`risk.class.${risk}`] - least[risk]) / all)
      const inDrill = Math.floor(house.limits[`risk.drill.${risk}`] / each)
      return Math.min(most, Math.max(LEAST_REPEATS, Math.min(inClass, inDrill)))
    }, MOST_REPEATS),
  )
}

/**
 * Fills some seconds to the last one: repeats in proportion to mean load times counts, what
 * is left by largest remainders, then free runs, and the rest to the last talk (model 10).
 */
export function fillUp(
  least: readonly Weighed[],
  seconds: number,
  materials: Materials,
  { freeRun, before }: { readonly freeRun: Unit | undefined; readonly before: readonly Drill[] },
): readonly Drill[] {
  if (least.length === 0) return []
  const done = before
    .map((drill) => strainOf(weighed(drill, materials)))
    .reduce((sum, risks) => addRisks(sum, risks), NO_RISKS)
  const most = mostRepeats(least, done, materials)
  const wanted = (scale: number) =>
    least.map(({ weight }, i) =>
      Math.min(most[i] ?? LEAST_REPEATS, Math.max(LEAST_REPEATS, scale * weight)),
    )
  const taken = (repeats: readonly number[]) =>
    least.reduce((sum, one, i) => sum + lasts(one, repeats[i] ?? 1), 0)
  let low = 0
  let high = MOST_REPEATS / Math.min(...least.map(({ weight }) => Math.max(weight, 0.1)))
  for (let i = 0; i < BISECTIONS; i++) {
    const middle = (low + high) / 2
    if (taken(wanted(middle).map(Math.floor)) <= seconds) low = middle
    else high = middle
  }
  const ideal = wanted(low)
  const repeats = ideal.map(Math.floor)
  let spare = seconds - taken(repeats)
  const byRemainder = ideal
    .map((value, i) => ({ i, rest: value - Math.floor(value) }))
    .sort((a, b) => b.rest - a.rest || a.i - b.i)
  for (const { i } of byRemainder) {
    const one = least[i]
    const now = repeats[i] ?? LEAST_REPEATS
    if (!one || now >= (most[i] ?? LEAST_REPEATS)) continue
    const more = lasts(one, now + 1) - lasts(one, now)
    if (more > spare) continue
    repeats[i] = now + 1
    spare -= more
  }
  const drills = least.map(({ drill }, i) => ({ ...drill, repeats: repeats[i] ?? LEAST_REPEATS }))
  const run = freeRun && freeRunIn(freeRun, spare, drills, done, materials)
  if (run) {
    drills.push(run)
    spare -= secondsOf(run, materials)
  }
  return restToTalk(drills, spare)
}

/** As many free runs as the time and the limits take; none where not even one round on each side does. */
function freeRunIn(
  unit: Unit,
  spare: number,
  drills: readonly Drill[],
  done: Risks,
  materials: Materials,
): Drill | undefined {
  const one: Drill = { ...unit, id: drillKey({ ...unit, repeats: 1 }), repeats: 1 }
  const { each, risks } = weighed(one, materials)
  const first = secondsOf(one, materials)
  if (first > spare || each <= 0) return undefined
  const strain = drills
    .map((drill) => strainOf(weighed(drill, materials)))
    .reduce((sum, own) => addRisks(sum, own), done)
  const most = Risk.options.reduce((fewest, risk) => {
    const own = risks[risk] * one.sides.length
    if (own === 0) return fewest
    const { limits } = materials.house
    const inClass = (limits[`risk.class.${risk}`] - strain[risk]) / own
    return Math.min(fewest, Math.floor(Math.min(inClass, limits[`risk.drill.${risk}`] / own)))
  }, MOST_FREE_RUNS)
  let repeats = Math.min(most, 1 + Math.floor((spare - first) / each))
  if (repeats < 1) return undefined
  // Whole seconds are rounded up, so the last one may just not fit.
  while (repeats > 1 && secondsOf({ ...one, repeats }, materials) > spare) repeats--
  return { ...one, repeats }
}

/** What no round fits into any more is time to look, ask and drink; the last talk has it. */
export function restToTalk(drills: readonly Drill[], spare: number): readonly Drill[] {
  let rest = spare
  return drills
    .toReversed()
    .map((drill) => {
      const more = Math.min(rest, MOST_TALK - drill.talk)
      if (more <= 0) return drill
      rest -= more
      return { ...drill, talk: drill.talk + more }
    })
    .toReversed()
}
