import { secondsOfTicks, type Tempo, ticksOfSeconds } from './tempo'

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
