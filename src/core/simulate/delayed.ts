import type { Pass } from '../combination/passes'
import { remembered } from '../record/remembered'
import { type Tick, tick } from '../time/time'
import type { DancedStep, Simulation, Slice } from './simulate'

/**
 * A dance that begins so many ticks later, on the clock of those who do not wait: until then she
 * stands as she starts. The very same where there is nothing to wait for, and the same each time.
 */
export const delayed = (simulation: Simulation, by: number = 0): Simulation =>
  by === 0 ? simulation : shifted(simulation, tick(by))

const shifted = remembered((simulation: Simulation, by: Tick): Simulation => {
  const slices = simulation.slices.map((slice) => sliceLater(slice, by))
  const passes = simulation.passes.map((pass) => passLater(pass, by))
  return { ...simulation, passes, slices, danced: slices.flatMap(({ danced }) => danced) }
})

const passLater = remembered((pass: Pass, by: Tick): Pass => ({ ...pass, at: tick(pass.at + by) }))

const sliceLater = remembered((slice: Slice, by: Tick): Slice => {
  const pass = passLater(slice.pass, by)
  return {
    ...slice,
    pass,
    danced: slice.danced.map(
      (step): DancedStep => ({ ...step, at: tick(step.at + by), pass: passLater(step.pass, by) }),
    ),
  }
})
