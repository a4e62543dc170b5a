import { LAYERS, type Layer } from '../body/layers'
import type { FloorPoint } from '../body/places'
import { SIDES } from '../body/side'
import type { PartId } from '../combination/whose'
import type { Simulation } from '../simulate/simulate'
import { crossOver, hang } from './arm'
import { ARM_SIZE } from './armPlaces'
import { armsOf } from './arms'
import { armAt, at, CHANNELS, ISOLATED } from './channels'
import { bentBack, HAND_SIZE, handsOf, turnPalm } from './hands'
import { heldAt } from './held'
import { isolationsOf } from './isolations'
import { copyInto, newPose, type Pose, TOLD_SHAPES } from './joints'
import { PATH_SIZE } from './paths'
import { addPosture, POSTURE_SIZE, postureOf } from './posture'
import type { Scratch } from './scratch'
import { feetAt, feetNow, stepsOf } from './steps'
import { addSwings, inBuckets } from './swings'
import { standUp } from './trunk'
/** A combination on one side, ready to be seen at any tick. */
export interface Dancer {
  readonly simulation: Simulation
  /**
   * The body at a tick from the start of the combination; ticks need not be whole, and those
   * before 0 are the count-in and the pickup. The same for a tick however it is reached.
   * @param into a pose to write into; a new one is made where none is given.
   */
  readonly poseAt: (tick: number, into?: Pose) => Pose
  readonly options: DancerOptions
  /** Of several dancers: her place among the parts, and what she is called. */
  readonly part?: { readonly id: PartId; readonly index: number; readonly name: string } | undefined
  /** Where she stands in the room on count 1, where that is not its middle. */
  readonly at?: FloorPoint
}

/** A dancer who is asked for the same tick more than once, and is posed for it once. */
export function askedOften(dancer: Dancer): Dancer {
  const last = newPose()
  let at = Number.NaN
  return {
    ...dancer,
    poseAt(tick, into = newPose()) {
      if (tick !== at) dancer.poseAt(tick, last)
      at = tick
      copyInto(into, last)
      return into
    },
  }
}

export interface DancerOptions {
  /** The layers that move; all others stay as they start. */
  readonly layers?: ReadonlySet<Layer>
  /** Body height against the 1.65 m everything is written for: longer legs, longer steps. */
  readonly scale?: number
  /**
   * How much larger than it is danced an isolation is shown, 1 to 1.6: hips, ribs, waist and
   * shoulders go farther, the feet stay where they are.
   */
  readonly clearer?: number
}

/** An isolation is shown at most so much larger. */
export const CLEAREST = 1.6

const ALL: ReadonlySet<Layer> = new Set(LAYERS)
/** Makes a simulation ready to be seen. */
export function dancerOf(simulation: Simulation, options: DancerOptions = {}): Dancer {
  const { layers = ALL, scale = 1, clearer = 1 } = options
  const shownFeet = layers.has('feet') ? simulation : { ...simulation, danced: [] }
  const steps = stepsOf(shownFeet)
  const isolations = isolationsOf(simulation, layers)
  const posture = postureOf(simulation, layers)
  // Upright, level and at home add nothing.
  const isHeld = [
    posture.trunk,
    posture.shoulders.R,
    posture.shoulders.L,
    posture.legs.R,
    posture.legs.L,
  ].some(({ starts }) => starts.length > 0)
  const arms = armsOf(simulation, layers.has('arms'))
  const hands = handsOf(simulation, layers.has('arms'))
  const swings = inBuckets([...isolations.swings, ...arms.swings])
  const own: Scratch = {
    channels: new Float64Array(CHANNELS),
    hips: new Float64Array(PATH_SIZE),
    ribs: new Float64Array(PATH_SIZE),
    head: new Float64Array(3),
    posture: new Float64Array(POSTURE_SIZE),
    legs: { R: new Float64Array(1), L: new Float64Array(1) },
    arms: { R: new Float64Array(ARM_SIZE), L: new Float64Array(ARM_SIZE) },
    hands: { R: new Float64Array(HAND_SIZE), L: new Float64Array(HAND_SIZE) },
    over: new Float64Array(1),
    feet: feetNow(),
    foot: new Float64Array(4),
  }
  // Parts of one row of numbers, each written by itself.
  const trunk = own.posture.subarray(0, POSTURE_SIZE - 4)
  const shoulderR = own.posture.subarray(POSTURE_SIZE - 4, POSTURE_SIZE - 2)
  const shoulderL = own.posture.subarray(POSTURE_SIZE - 2)
  return {
    simulation,
    options,
    poseAt(tick, pose = newPose()) {
      own.channels.fill(0)
      addSwings(swings, tick, own.channels)
      heldAt(isolations.hips, tick, own.hips)
      heldAt(isolations.ribs, tick, own.ribs)
      heldAt(isolations.head, tick, own.head)
      if (clearer !== 1) makeClearer(own, clearer)
      if (isHeld) {
        heldAt(posture.trunk, tick, trunk)
        heldAt(posture.shoulders.R, tick, shoulderR)
        heldAt(posture.shoulders.L, tick, shoulderL)
        addPosture(own.posture, own.channels)
        for (const side of SIDES) heldAt(posture.legs[side], tick, own.legs[side])
      } else for (const side of SIDES) own.legs[side][0] = 0
      for (const side of SIDES) {
        const turned = own.channels[at[`leg${side}.turn`]] as number
        own.legs[side][0] = (own.legs[side][0] as number) + turned
      }
      feetAt(steps, tick, own.feet)
      standUp(pose, own)
      for (const side of SIDES) heldAt(arms.held[side], tick, own.arms[side])
      heldAt(hands.over, tick, own.over)
      crossOver(own.arms, own.over[0] as number)
      pose.hands.fill(0)
      if (hands.isTold)
        for (const [i, side] of SIDES.entries()) {
          const hand = own.hands[side]
          heldAt(hands.held[side], tick, hand)
          turnPalm(own.arms[side], hand)
          const bend = armAt[side].bendUp
          own.channels[bend] = (own.channels[bend] as number) + bentBack(hand)
          for (let k = 0; k < TOLD_SHAPES.length; k++)
            pose.hands[i * TOLD_SHAPES.length + k] = hand[k] as number
        }
      for (const side of SIDES) hang(pose, own, side)
      if (scale !== 1) {
        const { joints, over } = pose
        for (let i = 0; i < joints.length; i++) joints[i] = (joints[i] as number) * scale
        over[0] = (over[0] as number) * scale
        over[1] = (over[1] as number) * scale
      }
      return pose
    },
  }
}

function makeClearer({ hips, ribs, channels }: Scratch, by: number): void {
  for (const path of [hips, ribs])
    for (let i = 0; i < path.length; i++) path[i] = (path[i] as number) * by
  for (const at of ISOLATED) channels[at] = (channels[at] as number) * by
}
