import { countUpTo } from '../time/countUpTo'
import { eased } from './curve'

/** A way from one place to the next: `s` is its share in time, 0 to 1, written into `out`. */
export type WayOf = (s: number, from: Float64Array, out: Float64Array) => void

interface Leg {
  readonly start: number
  readonly end: number
  readonly from: Float64Array
  readonly way: WayOf
}

/**
 * Something that is somewhere and stays there until it is sent on. Each leg begins where the
 * part really is then, so whatever is written after what, nothing ever jumps.
 */
export interface Held {
  readonly begin: Float64Array
  readonly starts: Float64Array
  readonly legs: readonly Leg[]
}

/** A leg before it is known where it begins. */
export interface Sending {
  readonly start: number
  readonly end: number
  readonly way: WayOf
}

/** A way that has less time than this is looked at: it may be faster than any body. */
const HASTY_TICKS = 12

/**
 * @param perTick how far a point, the first three numbers, gets in a tick at the most. A way
 * with less time than that arrives late.
 */
export function heldThrough(
  begin: readonly number[],
  sendings: readonly Sending[],
  perTick = Number.POSITIVE_INFINITY,
): Held {
  const size = begin.length
  const legs: Leg[] = []
  const first = Float64Array.from(begin)
  const sorted = [...sendings].sort((a, b) => a.start - b.start)
  for (const { start, end, way } of sorted) {
    const last = legs.at(-1)
    const from = new Float64Array(size)
    if (last) legAt(last, start, from)
    else from.set(first)
    const needs =
      Number.isFinite(perTick) && end - start < HASTY_TICKS ? lengthOf(from, way) / perTick : 0
    legs.push({ start, end: Math.max(end, start + Math.max(0.5, needs)), from, way })
  }
  return { begin: first, starts: Float64Array.from(legs, ({ start }) => start), legs }
}

/** How long the way of a point is, near enough. */
function lengthOf(from: Float64Array, way: WayOf): number {
  const a = new Float64Array(from.length)
  const b = new Float64Array(from.length)
  let long = 0
  for (let i = 1; i <= 8; i++) {
    way((i - 1) / 8, from, a)
    way(i / 8, from, b)
    long += Math.hypot(
      (b[0] as number) - (a[0] as number),
      (b[1] as number) - (a[1] as number),
      (b[2] as number) - (a[2] as number),
    )
  }
  return long
}

function legAt({ start, end, from, way }: Leg, tick: number, out: Float64Array): void {
  const s = (tick - start) / (end - start)
  way(s < 0 ? 0 : Math.min(s, 1), from, out)
}

/** Writes where it is at a tick. */
export function heldAt(held: Held, tick: number, out: Float64Array): void {
  const next = countUpTo(held.starts, tick)
  const leg = held.legs[next - 1]
  if (leg) legAt(leg, tick, out)
  else out.set(held.begin)
}

/** Straight to a place, at rest at both ends. */
export const straightTo = (to: readonly number[]): WayOf => {
  const goal = Float64Array.from(to)
  return (s, from, out) => {
    const e = eased(s)
    for (let i = 0; i < goal.length; i++) {
      const a = from[i] as number
      out[i] = a + ((goal[i] as number) - a) * e
    }
  }
}

/**
 * Between two places, in passing: on the way from the one before and to the one behind, at rest
 * where there is none.
 * @param before how much of the way from the place before to `to` is the speed at the begin;
 * @param behind how much of the way from `from` to the place behind is the speed at the end.
 */
export function hermite(
  out: Float64Array,
  last: Float64Array | undefined,
  from: Float64Array,
  to: Float64Array,
  next: Float64Array | undefined,
  t: number,
  before: number,
  behind: number,
): void {
  const t2 = t * t
  const t3 = t2 * t
  const ends = 3 * t2 - 2 * t3
  const leaves = (t3 - t2 * 2 + t) * before
  const comes = (t3 - t2) * behind
  for (let i = 0; i < to.length; i++) {
    const a = from[i] as number
    const b = to[i] as number
    let value = a + (b - a) * ends
    if (last) value += leaves * (b - (last[i] as number))
    if (next) value += comes * ((next[i] as number) - a)
    out[i] = value
  }
}

/**
 * Smoothly through places in equal shares of its time, the first of them where the part is: at
 * rest at both ends, and on its way in between (Catmull and Rom 1974).
 */
export const through = (places: readonly ArrayLike<number>[]): WayOf => {
  const points = places.map((place) => Float64Array.from(place))
  const legs = points.length
  return (s, from, out) => {
    const x = s * legs
    const leg = Math.min(legs - 1, Math.floor(x))
    const b = leg === 0 ? from : (points[leg - 1] as Float64Array)
    const c = points[leg] as Float64Array
    const a = leg === 0 ? undefined : leg === 1 ? from : points[leg - 2]
    hermite(out, a, b, c, points[leg + 1], x - leg, 0.5, 0.5)
  }
}

/** The share of a path that leads out to it, and back again (model 5). */
const WAY_OUT = 1 / 8

/**
 * Along a closed curve and back to where it began: the first eighth leads out to the curve,
 * the last one back.
 */
export const around = (
  curve: (s: number, from: Float64Array, out: Float64Array) => void,
): WayOf => {
  return (s, from, out) => {
    curve(s, from, out)
    const on = Math.min(eased(s / WAY_OUT), eased((1 - s) / WAY_OUT))
    for (let i = 0; i < from.length; i++) {
      const a = from[i] as number
      out[i] = a + ((out[i] as number) - a) * on
    }
  }
}
