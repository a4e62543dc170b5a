import { dequal } from 'dequal'
import { type FootAction, factsOf } from '../body/feet'
import type { OneSide } from '../combination/combination'
import type { DancedEvent } from '../combination/lengths'
import { loopTick } from '../combination/loop'
import { oncePerPhrase } from '../combination/oncePerPhrase'
import { type Pass, passesOf, roundPickup } from '../combination/passes'
import { stepsToEnd } from '../combination/steps'
import { type House, type Landing, USUAL_HOUSE } from '../house/house'
import { lengthsIn, type TimedAction } from '../moves/pattern'
import type { Vocabulary } from '../moves/vocabulary'
import { remembered } from '../record/remembered'
import { endOf, type Span, TICKS_PER_COUNT, type Tick, tick } from '../time/time'
import { steady, type TimeMap } from '../time/timeMap'
import { withKeptTurn } from './keptTurns'
import { dance, settled, type WeightFault } from './primitives'
import { settlingIn } from './settling'
import { idleShares, withShares } from './shares'
import { startState } from './start'
import type { BodyState } from './state'

/** One thing the feet did: what, when, from which event, and what it led to. */
export interface DancedStep extends Span {
  readonly action: FootAction
  readonly pass: Pass
  readonly event: DancedEvent
  /** The weight has settled on planted feet before it. */
  readonly settles: boolean
  readonly after: BodyState
  readonly fault: WeightFault | undefined
}

/** Whether a step takes the weight elsewhere: then the hips go home (model 3). */
export const shiftsWeight = (before: BodyState, { action, after }: DancedStep): boolean =>
  after.weight !== before.weight || action.primitive === 'jump'

/** What the feet do in one pass, from the state it begins in to the one it ends in. */
export interface Slice {
  readonly pass: Pass
  readonly entry: BodyState
  readonly danced: readonly DancedStep[]
  readonly exit: BodyState
}

/** The body before a step of a slice: the weight may have settled where the pass before was over. */
export const beforeStep = ({ entry, danced }: Slice, i: number): BodyState =>
  danced[i - 1]?.after ?? entry

/** A combination with everything its feet lead to. */
export interface Simulation {
  readonly combination: OneSide
  readonly house: House
  /** How its ticks go by on a clock. */
  readonly time: TimeMap
  /** What its moves were read by. */
  readonly vocabulary: Vocabulary
  /** The body just before count 1: the start stance, or what a pickup has made of it. */
  readonly opening: BodyState
  readonly passes: readonly Pass[]
  readonly start: BodyState
  /** Pass by pass; the very same as before for what an edit left alone. */
  readonly slices: readonly Slice[]
  readonly danced: readonly DancedStep[]
  readonly end: BodyState
  /** From the start of the combination to the end of its last phrase. */
  readonly length: Tick
}

/** One thing the feet will do, before it is danced. */
export type Planned = Omit<DancedStep, 'after' | 'fault'>

/** As they are danced: level words come after what shares their tick, but a pivot needs the rise before it. */
export const inDanceOrder = (a: TimedAction, b: TimedAction): number =>
  a.at - b.at || rank(a) - rank(b)

function rank({ action }: Pick<Planned, 'action'>): number {
  if (action.primitive === 'pivot') return 2
  return factsOf(action.primitive).levelOnly ? 1 : 0
}

/** Which passes are danced with their turns the other way round from how they stand. */
export interface TurnRule {
  readonly keepTurns?: boolean | undefined
  readonly otherTurns?: boolean | undefined
}

/**
 * Everything the feet do in these passes, figures opened into their steps, in order. Where
 * turns are kept, what is seen from the other side turns as it was written (model 6).
 */
export function planOf(
  passes: readonly Pass[],
  vocabulary: Vocabulary,
  { keepTurns, otherTurns }: TurnRule = {},
): readonly Planned[] {
  const planned = asWritten(passes, vocabulary)
  if (!keepTurns) return planned
  let shift = 0
  return planned.map((one) => {
    if (one.pass.mirrored === (otherTurns === true)) {
      shift = 0
      return one
    }
    if (one.event.kept) return one
    const action = withKeptTurn(one.action, shift)
    shift += 2 * (one.action.turn ?? 0)
    return { ...one, action }
  })
}

/** One step of a phrase, before anybody dances it: times from the start of the phrase. */
interface PhraseStep extends TimedAction {
  readonly length: Tick
  readonly event: DancedEvent
  /** The weight has settled on planted feet before it. */
  readonly settles: boolean
}

/** The steps of a phrase in the order they are danced, before they share a turn. */
const stepsAlone = (events: readonly DancedEvent[], vocabulary: Vocabulary) =>
  events
    .filter((event) => event.layer === 'feet')
    .flatMap((event) => {
      const own = stepsToEnd(event, vocabulary)
      const after = event.until === undefined ? 0 : event.until - event.at
      const danced = event.length + (event.putsDown ? TICKS_PER_COUNT : 0)
      const lengths = lengthsIn(own, tick(Math.max(danced, after + 1)))
      return own.map(({ at, action }, i) => ({
        at: tick(event.at + at),
        length: lengths[i] ?? event.length,
        action,
        event,
      }))
    })
    .sort(inDanceOrder)

/** Turns of a phrase that nothing shares, or that lie over each other. */
export const idleSharesIn = oncePerPhrase((events, vocabulary) =>
  events.some(({ what }) => what.kind === 'share')
    ? idleShares(stepsAlone(events, vocabulary), events)
    : [],
)

/** The steps of a phrase in the order they are danced. */
const stepsIn = oncePerPhrase((events, vocabulary): readonly PhraseStep[] => {
  const settling = settlingIn(events, vocabulary)
  let last = 0
  return withShares(stepsAlone(events, vocabulary), events).map((step): PhraseStep => {
    const settles = settling.between(last, step.at)
    if (!factsOf(step.action.primitive).levelOnly) last = step.at
    return { ...step, settles }
  })
})

