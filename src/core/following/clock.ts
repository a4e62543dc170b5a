/**
 * The clock of a server, told apart from one's own by pings: each one bounds the offset, since what
 * the server said was said after it was asked and before it was heard. All times are in
 * milliseconds; an offset is the server's clock less one's own.
 */
export interface ServerClock {
  /** A ping came back. @param asked and heard on one's own clock @param said on the server's */
  readonly heard: (asked: number, said: number, heard: number) => void
  /** Between which the offset lies at a moment of one's own clock. */
  readonly bounds: (own: number) => { readonly low: number; readonly high: number }
  /** The server's clock at a moment of one's own; undefined before the first ping came back. */
  readonly at: (own: number, isDanced: boolean) => number | undefined
}

/** Bounds older than this are forgotten. */
const KEPT_MS = 120_000
/** Two clocks part by so much at the most, as a share of the time that went by. */
const DRIFT = 50e-6
/** A correction over this glides in while somebody dances. */
const JUMP_MS = 20
const GLIDE_MS = 1000

/** What one ping told. */
interface Bound {
  readonly heard: number
  readonly low: number
  readonly high: number
}

/** The narrowest bounds at a moment, older ones widened by what the clocks may have drifted. */
function boundsAt(bounds: readonly Bound[], own: number): { low: number; high: number } {
  let low = Number.NEGATIVE_INFINITY
  let high = Number.POSITIVE_INFINITY
  for (const bound of bounds) {
    const drift = Math.abs(own - bound.heard) * DRIFT
    low = Math.max(low, bound.low - drift)
    high = Math.min(high, bound.high + drift)
  }
  return { low, high }
}

export function serverClock(): ServerClock {
  let bounds: readonly Bound[] = []
  /** What is shown: it glides from an old offset to a new one. */
  let from = 0
  let since = Number.NEGATIVE_INFINITY
  let to: number | undefined
  const shownAt = (own: number): number | undefined => {
    if (to === undefined) return undefined
    const share = Math.min(1, Math.max(0, (own - since) / GLIDE_MS))
    return from + (to - from) * share
  }
  let target: number | undefined
  return {
    heard(asked, said, heard) {
      // The clocks part also while the ping is under way.
      const drift = (heard - asked) * DRIFT
      const bound = { heard, low: said - heard - drift, high: said - asked + drift }
      bounds = [...bounds.filter((one) => heard - one.heard < KEPT_MS), bound]
      let { low, high } = boundsAt(bounds, heard)
      // A clock that was set anew contradicts what was told before.
      while (low > high && bounds.length > 1) {
        bounds = bounds.slice(1)
        ;({ low, high } = boundsAt(bounds, heard))
      }
      target = (low + high) / 2
    },
    bounds: (own) => boundsAt(bounds, own),
    at(own, isDanced) {
      if (target === undefined) return undefined
      if (target !== to) {
        const shown = shownAt(own)
        const isFar = shown !== undefined && Math.abs(target - shown) > JUMP_MS
        from = isFar && isDanced ? shown : target
        since = own
        to = target
      }
      return own + (shownAt(own) ?? target)
    },
  }
}

/** So many pings at once, then so many over some seconds, then one again and again: it also tells that the line is there. */
const AT_ONCE = 8
const SOON = { pings: 32, ms: 7000 }
const LATER_MS = 2500

/** Milliseconds to wait before a ping. @param sent how many were sent before it on this connection */
export function pingAfter(sent: number): number {
  if (sent < AT_ONCE) return 0
  if (sent < AT_ONCE + SOON.pings) return SOON.ms / SOON.pings
  return LATER_MS
}
