import type { Combination } from '../combination/combination'
import { type Drill, drillKey } from './drill'
import { type FrameRoom, type FrameSeconds, frameRoom, frameRows } from './frame'
import { type Materials, secondsOf } from './material'
import { classSeconds, type PlanWishes } from './plan'
import type { Teaching, Unit } from './teaching'

/** A drill that is kept where it stands. */
export interface Kept {
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

/** What a class is planned in: its seconds, what is fixed by hand, and how long things last. */
export interface Setting {
  readonly wishes: PlanWishes
  readonly combinations: readonly Combination[]
  readonly materials: Materials
  readonly kept: readonly Drill[]
  /** Seconds of the class, but for what is fixed. */
  readonly room: number
  readonly frame: FrameRoom
  /** The steps of the beginning and the end that are wanted, and not fixed by hand. */
  readonly rows: readonly Unit[]
  /** Seconds of a kind of them that are still to be planned. */
  readonly has: (kind: Drill['kind'], seconds: number) => number
  readonly framed: (some: FrameSeconds) => number
  /** Neither fixed nor taken out by hand. */
  readonly isWanted: (unit: Unit) => boolean
  readonly lasts: (unit: Unit) => number
  readonly all: (units: readonly Unit[]) => number
}

export function settingOf(
  wishes: PlanWishes,
  teachings: readonly Teaching[],
  materials: Materials,
  fixed: Fixed,
): Setting {
  const combinations = teachings.map(({ material }) => material.combination)
  const kept = fixed.kept.map(({ drill }) => drill)
  const unwanted = new Set([...kept.map(drillKey), ...fixed.without])
  const isWanted = (unit: Unit) => !unwanted.has(drillKey(unit))
  const lasts = (unit: Unit) => secondsOf({ ...unit, id: '' }, materials)
  const rows = frameRows(wishes).filter(isWanted)
  // What is kept of the beginning and the end is part of it; what was taken out leaves its time to the rest.
  const has = (kind: Drill['kind'], seconds: number) =>
    rows.some((row) => row.kind === kind)
      ? kept
          .filter((drill) => drill.kind === kind)
          .reduce((left, drill) => Math.max(0, left - secondsOf(drill, materials)), seconds)
      : 0
  return {
    wishes,
    combinations,
    materials,
    kept,
    room: classSeconds(wishes) - kept.reduce((sum, drill) => sum + secondsOf(drill, materials), 0),
    frame: frameRoom(wishes, combinations, materials),
    rows,
    has,
    framed: (some) =>
      has('hello', some.hello) +
      has('warm-up', some.warmUp) +
      has('recap', some.recap) +
      has('cool-down', some.coolDown),
    isWanted,
    lasts,
    all: (units) => units.reduce((sum, unit) => sum + lasts(unit), 0),
  }
}
