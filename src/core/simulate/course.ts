import { dequal } from 'dequal'
import type { FootAction, Primitive } from '../body/feet'
import type { Layer } from '../body/layers'
import { compassSteps, GAZE_ANGLES, type HeadAngles, palmAt } from '../body/places'
import { SIDES, type Side } from '../body/side'
import { type DancedEvent, heldTicks } from '../combination/lengths'
import { type Pass, pickupTicks } from '../combination/passes'
import type { House } from '../house/house'
import type { Move, MoveKind } from '../moves/move'
import type { Vocabulary } from '../moves/vocabulary'
import { remembered } from '../record/remembered'
import { TICKS_PER_COUNT } from '../time/time'
import { ANY_PLACES, type PlacePart, type Places } from '../what/places'
import { inTime, isThere, placesAfter, placesNeeded, startPlaces } from './places'
import { type DancedStep, type Simulation, type Slice, shiftsWeight } from './simulate'

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
  /** Where hips and eyes go back by themselves. */
  readonly returns: readonly Return[]
  readonly exit: Standing
}

/** A part that goes back without a word: the hips to the centre, the eyes to the front; or what was held so long. */
interface Return {
  readonly part: PlacePart
  /** Which of a pair; both where it is none. */
  readonly sides: readonly Side[]
  /** From the start of the combination. */
  readonly at: number
  readonly after: Places
}

/** Where the layers are, and when each was last busy: a texture lies over a place and leaves it where it is. */
interface Standing {
  readonly places: Places
  readonly lastEnd: Readonly<Record<Layer, number>>
  /** Until when a place of the hips is held, whatever the feet do. */
  readonly hipsUntil: number
}

/** What else a pass is followed from. */
interface Begun {
  readonly entry: Standing
  readonly slice: Slice
  readonly vocabulary: Vocabulary
  readonly house: House
}

function follow({ slices, combination, vocabulary, house }: Simulation): readonly CourseSlice[] {
  const begin = -COUNT_IN_TICKS - pickupTicks(combination)
  let entry: Standing = {
    places: startPlaces(combination.start),
    lastEnd: { feet: 0, legs: begin, hips: begin, torso: begin, arms: begin, head: begin },
    hipsUntil: begin,
  }
  return slices.map((slice) => {
    const followed = sliceOf(slice.pass, { entry, slice, vocabulary, house })
    entry = followed.exit
    return followed
  })
}

/** A pass that begins as it did before is not followed again. */
const sliceOf = remembered(
  followSlice,
  (a: Begun, b: Begun) =>
    a.vocabulary === b.vocabulary &&
    a.house === b.house &&
    a.slice === b.slice &&
    dequal(a.entry, b.entry),
)

/** The way out of a held place may begin in the last count of its range, at most half of it. */
const meltOf = ({ length, isCut }: DancedEvent, kind: MoveKind): number =>
  kind === 'place' && !isCut && length > TICKS_PER_COUNT
    ? Math.min(TICKS_PER_COUNT, Math.floor(length / 2))
    : 0

/** What leaves a foot where it stands. */
const STAYS: ReadonlySet<Primitive> = new Set(['sway', 'recover', 'drag', 'sweep', 'pivot'])

/** Whether a foot is taken up from the floor. */
const leavesFloor = ({ primitive, foot, jump }: FootAction, side: Side): boolean =>
  jump !== undefined || (foot === side && !STAYS.has(primitive))

/** A part that is held to a tick of the combination, and where it was before. */
interface HeldUntil {
  readonly at: number
  readonly part: PlacePart
  /** Which of a pair are still to go back: those nothing else is asked of before. */
  readonly sides: readonly Side[]
  readonly from: Places
}

/** The places with a part, or one of a pair, as it was. */
const withPartOf = (places: Places, from: Places, { part, sides }: HeldUntil): Places => {
  if (part !== 'arms' && part !== 'legs' && part !== 'shoulders' && part !== 'hands')
    return { ...places, [part]: from[part] }
  const back = Object.fromEntries(sides.map((side) => [side, from[part][side]]))
  return { ...places, [part]: { ...places[part], ...back } }
}

/** A part that an event sends somewhere, and which of a pair. */
type PartSent = Pick<HeldUntil, 'part' | 'sides'>

