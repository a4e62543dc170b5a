import type { Side } from '../body/side'
import type { FeetNow } from './steps'

/** Everything one pose is worked out with; kept, so that no frame makes anything new. */
export interface Scratch {
  readonly channels: Float64Array
  readonly hips: Float64Array
  readonly ribs: Float64Array
  readonly head: Float64Array
  /** Degrees by which each leg is turned out at the hip; in where it is below 0. */
  readonly legs: Readonly<Record<Side, Float64Array>>
  /** What the trunk and the shoulders are held at: amounts of `HELD_CHANNELS`. */
  readonly posture: Float64Array
  readonly arms: Readonly<Record<Side, Float64Array>>
  readonly hands: Readonly<Record<Side, Float64Array>>
  /** Which arm lies over the other: 1 the right one, -1 the left one. */
  readonly over: Float64Array
  readonly feet: FeetNow
  readonly foot: Float64Array
}
