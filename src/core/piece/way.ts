import type { FloorPoint } from '../body/places'
import { middleOf } from '../simulate/landing'
import type { Simulation } from '../simulate/simulate'
import { plus } from './drawn'

/** Where a dancer's middle is at a tick, in the room of the piece, and where she faces. */
export interface WayPoint extends FloorPoint {
  readonly at: number
  /** Degrees clockwise from above, unwrapped. */
  readonly facing: number
}

/** The way of a dancer's middle: straight, in even time, from one thing her feet do to the next. */
export type Way = readonly WayPoint[]

/** The way of a dance that begins at a place of the room. */
export function wayOf({ start, slices, house }: Simulation, from: FloorPoint): Way {
  const { landing } = house
  const first = slices[0]?.danced[0]?.at ?? 0
  const points: WayPoint[] = [
    { at: Math.min(0, first), ...plus(middleOf(start, landing), from), facing: start.facing },
  ]
  for (const { danced, pass, exit } of slices) {
    let last = points.at(-1)
    for (const { at, after } of danced) {
      last = { at, ...plus(middleOf(after, landing), from), facing: after.facing }
      points.push(last)
    }
    // Where a pass is over the weight may have settled, and the middle with it.
    const settled = plus(middleOf(exit, landing), from)
    if (last && (last.right !== settled.right || last.forward !== settled.forward))
      points.push({ at: pass.at + pass.length, ...settled, facing: exit.facing })
  }
  return points
}

/** How many points of a way are not behind a tick: a search by halves. */
function behind(way: Way, tick: number): number {
  let low = 0
  let high = way.length
  while (low < high) {
    const middle = (low + high) >> 1
    if ((way[middle]?.at ?? 0) <= tick) low = middle + 1
    else high = middle
  }
  return low
}

/** The ticks strictly between two at which a way bends. */
export const bendsIn = (way: Way, from: number, to: number): readonly number[] => {
  const ticks: number[] = []
  for (let i = behind(way, from); (way[i]?.at ?? to) < to; i++) ticks.push(way[i]?.at ?? to)
  return ticks
}

/** Where somebody is on her way at a tick. */
export function placeAt(way: Way, tick: number): WayPoint {
  const next = behind(way, tick)
  const before = way[Math.max(0, next - 1)]
  const after = way[next]
  if (!before) throw new Error('a way has a beginning')
  if (!after || next <= 0) return { ...before, at: tick }
  const share = (tick - before.at) / (after.at - before.at)
  const mix = (a: number, b: number) => a + (b - a) * share
  return {
    at: tick,
    right: mix(before.right, after.right),
    forward: mix(before.forward, after.forward),
    facing: mix(before.facing, after.facing),
  }
}