/** The parts that an event sends somewhere. */
function partsSent({ what, layer }: DancedEvent): readonly PartSent[] {
  const of = (pair: Readonly<Partial<Record<Side, unknown>>> = {}) =>
    SIDES.filter((side) => pair[side] !== undefined)
  switch (what.kind) {
    case 'at':
      return [{ part: layer === 'torso' ? 'ribs' : 'hips', sides: SIDES }]
    case 'look':
      return [{ part: 'gaze', sides: SIDES }]
    case 'arms':
      return [
        { part: 'arms', sides: of(what) },
        { part: 'hands', sides: of(what.hands) },
      ]
    case 'legs':
      return [{ part: 'legs', sides: of(what) }]
    case 'trunk':
      return [{ part: 'trunk', sides: SIDES }]
    case 'shoulder':
      return [{ part: 'shoulders', sides: [what.side] }]
    default:
      return []
  }
}

/** So far one may turn and still look where one looked. */
const LOOK_TURNS = 90

function followSlice(pass: Pass, { entry, slice, vocabulary, house }: Begun): CourseSlice {
  const runs: Run[] = []
  const returns: Return[] = []
  let { places, hipsUntil } = entry
  let turned = 0
  const held: HeldUntil[] = []
  /** What is held now, and where it was before the first of several holds in a row. */
  const origins: HeldUntil[] = []
  const lastEnd = { ...entry.lastEnd }
  const back = (to: Places, part: PlacePart, at: number, sides: readonly Side[] = SIDES) => {
    places = to
    returns.push({ part, sides, at, after: places })
  }
  const goBack = (part: 'hips' | 'gaze', at: number) => {
    if (part === 'hips' ? places.hips === 'C' : places.gaze === 'front') return
    back(part === 'hips' ? { ...places, hips: 'C' } : { ...places, gaze: 'front' }, part, at)
  }
  /** A leg is at home again where its foot leaves the floor. */
  const goHome = ({ action }: DancedStep, at: number) => {
    const legs = { ...places.legs }
    for (const side of SIDES)
      if (legs[side] !== 'home' && leavesFloor(action, side)) legs[side] = 'home'
    const gone = SIDES.filter((side) => legs[side] !== places.legs[side])
    if (gone.length === 0) return
    back({ ...places, legs }, 'legs', at, gone)
    for (const [i, one] of held.entries())
      if (one.part === 'legs')
        held[i] = { ...one, sides: one.sides.filter((side) => !gone.includes(side)) }
  }
  /** What was held to a tick is back by then, where nothing else has been asked of it. */
  const letGo = (tick: number) => {
    for (const one of held.splice(0)) {
      if (one.at > tick) held.push(one)
      else if (one.sides.length > 0)
        back(withPartOf(places, one.from, one), one.part, one.at, one.sides)
    }
  }
  /** Where everybody dances as she likes, each part goes to where it is at ease, and may be anywhere. */
  const freeAll = (at: number) => {
    held.length = 0
    const before = places
    places = { ...AT_EASE, free: ANY_PLACES }
    for (const part of ANY_PLACES)
      if (!dequal(before[part], places[part]))
        returns.push({ part, sides: SIDES, at, after: places })
    for (const layer of Object.keys(lastEnd) as Layer[])
      lastEnd[layer] = Math.max(lastEnd[layer], at)
  }
  let stood = slice.entry
  let next = 0
  /** What the feet do up to a tick takes hips and eyes back where they were sent. */
  const goOnTo = (tick: number) => {
    for (; next < slice.danced.length; next++) {
      const step = slice.danced[next] as DancedStep
      const { at, action, after } = step
      if (at > tick) break
      letGo(at)
      if (shiftsWeight(stood, step) && at >= hipsUntil) goBack('hips', at)
      goHome(step, at)
      stood = after
      if (action.primitive === 'free') freeAll(at)
      turned += action.turn ?? 0
      if (Math.abs(turned) >= LOOK_TURNS) goBack('gaze', at)
    }
    letGo(tick)
  }
  for (const event of inTime(pass.events)) {
    const { layer, what } = event
    if (layer === 'feet') continue
    const move = what.kind === 'move' ? vocabulary.find(what.move) : undefined
    const kind = what.kind === 'move' ? (move?.kind ?? 'path') : 'place'
    const at = pass.at + event.at
    goOnTo(at)
    const end = at + event.length
    const before = places
    const after = withoutFree(placesAfter(before, event, vocabulary), event, layer)
    const needs = move ? placesNeeded(move, what) : undefined
    const reach =
      needs && !isThere(before, needs)
        ? { needs, seconds: reachSeconds(before, needs, house), from: lastEnd[layer], to: at }
        : undefined
    runs.push({ pass, event, at, end, move, kind, before, after, reach })
    // A part that is free goes to where it is at ease.
    if (what.kind === 'free')
      for (const part of ANY_PLACES)
        if (!dequal(before[part], after[part])) returns.push({ part, sides: SIDES, at, after })
    const { until } = event
    if (until === undefined && origins.length > 0)
      for (const { part, sides } of partsSent(event))
        for (const [i, one] of origins.entries())
          if (one.part === part)
            origins[i] = { ...one, sides: one.sides.filter((side) => !sides.includes(side)) }
    if (until !== undefined) {
      const sentOn = pass.events
        .filter((other) => other.at > event.at && other.at < until + TICKS_PER_COUNT)
        .flatMap(partsSent)
      for (const { part, sides } of partsSent(event)) {
        const gone = sentOn.filter((other) => other.part === part).flatMap((other) => other.sides)
        const own = sides.filter((side) => !gone.includes(side))
        const ends = pass.at + until
        const from = origins
          .filter(
            (one) => one.part === part && one.sides.length > 0 && one.at + TICKS_PER_COUNT > at,
          )
          .reduce((places, one) => withPartOf(places, one.from, one), before)
        held.push({ at: ends, part, sides: own, from })
        origins.push({ at: ends, part, sides, from })
      }
      held.sort((a, b) => a.at - b.at)
    }
    places = after
    if (layer === 'hips' && kind !== 'texture') hipsUntil = at + heldTicks(event)
    if (layer === 'head' && kind !== 'texture') turned = 0
    if (kind !== 'texture') lastEnd[layer] = Math.max(lastEnd[layer], end - meltOf(event, kind))
  }
  const end = pass.at + pass.length
  goOnTo(end)
  // A look belongs to the picture of its phrase.
  goBack('gaze', end)
  return { runs, returns, exit: { places, lastEnd, hipsUntil } }
}

