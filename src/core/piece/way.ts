import type { FloorPoint } from '../body/places'
import type { House } from '../house/house'
import { remembered } from '../record/remembered'
import { middleOf } from '../simulate/landing'
import type { Simulation, Slice } from '../simulate/simulate'
import type { BodyState } from '../simulate/state'
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
export function wayOf(simulation: Simulation, from: FloorPoint): Way {
  const { slices, house } = simulation
  const points = [...wayBegins(simulation, from)]
  for (const slice of slices) for (const point of wayIn(slice, { house, from })) points.push(point)
  return points
}

/** Where a way begins, before the first thing the feet do. */
export function wayBegins({ start, slices, passes, house }: Simulation, from: FloorPoint): Way {
  const first = slices[0]?.danced[0]?.at ?? 0
  const comesIn = passes[0]?.at ?? 0
  const points: WayPoint[] = [
    {
      at: Math.min(0, first),
      ...plus(middleOf(start, house.landing), from),
      facing: start.facing,
    },
  ]
  // Who comes in later stands until then.
  const [stands] = points
  if (stands && comesIn > 0) points.push({ ...stands, at: Math.min(comesIn, first) })
  return points
}

interface In {
  readonly house: House
  readonly from: FloorPoint
}

/** The way through one dancing of a phrase; the same for as long as it is danced the same. */
export const wayIn = remembered(
  ({ entry, danced, pass, exit }: Slice, { house, from }: In): Way => {
    const placed = (at: number, state: BodyState): WayPoint => ({
      at,
      ...plus(middleOf(state, house.landing), from),
      facing: state.facing,
    })
    const points = danced.map(({ at, after }) => placed(at, after))
    const last = points.at(-1) ?? placed(pass.at, entry)
    // Where a pass is over the weight may have settled, and the middle with it.
    const settled = placed(pass.at + pass.length, exit)
    return last.right === settled.right && last.forward === settled.forward
      ? points
      : [...points, settled]
  },
  (a, b) =>
    a.house === b.house && a.from.right === b.from.right && a.from.forward === b.from.forward,
)

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

/** Where somebody is just before a tick: what lands on it belongs to the count behind. */
export function placeBefore(way: Way, tick: number): WayPoint {
  let last = behind(way, tick) - 1
  while (last > 0 && way[last]?.at === tick) last -= 1
  const point = way[Math.max(0, last)]
  if (!point) throw new Error('a way has a beginning')
  return { ...point, at: tick }
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
