import { useMemo } from 'react'
import type { Layer } from '../../core/body/layers'
import type { Pass } from '../../core/combination/passes'
import { ONLY_PART, type PartId } from '../../core/combination/whose'
import { dancerOf } from '../../core/pose/dancer'
import type { Pose } from '../../core/pose/joints'
import { keyPosesOf } from '../../core/pose/keyPoses'
import type { Company } from '../../core/simulate/company'
import type { Simulation } from '../../core/simulate/simulate'
import { TICKS_PER_COUNT } from '../../core/time/time'

/** The counts of a pass, from 1, whose poses tell most, each with its pose. */
function posesByCount(
  simulation: Simulation,
  pass: Pass,
  layers: ReadonlySet<Layer>,
): ReadonlyMap<number, Pose> {
  const counts = pass.length / TICKS_PER_COUNT
  const dancer = dancerOf(simulation, { layers })
  const shown = keyPosesOf(dancer, pass, TICKS_PER_COUNT, Math.ceil(counts * 0.75))
  return new Map(shown.map(({ tick, pose }) => [(tick - pass.at) / TICKS_PER_COUNT + 1, pose]))
}

/** The poses of each part, by its counts from 1. */
export type KeyPoses = ReadonlyMap<PartId, ReadonlyMap<number, Pose>>

/** The key poses of one who dances alone, or of all who dance together. */
export const keyPoses = (
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

/** The same, for as long as nothing of it changes. */
export const useKeyPoses = (
  company: Company | undefined,
  simulation: Simulation,
  pass: Pass | undefined,
  layers: ReadonlySet<Layer>,
): KeyPoses =>
  useMemo(
    () => (pass ? keyPoses(company, simulation, pass, layers) : new Map()),
    [company, simulation, pass, layers],
  )