const AT_EASE: Places = startPlaces({
  hips: 'C',
  ribs: 'C',
  arms: { R: 'low', L: 'low' },
  gaze: 'front',
})

/** The part that the moves of a layer send somewhere. */
const PART_OF: Readonly<Partial<Record<Layer, PlacePart>>> = {
  hips: 'hips',
  torso: 'ribs',
  arms: 'arms',
  head: 'gaze',
}

/** Places of which what an event sends somewhere is no longer free to be anywhere. */
function withoutFree(places: Places, event: DancedEvent, layer: Layer): Places {
  const { free } = places
  if (!free || event.what.kind === 'free') return places
  const sent: readonly (keyof Places | undefined)[] =
    event.what.kind === 'move' ? [PART_OF[layer]] : partsSent(event).map(({ part }) => part)
  const left = free.filter((part) => !sent.includes(part))
  return left.length === free.length ? places : { ...places, free: left }
}

/** All that goes back without a word. */
export const returnsOf = (simulation: Simulation): readonly Return[] =>
  courseSlices(simulation).flatMap(({ returns }) => returns)

/** Where everything has come to at the end. */
export const endPlaces = (simulation: Simulation): Places =>
  courseSlices(simulation).at(-1)?.exit.places ?? startPlaces(simulation.combination.start)

/** Where everything is just before a tick, by all that began before it. */
export function placesBefore(simulation: Simulation, tick: number): Places {
  const { passes, combination } = simulation
  let places = startPlaces(combination.start)
  for (const [i, { runs, returns, exit }] of courseSlices(simulation).entries()) {
    const pass = passes[i]
    if (pass && pass.at + pass.length <= tick) places = exit.places
    else {
      // On one tick the feet come first: what goes back there is sent on by what begins there.
      const moments = [...returns, ...runs].filter(({ at }) => at < tick)
      return moments.sort((a, b) => a.at - b.at).at(-1)?.after ?? places
    }
  }
  return places
}

/** A path that loses more of its shape than this to the way to its start is another one. */
const LOST_SHARE = 1 / 3

/** The ticks of a path that may go by on the way to it: a way that is late melts into it. */
export const ticksLostAtMost = ({ event: { what, length }, kind }: Run): number =>
  kind === 'path' ? ((what.kind === 'move' && what.every) || length) * LOST_SHARE : 0

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
