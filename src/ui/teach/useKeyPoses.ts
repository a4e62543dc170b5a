import { useMemo } from 'react'
import type { Layer } from '../../core/body/layers'
import type { Pass } from '../../core/combination/passes'
import { type KeyPoses, keyPosesOfAll } from '../../core/pose/countPoses'
import type { Company } from '../../core/simulate/company'
import type { Simulation } from '../../core/simulate/simulate'

/** The key poses of all who dance a pass, for as long as nothing of it changes. */
export const useKeyPoses = (
  company: Company | undefined,
  simulation: Simulation,
  pass: Pass | undefined,
  layers: ReadonlySet<Layer>,
): KeyPoses =>
  useMemo(
    () => (pass ? keyPosesOfAll(company, simulation, pass, layers) : new Map()),
    [company, simulation, pass, layers],
  )
