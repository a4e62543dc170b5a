import type { Layer } from '../body/layers'
import type { Combination } from '../combination/combination'
import type { Dancing } from '../combination/dancing'
import type { Danced } from '../simulate/danced'
import { type CarriedShape, type Carrying, carryingOf } from './carrying'
import { type Dancers, dancersOf } from './dancers'
import type { Pose } from './joints'

/** A dance as it is drawn flat, one frame after the other: what is asked for again and again is made once. */
export interface SeenDance {
  readonly dancers: (layers: readonly Layer[]) => Dancers
  /** The others at a tick, as they stand from her; the same objects each time. */
  readonly othersAt: (
    dancing: Dancing,
    tick: number,
    pose: Pose,
    layers: readonly Layer[],
  ) => readonly Pose[]
  /** What is carried or worn at a tick of a side's dance, with the pose it is there in; the same objects each time. */
  readonly carriedAt: (
    dancing: Dancing,
    tick: number,
    pose: Pose,
    layers: readonly Layer[],
  ) => readonly CarriedShape[]
}

export function seenDance(from: Danced['from'], combination: Combination): SeenDance {
  // Who begins later than the others is drawn by herself, on her own clock.
  const isInStep = combination.parts?.every(({ delay }) => delay === undefined) === true
  const piece = isInStep ? combination : undefined
  const dancers = new Map<string, Dancers>()
  const poses: Pose[] = []
  const carryings = new Map<string, Carrying | undefined>()
  const carryingOn = (dancing: Dancing): Carrying | undefined => {
    const key = `${dancing.side} ${dancing.part}`
    if (!carryings.has(key)) carryings.set(key, carryingOf(from(dancing)))
    return carryings.get(key)
  }
  const dancersFor = (layers: readonly Layer[]): Dancers => {
    const key = layers.join()
    const known = dancers.get(key) ?? dancersOf(from, { layers: new Set(layers) }, piece)
    dancers.set(key, known)
    return known
  }
  return {
    dancers: dancersFor,
    othersAt(dancing, now, pose, layers) {
      if (!piece) return []
      const together = dancersFor(layers).together(dancing)
      const others = together.filter((one) => one.part?.id !== dancing.part)
      return others.map((one, i) => {
        const other = one.poseAt(now, poses[i])
        poses[i] = other
        // Seen from where she is.
        other.over.set(pose.over)
        return other
      })
    },
    carriedAt(dancing, now, pose, layers) {
      const carrying = carryingOn(dancing)
      const dancer = dancersFor(layers)(dancing)
      carrying?.at(now, pose, (before, into) => dancer.poseAt(now - before, into))
      return carrying?.shapes ?? []
    },
  }
}
