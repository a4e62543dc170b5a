import { eased } from './curve'

/**
 * Something that is added to a channel for a while and is gone again afterwards: an accent, a
 * texture, a wave. Times in ticks from the start of the combination.
 */
export interface Swing {
  readonly channel: number
  readonly amount: number
  readonly start: number
  readonly end: number
  readonly shape: Peak | Oscillation | Pulse
}

/** Out to its peak exactly on its tick, and back. */
interface Peak {
  readonly kind: 'peak'
  readonly peak: number
}

/** Round and round, from nothing and back to nothing. */
interface Oscillation {
  readonly kind: 'oscillation'
  readonly perTick: number
  /** Turns ahead of a sine that starts at 0 going up. */
  readonly ahead: number
  /** Ticks it takes to come in and to go out. */
  readonly ramp: number
}

/** One push there and back again, and a smaller one the other way. */
interface Pulse {
  readonly kind: 'pulse'
}

/** What a swing adds at a tick within it. */
function swingAt({ amount, start, end, shape }: Swing, tick: number): number {
  if (tick <= start || tick >= end) return 0
  switch (shape.kind) {
    case 'peak':
      return (
        amount *
        (tick < shape.peak
          ? eased((tick - start) / (shape.peak - start))
          : 1 - eased((tick - shape.peak) / (end - shape.peak)))
      )
    case 'oscillation': {
      const round = (tick - start) * shape.perTick + shape.ahead
      const swing = amount * Math.sin(2 * Math.PI * round)
      if (shape.ramp === 0) return swing
      return swing * eased((tick - start) / shape.ramp) * eased((end - tick) / shape.ramp)
    }
    case 'pulse': {
      const u = (tick - start) / (end - start)
      return amount * 1.3 * Math.sin(2 * Math.PI * u) * Math.sin(Math.PI * u)
    }
  }
}

const BUCKET = 12

/** Swings put where they are found at once: by the count they are in. */
export interface Swings {
  readonly from: number
  readonly buckets: readonly (readonly Swing[])[]
}

export function inBuckets(swings: readonly Swing[]): Swings {
  const from = Math.floor(Math.min(0, ...swings.map(({ start }) => start)) / BUCKET)
  const to = Math.floor(Math.max(0, ...swings.map(({ end }) => end)) / BUCKET)
  const buckets: Swing[][] = Array.from({ length: to - from + 1 }, () => [])
  for (const swing of swings)
    for (let i = Math.floor(swing.start / BUCKET); i <= Math.floor(swing.end / BUCKET); i++)
      buckets[i - from]?.push(swing)
  return { from, buckets }
}

const NONE: readonly Swing[] = []

/** Adds what swings at a tick. */
export function addSwings({ from, buckets }: Swings, tick: number, channels: Float64Array): void {
  const here = buckets[Math.floor(tick / BUCKET) - from] ?? NONE
  for (let i = 0; i < here.length; i++) {
    const swing = here[i] as Swing
    channels[swing.channel] = (channels[swing.channel] as number) + swingAt(swing, tick)
  }
}
