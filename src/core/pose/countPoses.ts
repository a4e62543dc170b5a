import type { Layer } from '../body/layers'
import type { Pass } from '../combination/passes'
import { ONLY_PART, type PartId } from '../combination/whose'
import type { Company } from '../simulate/company'
import type { Simulation } from '../simulate/simulate'
import { TICKS_PER_COUNT } from '../time/time'
import { dancerOf } from './dancer'
import type { Pose } from './joints'
import { keyPosesOf } from './keyPoses'

/** Of the counts of a pass so many are worth a picture. */
const WORTH = 0.75

/** The counts of a pass, from 1, whose poses tell most, each with its pose; so many of them at the most. */
export function posesByCount(
  simulation: Simulation,
  pass: Pass,
  layers: ReadonlySet<Layer>,
  most = Math.ceil((pass.length / TICKS_PER_COUNT) * WORTH),
): ReadonlyMap<number, Pose> {
  const dancer = dancerOf(simulation, { layers })
  const shown = keyPosesOf(dancer, pass, TICKS_PER_COUNT, most)
  return new Map(shown.map(({ tick, pose }) => [(tick - pass.at) / TICKS_PER_COUNT + 1, pose]))
}

/** The poses of each part, by its counts from 1. */
export type KeyPoses = ReadonlyMap<PartId, ReadonlyMap<number, Pose>>

/** The key poses of one who dances alone, or of all who dance together. */
export const keyPosesOfAll = (
  company: Company | undefined,
  simulation: Simulation,
  pass: Pass,
  layers: ReadonlySet<Layer>,
): KeyPoses =>
  new Map(
    (company?.dancers ?? [{ part: ONLY_PART, simulation }]).flatMap(({ part, simulation: own }) => {
      const its = own.passes[pass.index]
      return its ? [[part, posesByCount(own, its, layers)]] : []
    }),
  )
