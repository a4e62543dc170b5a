import { EASY_HAND, type HandState, type PalmWay } from '../body/hands'
import { otherSide, SIDES, type Side, signOf } from '../body/side'
import { courseOf } from '../simulate/course'
import type { Simulation } from '../simulate/simulate'
import { ARM } from './armPlaces'
import { type Held, heldThrough, type Sending, straightTo } from './held'
import { timeOf } from './isolations'
import { TOLD_SHAPES } from './joints'
import { sendingsOf } from './sendings'

/** A hand as numbers: how much of each shape it has, how much its palm is told, and where that looks in the chest's frame. */
const PALM = TOLD_SHAPES.length
export const HAND_SIZE = PALM + 4

type Three = readonly [number, number, number]
const PALM_WAYS: Readonly<Record<Exclude<PalmWay, 'easy'>, Three>> = {
  in: [-1, 0, 0],
  out: [1, 0, 0],
  up: [0, 1, 0],
  down: [0, -1, 0],
  front: [0, 0, 1],
  back: [0, 0, -1],
}

const handAt = (side: Side, { shape, palm }: HandState): readonly number[] => {
  const [x, y, z] = palm === 'easy' ? [0, 0, 0] : PALM_WAYS[palm]
  const told = palm === 'easy' ? 0 : 1
  return [...TOLD_SHAPES.map((one) => (one === shape ? 1 : 0)), told, signOf(side) * x, y, z]
}

/** How each hand is held through a simulation, and which arm lies over the other: 1 the right one, -1 the left one. */
export interface HandsHeld {
  readonly held: Readonly<Record<Side, Held>>
  readonly over: Held
  /** Whether anything is told of them at all. */
  readonly isTold: boolean
}

/** A hand is in its shape, and out of it again, within so many ticks. */
const QUICK = 4

/** How a hand is held in the moves that say so: where it stays until other arms are danced, else until the move is over. */
function danced(simulation: Simulation, side: Side): readonly Sending[] {
  const runs = courseOf(simulation).filter(({ event }) => event.layer === 'arms')
  return runs.flatMap((run, i): readonly Sending[] => {
    const { move, at, end, after } = run
    const { what } = run.event
    if (!move || what.kind !== 'move' || (what.arm && what.arm !== side)) return []
    const written = what.side === 'L' ? otherSide[side] : side
    const told = move.motion.find(
      (item) => item.verb === 'hand' && (item.arm === 'both' || item.arm === written),
    )
    if (told?.verb !== 'hand') return []
    const before = after.hands[side]
    const state: HandState = {
      shape: told.hand.shape ?? before.shape,
      palm: told.hand.palm ?? before.palm,
    }
    const next = runs[i + 1]?.at ?? Number.POSITIVE_INFINITY
    const over = Math.max(at + QUICK, move.to === '=' ? end - QUICK : next)
    const back = { start: over, end: over + QUICK, way: straightTo(handAt(side, before)) }
    return [
      { start: at, end: at + QUICK, way: straightTo(handAt(side, state)) },
      ...(Number.isFinite(over) ? [back] : []),
    ]
  })
}

export function handsOf(simulation: Simulation, shown: boolean): HandsHeld {
  const sent = (side: Side): readonly Sending[] => [
    ...sendingsOf(shown ? simulation : undefined, 'hands', {
      side,
      to: ({ event: { what }, after }) =>
        what.kind === 'arms' && what.hands?.[side] ? after.hands[side] : undefined,
      back: ({ hands }) => hands[side],
      held: (state) => handAt(side, state),
    }),
    ...(shown ? danced(simulation, side) : []),
  ]
  const sendings = { R: sent('R'), L: sent('L') }
  const { lead } = simulation.combination
  const crossed = shown
    ? courseOf(simulation).flatMap((run): readonly Sending[] => {
        const { what } = run.event
        return what.kind === 'arms' && (what.R || what.L)
          ? [
              {
                ...timeOf(run, simulation.time),
                way: straightTo([signOf(what.over ?? lead)]),
              },
            ]
          : []
      })
    : []
  return {
    held: {
      R: heldThrough(handAt('R', EASY_HAND), sendings.R),
      L: heldThrough(handAt('L', EASY_HAND), sendings.L),
    },
    over: heldThrough([signOf(lead)], crossed),
    isTold: SIDES.some((side) => sendings[side].length > 0),
  }
}

const FLEXED = TOLD_SHAPES.indexOf('flexed')
/** A hand that is bent back is bent so much, as a share of its length (h). */
const BENT = 0.9

/** How much a hand is bent back at its wrist. */
export const bentBack = (hand: Float64Array): number => BENT * (hand[FLEXED] as number)

/** How near to the way of the palm fingers may point, as a share: nearer they give way to it. */
const ALONG = 0.5

/**
 * Turns a hand to where its palm is told to look: fingers that would point there are bent aside,
 * as of a hand that says stop.
 * @param arm the numbers of an arm, which are changed
 */
export function turnPalm(arm: Float64Array, hand: Float64Array): void {
  const told = hand[PALM] as number
  if (told === 0) return
  const long = Math.hypot(
    hand[PALM + 1] as number,
    hand[PALM + 2] as number,
    hand[PALM + 3] as number,
  )
  // Between two ways that are opposite it looks nowhere.
  if (long < 1e-6) return
  let along = 0
  for (let i = 0; i < 3; i++) {
    const way = (hand[PALM + 1 + i] as number) / long
    const looks = arm[ARM.looks + i] as number
    arm[ARM.looks + i] = looks + (way - looks) * told
    along += way * (arm[ARM.fingers + i] as number)
  }
  const over = Math.max(0, Math.abs(along) - ALONG) / (1 - ALONG)
  if (over === 0) return
  // A hand bends up to show its palm in front, down to show it behind, and forward to show it up or down.
  const by = told * over
  const isUpright = Math.abs(hand[PALM + 2] as number) > 0.7 * long
  for (let i = 0; i < 3; i++) {
    const way = (hand[PALM + 1 + i] as number) / long
    const aside = isUpright ? (i === 2 ? 1 : 0) : i === 1 ? Math.sign(along) : 0
    const fingers = arm[ARM.fingers + i] as number
    arm[ARM.fingers + i] = fingers + (aside - along * way) * by
  }
}
