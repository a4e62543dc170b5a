import { useMemo } from 'react'
import type { Layer } from '../../core/body/layers'
import type { Pass } from '../../core/combination/passes'
import { ONLY_PART, type PartId } from '../../core/combination/whose'
import type { Piece } from '../../core/piece/piece'
import { dancerOf } from '../../core/pose/dancer'
import type { Pose } from '../../core/pose/joints'
import { keyPosesOf } from '../../core/pose/keyPoses'
import type { Simulation } from '../../core/simulate/simulate'
import { TICKS_PER_COUNT } from '../../core/time/time'

/** The counts of a pass, from 1, whose poses tell most, each with its pose. */
export function posesByCount(
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

/** The key poses of one who dances alone, or of all in a piece, for as long as nothing of it changes. */
export const useKeyPoses = (
  piece: Piece | undefined,
  simulation: Simulation,
  pass: Pass | undefined,
  layers: ReadonlySet<Layer>,
): KeyPoses =>
  useMemo(() => {
    if (!pass) return new Map()
    if (!piece) return new Map([[ONLY_PART, posesByCount(simulation, pass, layers)]])
    return new Map(
      piece.placed.flatMap(({ part, simulation: own }) => {
        const its = own.passes[pass.index]
        return its ? [[part.id, posesByCount(own, its, layers)]] : []
      }),
    )
  }, [piece, simulation, pass, layers])
