import type { Side } from '../body/side'
import { courseOf, type Run, returnsOf } from '../simulate/course'
import type { Simulation } from '../simulate/simulate'
import type { Places } from '../what/places'
import { type Sending, straightTo } from './held'
import { timeBack, timeOf } from './isolations'

/** Where a part is sent, by what is written and by itself. */
interface Sent<P> {
  /** Which of a pair. */
  readonly side?: Side
  readonly to: (run: Run) => P | undefined
  readonly back: (places: Places) => P
  /** What it is held at there. */
  readonly held: (place: P) => readonly number[]
}

/** Where a part of the body, or one of a pair, is sent through a simulation; nowhere where it is not shown. */
export function sendingsOf<P>(
  simulation: Simulation | undefined,
  part: keyof Places,
  { side, to, back, held }: Sent<P>,
): readonly Sending[] {
  if (!simulation) return []
  const sent = courseOf(simulation).flatMap((run): readonly Sending[] => {
    const place = to(run)
    return place === undefined
      ? []
      : [{ ...timeOf(run, simulation.time), way: straightTo(held(place)) }]
  })
  const gone = returnsOf(simulation).flatMap((one): readonly Sending[] =>
    one.part === part && (side === undefined || one.sides.includes(side))
      ? [{ ...timeBack(one.at), way: straightTo(held(back(one.after))) }]
      : [],
  )
  return [...sent, ...gone]
}
