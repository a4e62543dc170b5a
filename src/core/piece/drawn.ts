import { dequal } from 'dequal'
import { factsOf } from '../body/feet'
import type { FloorPoint } from '../body/places'
import { SIDES, type Side } from '../body/side'
import { remembered } from '../record/remembered'
import { beforeStep, type DancedStep, type Simulation, type Slice } from '../simulate/simulate'
import type { BodyState } from '../simulate/state'

/** How much farther the feet go over some ticks than their words say, in metres of the room. */
export interface Drawing {
  readonly from: number
  readonly to: number
  /** How far she is carried by each landing that carries her, the last one by all of it. */
  readonly by: readonly FloorPoint[]
}

/** Where each foot is besides its place by the words. */
export interface Offsets {
  readonly R: FloorPoint
  readonly L: FloorPoint
}

const NOWHERE: FloorPoint = { right: 0, forward: 0 }
/** Nothing is drawn yet. */
export const AT_HOME: Offsets = { R: NOWHERE, L: NOWHERE }

/** The landings that carry: the foot takes weight where it comes down. */
export const carries = ({ action, after }: DancedStep): boolean =>
  factsOf(action.primitive).lands &&
  (after.weight === 'both' || after.weight === action.foot || action.primitive === 'jump')

interface On {
  /** What is drawn within it. */
  readonly drawings: readonly Drawing[]
  /** How far she is carried by what is drawn before it. */
  readonly carried: FloorPoint
  readonly begin: Offsets
}

interface Moved {
  readonly slice: Slice
  readonly end: Offsets
}

/**
 * A dance with its steps drawn: each landing on the way takes its share, the other foot the rest when
 * it next comes down; no foot moves that stands. The very same where nothing is drawn.
 */
export function drawnBy(simulation: Simulation, drawings: readonly Drawing[]): Simulation {
  if (drawings.length === 0) return simulation
  let begin = AT_HOME
  const slices = simulation.slices.map((slice) => {
    const drawn = drawnIn(slice, drawings, begin)
    begin = drawn.end
    return drawn.slice
  })
  const danced = slices.flatMap((slice) => slice.danced)
  return { ...simulation, slices, danced, end: slices.at(-1)?.exit ?? simulation.end }
}

/** One dancing of a phrase, drawn: the very same where nothing is drawn of it or before it. */
export function drawnIn(slice: Slice, drawings: readonly Drawing[], begin: Offsets): Moved {
  const { at, length } = slice.pass
  const own = drawings.filter(({ from, to }) => from < at + length && to > at)
  const before = drawings.filter(({ to }) => to <= at)
  if (own.length === 0 && before.length === 0) return { slice, end: begin }
  const carried = before.reduce((sum, { by }) => plus(sum, by.at(-1) ?? NOWHERE), NOWHERE)
  return movedSlice(slice, { drawings: own, carried, begin })
}

const movedSlice = remembered(moveSlice, (a: On, b: On) => dequal(a, b))

function moveSlice(slice: Slice, { drawings, carried, begin }: On): Moved {
  const offsets = { ...begin }
  /** How far she is carried by a tick, with what lands on it. */
  const carriedBy = (tick: number): FloorPoint => {
    let { right, forward } = carried
    for (const { from, to, by } of drawings) {
      const done = tick >= to ? by.length : landedBy(slice, from, tick)
      const now = by[Math.min(done, by.length) - 1] ?? NOWHERE
      right += now.right
      forward += now.forward
    }
    return { right, forward }
  }
  const danced = slice.danced.map((step, i): DancedStep => {
    const before = beforeStep(slice, i)
    for (const side of SIDES)
      if (isPutDown(before, step.after, side, step)) offsets[side] = carriedBy(step.at)
    return { ...step, after: withOffsets(step.after, offsets) }
  })
  const end = { ...offsets }
  return {
    slice: {
      ...slice,
      entry: withOffsets(slice.entry, begin),
      danced,
      exit: withOffsets(slice.exit, end),
    },
    end,
  }
}

/** How many landings of a range have come down by a tick; a range lies within one pass. */
const landedBy = ({ danced }: Slice, from: number, tick: number): number =>
  danced.filter((step) => carries(step) && step.at >= from && step.at <= tick).length

function isPutDown(before: BodyState, after: BodyState, side: Side, step: DancedStep): boolean {
  if (step.action.foot === side && factsOf(step.action.primitive).lands) return true
  const [from, to] = [before.feet[side].place, after.feet[side].place]
  return Math.hypot(to.right - from.right, to.forward - from.forward) > 1e-6
}

const withOffsets = (state: BodyState, { R, L }: Offsets): BodyState => ({
  ...state,
  feet: {
    R: { ...state.feet.R, place: plus(state.feet.R.place, R) },
    L: { ...state.feet.L, place: plus(state.feet.L.place, L) },
  },
})

export const plus = (a: FloorPoint, b: FloorPoint): FloorPoint => ({
  right: a.right + b.right,
  forward: a.forward + b.forward,
})
