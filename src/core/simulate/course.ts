import { dequal } from 'dequal'
import type { Layer } from '../body/layers'
import { compassSteps, GAZE_ANGLES, type HeadAngles, palmAt } from '../body/places'
import { SIDES } from '../body/side'
import type { DancedEvent } from '../combination/lengths'
import { type Pass, pickupTicks } from '../combination/passes'
import type { House } from '../house/house'
import type { Move, MoveKind } from '../moves/move'
import type { Vocabulary } from '../moves/vocabulary'
import { remembered } from '../record/remembered'
import { TICKS_PER_COUNT } from '../time/time'
import type { Places } from '../what/places'
import { inTime, isThere, placesAfter, placesNeeded, startPlaces } from './places'
import type { Simulation } from './simulate'

/** The counts before the very first one: the time there is to reach a first start (model 5). */
export const COUNT_IN_TICKS = 4 * TICKS_PER_COUNT

/** One event of a pass, with where the body is before and after it. */
export interface Run {
  readonly pass: Pass
  readonly event: DancedEvent
  /** From the start of the combination. */
  readonly at: number
  readonly end: number
  readonly move: Move | undefined
  readonly kind: MoveKind
  readonly before: Places
  readonly after: Places
  /** The way to its start that nobody wrote; absent where it starts from where the body is. */
  readonly reach: Reach | undefined
}

/** A movement nobody wrote: the body must be somewhere else for what comes (model 5). */
interface Reach {
  readonly needs: Partial<Places>
  /** How long it takes, in seconds. */
  readonly seconds: number
  /** The ticks there are for it. */
  readonly from: number
  readonly to: number
}

/** Everything above the feet in the order it begins, with the places it leads through. */
export type Course = readonly Run[]

interface Followed {
  readonly slices: readonly CourseSlice[]
  readonly course: Course
}

const followed = new WeakMap<Simulation, Followed>()

/** A simulation is followed once. */
function followedOf(simulation: Simulation): Followed {
  const known = followed.get(simulation)
  if (known) return known
  const slices = follow(simulation)
  const made = { slices, course: slices.flatMap(({ runs }) => runs) }
  followed.set(simulation, made)
  return made
}

/** The course of a simulation. */
export const courseOf = (simulation: Simulation): Course => followedOf(simulation).course

/** The course pass by pass; what begins as it did before is the very same. */
export const courseSlices = (simulation: Simulation): readonly CourseSlice[] =>
  followedOf(simulation).slices

/** What the layers above the feet do in one pass, and where that leads. */
export interface CourseSlice {
  readonly runs: readonly Run[]
  readonly exit: Standing
}

/** Where the layers are, and when each was last busy: a texture lies over a place and leaves it where it is. */
interface Standing {
  readonly places: Places
  readonly lastEnd: Readonly<Record<Layer, number>>
}

/** What else a pass is followed from. */
interface Begun {
  readonly entry: Standing
  readonly vocabulary: Vocabulary
  readonly house: House
}

function follow({ passes, combination, vocabulary, house }: Simulation): readonly CourseSlice[] {
  const begin = -COUNT_IN_TICKS - pickupTicks(combination)
  let entry: Standing = {
    places: startPlaces(combination.start),
    lastEnd: { feet: 0, hips: begin, torso: begin, arms: begin, head: begin },
  }
  return passes.map((pass) => {
    const slice = sliceOf(pass, { entry, vocabulary, house })
    entry = slice.exit
    return slice
  })
}

/** A pass that begins as it did before is not followed again. */
const sliceOf = remembered(
  followSlice,
  (a: Begun, b: Begun) =>
    a.vocabulary === b.vocabulary && a.house === b.house && dequal(a.entry, b.entry),
)

function followSlice(pass: Pass, { entry, vocabulary, house }: Begun): CourseSlice {
  const runs: Run[] = []
  let { places } = entry
  const lastEnd = { ...entry.lastEnd }
  for (const event of inTime(pass.events)) {
    const { layer, what } = event
    if (layer === 'feet') continue
    const move = what.kind === 'move' ? vocabulary.find(what.move) : undefined
    const kind = what.kind === 'move' ? (move?.kind ?? 'path') : 'place'
    const at = pass.at + event.at
    const end = at + event.length
    const after = placesAfter(places, event, vocabulary)
    const needs = move ? placesNeeded(move, what) : undefined
    const reach =
      needs && !isThere(places, needs)
        ? { needs, seconds: reachSeconds(places, needs, house), from: lastEnd[layer], to: at }
        : undefined
    runs.push({ pass, event, at, end, move, kind, before: places, after, reach })
    places = after
    if (kind !== 'texture') lastEnd[layer] = Math.max(lastEnd[layer], end)
  }
  return { runs, exit: { places, lastEnd } }
}

/** Where everything has come to at the end. */
export const endPlaces = (simulation: Simulation): Places =>
  courseOf(simulation).at(-1)?.after ?? startPlaces(simulation.combination.start)

/** How long the body takes from where it is to where something starts, in seconds (model 5). */
export function reachSeconds(from: Places, to: Partial<Places>, { limits, palms }: House): number {
  let seconds = 0
  const steps = limits['reach.compass']
  if (to.hips) seconds = Math.max(seconds, compassSteps(from.hips, to.hips) * steps)
  if (to.ribs) seconds = Math.max(seconds, compassSteps(from.ribs, to.ribs) * steps)
  if (to.gaze) {
    const degrees = headWay(GAZE_ANGLES[from.gaze], GAZE_ANGLES[to.gaze])
    seconds = Math.max(seconds, (degrees / 90) * limits['reach.gaze'])
  }
  if (to.arms)
    for (const side of SIDES) {
      const there = to.arms[side]
      if (!there || there === from.arms[side]) continue
      const metres = palmWay(palmAt(side, from.arms[side], palms), palmAt(side, there, palms))
      const takes = Math.max(limits['reach.armLeast'], metres * limits['reach.armMetre'])
      seconds = Math.max(seconds, takes)
    }
  return seconds
}

const headWay = (a: HeadAngles, b: HeadAngles): number =>
  Math.hypot(a.turn - b.turn, a.nod - b.nod, a.tilt - b.tilt)

/** How far a palm goes in a straight line, in metres. */
export const palmWay = (a: ReturnType<typeof palmAt>, b: ReturnType<typeof palmAt>): number =>
  Math.hypot(a.right - b.right, a.up - b.up, a.forward - b.forward)
