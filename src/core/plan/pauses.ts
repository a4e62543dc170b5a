import type { DancerLevel } from '../combination/combination'
import type { House } from '../house/house'
import { saidUnit } from './frame'
import type { Materials } from './material'
import type { PlanWishes } from './plan'
import type { Unit } from './teaching'

/** From so much of the usual time on a pause comes at the next good place. */
const EARLY = 0.7
/** … where the next one would be later than this. */
const LATE = 1.25
/** Nobody goes on longer without one. */
export const LONGEST = 18 * 60
/** Seconds danced after which one comes before the runs. */
const BEFORE_RUNS = 4 * 60

/** Pauses an hour has at the least. */
const EACH_HOUR = 2

const isRun = ({ kind }: Unit): boolean => kind === 'run' || kind === 'sides'

/** Whether something new begins here, so that one may stop before it. */
const isGoodPlace = (before: Unit | undefined, unit: Unit): boolean =>
  before !== undefined &&
  unit.kind !== 'join' &&
  unit.kind !== 'other-side' &&
  (before.kind === 'join' ||
    before.kind === 'other-side' ||
    before.kind === 'review' ||
    isRun(unit))

/** Puts pauses in: about every quarter of an hour, and before the runs (teaching 5.3). */
export function withPauses(
  units: readonly Unit[],
  {
    wishes,
    lasts,
    since: before,
    after,
    materials,
  }: {
    readonly wishes: PlanWishes
    readonly lasts: (unit: Unit) => number
    /** Seconds of the class before these. */
    readonly since: number
    /** … and behind them. */
    readonly after: number
    readonly materials: Materials
  },
): readonly Unit[] {
  const { limits } = materials.house
  const pause = saidUnit('pause', limits['plan.water'] + limits['plan.questions'], wishes.tempoNow)
  const every = limits['plan.pauseEvery']
  /** Seconds from a place to the next good one. */
  const toNext = (from: number): number => {
    let seconds = 0
    for (let i = from; i < units.length; i++) {
      const unit = units[i]
      if (!unit || (i > from && isGoodPlace(units[i - 1], unit))) break
      seconds += lasts(unit)
    }
    return seconds
  }
  const done: Unit[] = []
  let since = before
  let hasRun = false
  for (const [i, unit] of units.entries()) {
    const last = units[i - 1]
    const isFirstRun = isRun(unit) && !hasRun
    hasRun ||= isRun(unit)
    // What is walked and what it is walked for stay together.
    const next = unit.kind === 'walk' ? lasts(units[i + 1] ?? unit) : 0
    const isDue =
      (isGoodPlace(last, unit) && since >= EARLY * every && since + toNext(i) > LATE * every) ||
      since + lasts(unit) + next > LONGEST ||
      (isFirstRun && since >= BEFORE_RUNS)
    if (isDue && done.at(-1)?.kind !== 'pause') {
      done.push(pause)
      since = 0
    }
    done.push(unit)
    since += lasts(unit)
  }
  const wanted = Math.max(1, Math.floor(wishes.minutes / 60) * EACH_HOUR)
  const missing = wanted - done.filter(({ kind }) => kind === 'pause').length
  return (missing > 0 || since + after > LONGEST) && done.at(-1)?.kind !== 'pause'
    ? [...done, pause]
    : done
}

/** Seconds that are danced without a word longer than a breath (teaching 5.3). */
const DANCED: Readonly<Record<DancerLevel, number>> = {
  new: 360,
  improver: 360,
  intermediate: 480,
  advanced: 480,
}

/** Nobody dances on and on: before it is too long there is a breath and one correction. */
export function withBreath(
  units: readonly Unit[],
  level: DancerLevel,
  lasts: (unit: Unit) => number,
  { limits }: House,
): readonly Unit[] {
  const breath = limits['plan.breath']
  let danced = 0
  return units.map((unit) => {
    const isSaid = unit.seconds !== undefined
    if (isSaid || unit.talk >= breath) danced = 0
    if (isSaid || unit.combination === undefined) return unit
    danced += lasts(unit)
    if (danced <= DANCED[level]) return unit
    const longer = { ...unit, talk: breath }
    danced = lasts(longer)
    return longer
  })
}
