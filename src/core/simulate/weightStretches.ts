import { z } from 'zod'
import { Weight } from '../body/side'
import { type Simulation, stateBefore } from './simulate'

/** A stretch of one weight; `broken` when the weight logic breaks at its start. */
export const Stretch = z
  .object({ from: z.int(), to: z.int(), weight: Weight, broken: z.boolean() })
  .readonly()
export type Stretch = z.infer<typeof Stretch>

/** The weight over some ticks of a dance; the first stretch begins `leadIn` ticks early. */
export function weightStretches(
  simulation: Simulation,
  from: number,
  to: number,
  leadIn: number,
): readonly Stretch[] {
  const list: Stretch[] = []
  let begin = from - leadIn
  let weight = stateBefore(simulation, from).weight
  let broken = false
  const shift = (at: number, now: Weight, isBroken: boolean) => {
    if (at < from || at >= to || (now === weight && !isBroken)) return
    list.push({ from: begin, to: at, weight, broken })
    begin = at
    weight = now
    broken = isBroken
  }
  for (const { danced, pass, exit } of simulation.slices) {
    for (const { at, after, fault } of danced) shift(at, after.weight, fault !== undefined)
    // Where a pass is over the weight may have settled.
    shift(pass.at + pass.length, exit.weight, false)
  }
  return [...list, { from: begin, to, weight, broken }]
}
