/** A way through places that go round: at each moment one on, or a leap that costs. */
export interface Round {
  /** Places of a round. */
  readonly places: number
  readonly moments: number
  /** How well a place suits a moment. */
  readonly fits: (moment: number, place: number) => number
  /** What it costs to be at this place at this moment, though the round would have been elsewhere. */
  readonly leap: (moment: number, place: number) => number
}

/** The best way round, a place a moment, and how good it is. */
export function bestRound({ places, moments, fits, leap }: Round): {
  readonly way: readonly number[]
  readonly score: number
} {
  let best = Float64Array.from({ length: places }, (_, place) => fits(0, place))
  const origins: Int16Array[] = []
  for (let i = 1; i < moments; i++) {
    const next = new Float64Array(places)
    const origin = new Int16Array(places)
    const top = best.indexOf(Math.max(...best))
    for (let place = 0; place < places; place++) {
      const before = (place + places - 1) % places
      const on = best[before] as number
      const leaps = (best[top] as number) - leap(i, place)
      origin[place] = leaps > on ? top : before
      next[place] = Math.max(on, leaps) + fits(i, place)
    }
    best = next
    origins.push(origin)
  }
  const score = moments === 0 ? 0 : Math.max(...best)
  let now = Math.max(0, best.indexOf(score))
  const way = [now]
  for (const origin of origins.toReversed()) {
    now = origin[now] as number
    way.push(now)
  }
  return { way: way.toReversed().slice(0, moments), score }
}
