import { uniformFloat64 } from 'pure-rand/distribution/uniformFloat64'
import { xoroshiro128plus } from 'pure-rand/generator/xoroshiro128plus'

const WARM_UP = 8

/** A stream of numbers from 0 up to but not with 1: the same for the same seed. */
export function numbersFrom(seed: number): () => number {
  const source = xoroshiro128plus(seed)
  const next = () => uniformFloat64(source)
  // The first ones of near seeds are near each other.
  for (let i = 0; i < WARM_UP; i++) next()
  return next
}

/** One of several, the heavier the more often. */
export function drawn<T>(
  list: readonly T[],
  weightOf: (one: T) => number,
  next: () => number,
): T | undefined {
  let left = next() * list.reduce((sum, one) => sum + weightOf(one), 0)
  return list.find((one) => {
    left -= weightOf(one)
    return left < 0
  })
}