/** Whether the weight has settled on both feet at the end of a pass (model 4). */
export const settlesAtEnd = ({ events, length, leadIn }: Pass, vocabulary: Vocabulary): boolean => {
  if (leadIn?.from.has('feet')) return false
  const last = stepsIn(events, vocabulary).findLast(
    ({ action }) => !factsOf(action.primitive).levelOnly,
  )
  return settlingIn(events, vocabulary).between(last?.at ?? 0, length)
}

/** No step of a pass starts after it is over, so passes in order are steps in order. */
const asWritten = (passes: readonly Pass[], vocabulary: Vocabulary): readonly Planned[] =>
  passes.flatMap((pass) => stepsOfPass(pass, vocabulary))

function stepsOfPass(pass: Pass, vocabulary: Vocabulary): readonly Planned[] {
  const planned: Planned[] = []
  for (const { at, length, action, event, settles } of stepsIn(pass.events, vocabulary)) {
    // What runs on behind a pickup danced again belongs to the round that follows.
    if (pass.leadIn && at >= pass.leadIn.countOne) continue
    planned.push({ at: tick(pass.at + at), length, action, pass, event, settles })
  }
  return planned
}

/** What else a pass is danced from. */
interface Begun {
  readonly entry: BodyState
  readonly vocabulary: Vocabulary
  readonly landing: Landing
}

/** A pass that begins as it did before is not danced again. */
const sliceOf = remembered(
  (pass: Pass, { entry, vocabulary, landing }: Begun): Slice =>
    danceSlice(pass, stepsOfPass(pass, vocabulary), { entry, vocabulary, landing }),
  (a, b) => a.vocabulary === b.vocabulary && a.landing === b.landing && dequal(a.entry, b.entry),
)

/** Dances the passes one after the other. */
function slicesOf(
  passes: readonly Pass[],
  combination: OneSide,
  vocabulary: Vocabulary,
  start: BodyState,
  landing: Landing,
): readonly Slice[] {
  // Turns that are kept carry over from pass to pass, so these are planned as a whole.
  const planned = combination.keepTurns && planOf(passes, vocabulary, combination)
  let entry = start
  return passes.map((pass) => {
    const slice = planned
      ? danceSlice(
          pass,
          planned.filter((one) => one.pass === pass),
          { entry, vocabulary, landing },
        )
      : sliceOf(pass, { entry, vocabulary, landing })
    entry = slice.exit
    return slice
  })
}

function danceSlice(
  pass: Pass,
  steps: readonly Planned[],
  { entry, vocabulary, landing }: Begun,
): Slice {
  let state = entry
  const danced = steps.map(({ at, length, action, event, settles }): DancedStep => {
    const outcome = dance(state, action, at, landing, settles)
    state = outcome.state
    // Written out: a spread here is a fifth of the whole check.
    return { at, length, action, pass, event, settles, after: state, fault: outcome.fault }
  })
  return { pass, entry, danced, exit: settlesAtEnd(pass, vocabulary) ? settled(state) : state }
}

/** Dances the feet of a combination from its start stance to its end (model 3 and 4). */
export function simulate(
  combination: OneSide,
  vocabulary: Vocabulary,
  house = USUAL_HOUSE,
  time: TimeMap = steady(combination.tempo),
): Simulation {
  const passes = passesOf(combination, vocabulary)
  const { landing } = house
  const start = startState(combination.start, landing)
  const slices = slicesOf(passes, combination, vocabulary, start, landing)
  const danced = slices.flatMap((slice) => slice.danced)
  const last = passes.at(-1)
  const loop = loopTick(combination)
  return {
    combination,
    house,
    time,
    vocabulary,
    passes,
    start,
    slices,
    danced,
    opening: stateBefore({ danced, start, ...(loop > 0 && { slices }) }, loop),
    end: slices.at(-1)?.exit ?? start,
    length: last ? endOf(last) : tick(0),
  }
}

/**
 * Where a round begins and ends, each as the body is just before: on count 1, or where every
 * round has its pickup, before that (model 7, truth A13).
 */
export function roundEnds(simulation: Simulation): {
  readonly from: BodyState
  readonly to: BodyState
} {
  const { combination, start, opening, end, length } = simulation
  const pickup = roundPickup(combination, 'feet')
  return pickup > 0
    ? { from: start, to: stateBefore(simulation, length - pickup) }
    : { from: opening, to: end }
}

/** The state just before a tick: what a step written there would start from. */
export function stateBefore({ danced, start, slices }: Steps, at: number): BodyState {
  const last = danced[indexBefore(danced, at) - 1]
  let state = last?.after ?? start
  // Where a pass is over the weight may have settled.
  for (let i = last?.pass.index ?? 0; slices && i < slices.length; i++) {
    const { pass, exit } = slices[i] as Slice
    if (pass.at + pass.length > at) break
    state = exit
  }
  return state
}

/** What a state is looked up in; without its slices, the steps of one pass alone. */
type Steps = Pick<Simulation, 'danced' | 'start'> & Partial<Pick<Simulation, 'slices'>>

/** The state on a tick, with everything that lands on it done. */
export const stateAt = (simulation: Steps, at: number): BodyState =>
  stateBefore(simulation, at + 0.5)

/** How many were danced before a tick: a search by halves, since the figure asks often. */
function indexBefore(danced: readonly DancedStep[], at: number): number {
  let low = 0
  let high = danced.length
  while (low < high) {
    const middle = (low + high) >> 1
    if ((danced[middle]?.at ?? 0) < at) low = middle + 1
    else high = middle
  }
  return low
}
