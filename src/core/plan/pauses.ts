import { type FrameSeconds, saidUnit } from './frame'
import type { Materials } from './material'
import type { PlanWishes } from './plan'
import type { Unit } from './teaching'

/** From so much of the usual time on a pause comes at the next good place. */
const EARLY = 0.7
/** Nobody goes on longer without one. */
const LONGEST = 19 * 60
/** Seconds danced after which one comes before the runs. */
const BEFORE_RUNS = 4 * 60

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
    frame,
    materials,
  }: {
    readonly wishes: PlanWishes
    readonly lasts: (unit: Unit) => number
    readonly frame: FrameSeconds
    readonly materials: Materials
  },
): readonly Unit[] {
  const { limits } = materials.house
  const pause = saidUnit('pause', limits['plan.water'] + limits['plan.questions'], wishes.tempoNow)
  const every = limits['plan.pauseEvery']
  const done: Unit[] = []
  let since = frame.hello + frame.warmUp
  let hasRun = false
  for (const [i, unit] of units.entries()) {
    const before = units[i - 1]
    const isFirstRun = isRun(unit) && !hasRun
    hasRun ||= isRun(unit)
    // What is walked and what it is walked for stay together.
    const next = unit.kind === 'walk' ? lasts(units[i + 1] ?? unit) : 0
    const isDue =
      (isGoodPlace(before, unit) && since >= EARLY * every) ||
      since + lasts(unit) + next > LONGEST ||
      (isFirstRun && since >= BEFORE_RUNS && wishes.minutes >= 30)
    if (isDue && done.at(-1)?.kind !== 'pause' && i > 0) {
      done.push(pause)
      since = 0
    }
    done.push(unit)
    since += lasts(unit)
  }
  return done
}
