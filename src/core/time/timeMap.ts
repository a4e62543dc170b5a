import { countUpTo } from './countUpTo'
import { clampTempo, secondsOfTicks, type Tempo, tempoOfTicks, ticksOfSeconds } from './tempo'

/** How the ticks of something that is danced go by on a clock. Ticks and seconds need not be whole. */
export interface TimeMap {
  /** Seconds from tick 0; below 0 before it. */
  readonly secondsAt: (tick: number) => number
  readonly tickAt: (seconds: number) => number
  /** Counts a minute that hold at a tick. */
  readonly tempoAt: (tick: number) => Tempo
}

const known = new Map<Tempo, TimeMap>()

/** One tempo from start to end, before and after too; the very same map for the same tempo. */
export function steady(tempo: Tempo): TimeMap {
  const made = known.get(tempo) ?? {
    secondsAt: (tick: number) => secondsOfTicks(tick, tempo),
    tickAt: (seconds: number) => ticksOfSeconds(seconds, tempo),
    tempoAt: () => tempo,
  }
  known.set(tempo, made)
  return made
}

/** A moment at which a tick is heard, in seconds. */
export interface Knot {
  readonly tick: number
  readonly seconds: number
}

/**
 * A time that may drift: straight from knot to knot, and on at the pace of the first and the last
 * of them.
 * @param knots two or more, both numbers rising
 */
export function beaten(knots: readonly Knot[]): TimeMap {
  const ticks = Float64Array.from(knots, ({ tick }) => tick)
  const seconds = Float64Array.from(knots, (knot) => knot.seconds)
  const last = knots.length - 2
  if (last < 0) throw new Error('one moment alone has no pace')
  // Who asks goes on from where they were, nearly always.
  let known = 0
  const stretchAt = (values: Float64Array, value: number): number => {
    const isIn = (i: number) =>
      (i === 0 || (values[i] as number) <= value) &&
      (i === last || value < (values[i + 1] as number))
    if (!isIn(known)) known = Math.min(last, Math.max(0, countUpTo(values, value) - 1))
    return known
  }
  const pace = (i: number) =>
    ((seconds[i + 1] as number) - (seconds[i] as number)) /
    ((ticks[i + 1] as number) - (ticks[i] as number))
  return {
    secondsAt(tick) {
      const i = stretchAt(ticks, tick)
      return (seconds[i] as number) + (tick - (ticks[i] as number)) * pace(i)
    },
    tickAt(at) {
      const i = stretchAt(seconds, at)
      return (ticks[i] as number) + (at - (seconds[i] as number)) / pace(i)
    },
    tempoAt: (tick) => tempoOfTicks(1, pace(stretchAt(ticks, tick))),
  }
}

/** The same, heard slower or faster. @param rate of how it is written, 0.4 to 1.2 */
export const slowed = (map: TimeMap, rate: number): TimeMap => ({
  secondsAt: (tick) => map.secondsAt(tick) / rate,
  tickAt: (seconds) => map.tickAt(seconds * rate),
  tempoAt: (tick) => map.tempoAt(tick) * rate,
})

/** The time of a part on its own ticks: both begin at 0 there. */
export function startingAt(map: TimeMap, from: number): TimeMap {
  const begin = map.secondsAt(from)
  return {
    secondsAt: (tick) => map.secondsAt(tick + from) - begin,
    tickAt: (seconds) => map.tickAt(seconds + begin) - from,
    tempoAt: (tick) => map.tempoAt(tick + from),
  }
}

/** The mean tempo of some ticks; where there are none, the tempo there. */
export const tempoOver = (map: TimeMap, from: number, to: number): number =>
  to <= from ? map.tempoAt(from) : tempoOfTicks(to - from, secondsBetween(map, from, to))

/** The mean tempo of all of something from its start, as a tempo is written. */
export const tempoInAll = (map: TimeMap, length: number): Tempo =>
  clampTempo(tempoOver(map, 0, length))

/** The seconds between two ticks. */
export const secondsBetween = ({ secondsAt }: TimeMap, from: number, to: number): number =>
  secondsAt(to) - secondsAt(from)

/** The ticks that go by in some seconds, from a tick on; backwards where they are below 0. */
export const ticksFrom = (time: TimeMap, from: number, seconds: number): number =>
  time.tickAt(time.secondsAt(from) + seconds) - from

/** A stretch with a time of its own, from its own tick 0. */
interface Timed {
  readonly length: number
  readonly time: TimeMap
}

/** Stretches one after the other, each in its own time; the last one's goes on behind them. */
export function inTurn(stretches: readonly Timed[]): TimeMap {
  let tick = 0
  let seconds = 0
  const begun = stretches.map(({ length, time }) => {
    const begins = { tick, seconds, time }
    tick += length
    seconds += secondsBetween(time, 0, length)
    return begins
  })
  const first = begun[0]
  if (!first) throw new Error('nothing has no time')
  const of = (key: 'tick' | 'seconds', value: number) =>
    begun.findLast((one) => one[key] <= value) ?? first
  return {
    secondsAt(at) {
      const { tick, seconds, time } = of('tick', at)
      return seconds + secondsBetween(time, 0, at - tick)
    },
    tickAt(at) {
      const { tick, seconds, time } = of('seconds', at)
      return tick + time.tickAt(time.secondsAt(0) + at - seconds)
    },
    tempoAt(at) {
      const { tick, time } = of('tick', at)
      return time.tempoAt(at - tick)
    },
  }
}

/** A moment that is known on the clock, and the time that goes by from there. */
export interface Anchor {
  /** On the clock. */
  readonly seconds: number
  /** May lie between two whole ones. */
  readonly tick: number
  readonly time: TimeMap
}

/** When a tick is due; always from the anchor, never by summing up, so nothing drifts. */
export const clockAt = ({ seconds, tick, time }: Anchor, at: number): number =>
  seconds + secondsBetween(time, tick, at)

/** The tick that is due at a moment of the clock. */
export const tickDue = ({ seconds, tick, time }: Anchor, clock: number): number =>
  time.tickAt(time.secondsAt(tick) + clock - seconds)
