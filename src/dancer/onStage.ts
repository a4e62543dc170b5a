import type { Layer } from '../core/body/layers'
import type { CarriedShape } from '../core/pose/carrying'
import type { Dancer } from '../core/pose/dancer'
import type { Pose } from '../core/pose/joints'
import type { Before } from '../core/skin/hang'
import type { BodyColours } from './body'

/** The colours of the stage, as CSS writes them. */
export interface StageColours {
  readonly body: BodyColours
  readonly air: string
  readonly floor: string
  readonly line: string
  readonly ink: string
  /** Of the parts of a combination for several, in their order. */
  readonly parts: readonly string[]
}

/** What one figure of a frame shows. */
export interface OnStage {
  readonly pose: Pose
  /** The same dancer so many ticks before: what hangs on her comes from there. */
  readonly before: Before | undefined
  readonly ticksASecond: number
  /** Where it stands beside the other one, in metres to the right. */
  readonly aside: number
  /** How tall she is against 1.65 m, where that is not as the others are. */
  readonly scale?: number | undefined
  /** Which of several dancers it is. */
  readonly part?: Dancer['part']
  /** It is she who looks: the others are seen through her eyes, and she is not. */
  readonly isViewer?: boolean
  readonly trails: readonly Trail[]
  /** What she has in her hands, or wears. */
  readonly carried: readonly CarriedShape[]
  readonly ghost: Pose | undefined
}

/** The way a part of the body has come: points, the newest last, three numbers each; in the room like the pose. */
export interface Trail {
  readonly points: Float64Array
  readonly layer: Layer
}
